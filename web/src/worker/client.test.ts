import { patch } from '@yunta/core/change/delta';
import { BALLROOM_ID, FERRY_ID, islandRun } from '@yunta/core/demo/island-run';
import { ABOUT, partOf, type Rig } from '@yunta/core/rig/rig';
import { expose } from 'comlink';
import { DerivedClient, type DerivedState } from './client.js';
import { Deriving } from './deriving.js';

/** The page's side and the worker's, each at one end of a channel as between page and worker. */
const connected = () => {
  const { port1, port2 } = new MessageChannel();
  expose(new Deriving(), port1);
  port1.start();
  port2.start();
  const client = new DerivedClient(
    Object.assign(port2, {
      terminate: () => {
        port1.close();
        port2.close();
      },
    }) as unknown as Worker,
  );
  const until = (is: (state: DerivedState) => boolean) =>
    new Promise<DerivedState>((resolve) => {
      const look = () => {
        if (is(client.snapshot())) resolve(client.snapshot());
      };
      client.subscribe(look);
      look();
    });
  return { client, until };
};
const renamed = (rig: Rig, name: string): Rig =>
  patch(rig, new Map([[ABOUT, { before: partOf(rig, ABOUT)!, after: { ...partOf(rig, ABOUT)!, name } }]]));

describe('the page and its worker', () => {
  test('the next revision of a rig that says the same is not derived again, another rig or hook-up is', async () => {
    const { client, until } = connected();
    const rig = islandRun();
    client.want(rig, BALLROOM_ID);
    const first = await until((s) => s.stamp > 0);
    expect([first.older, first.view!.tally.sounds]).toEqual([false, 16]);
    client.want({ ...rig, revision: 12 }, BALLROOM_ID);
    expect(client.snapshot()).toBe(first);
    client.want(renamed(rig, 'Evening run'), BALLROOM_ID);
    expect(client.snapshot()).toMatchObject({ stamp: first.stamp, older: true });
    const second = await until((s) => s.stamp > first.stamp && !s.older);
    client.want(renamed(rig, 'Evening run'), FERRY_ID);
    await until((s) => s.stamp > second.stamp && !s.older);
    client.close();
  });
  test('of what changes while it works only the last is derived', async () => {
    const { client, until } = connected();
    const rig = islandRun();
    for (const name of ['One', 'Two', 'Three', 'Four']) client.want(renamed(rig, name), BALLROOM_ID);
    const stamps = new Set<number>();
    client.subscribe(() => stamps.add(client.snapshot().stamp));
    await until((s) => s.stamp > 0 && !s.older);
    expect([...stamps].filter((stamp) => stamp > 0)).toHaveLength(2);
    client.close();
  });
  test('another page of the same rig never has a result of the same stamp', async () => {
    const [one, other] = [connected(), connected()];
    one.client.want(islandRun(), BALLROOM_ID);
    other.client.want(renamed(islandRun(), 'Evening run'), BALLROOM_ID);
    const stamps = await Promise.all([one, other].map(({ until }) => until((s) => s.stamp > 0)));
    expect(new Set(stamps.map((s) => s.stamp)).size).toBe(2);
    one.client.close();
    other.client.close();
  });
});
