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
    const first = await until((s) => s.stamp === 1);
    expect([first.older, first.view!.tally.sounds]).toEqual([false, 16]);
    client.want({ ...rig, revision: 12 }, BALLROOM_ID);
    expect(client.snapshot()).toBe(first);
    client.want(renamed(rig, 'Evening run'), BALLROOM_ID);
    expect(client.snapshot()).toMatchObject({ stamp: 1, older: true });
    await until((s) => s.stamp === 2 && !s.older);
    client.want(renamed(rig, 'Evening run'), FERRY_ID);
    await until((s) => s.stamp === 3 && !s.older);
    client.close();
  });
  test('of what changes while it works only the last is derived', async () => {
    const { client, until } = connected();
    const rig = islandRun();
    for (const name of ['One', 'Two', 'Three', 'Four']) client.want(renamed(rig, name), BALLROOM_ID);
    expect((await until((s) => s.stamp > 0 && !s.older)).stamp).toBe(2);
    client.close();
  });
});
