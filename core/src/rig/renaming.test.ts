import { after } from '../../testing/after.js';
import { islandRun } from '../demo/island-run.js';
import { lighthouseSolo } from '../demo/lighthouse-solo.js';
import { nightMarketBass } from '../demo/night-market-bass.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { rebuildDevice } from '../edits/devices.js';
import type { Device } from './device.js';
import { blockIds } from './domain.js';
import { all, everyPart, partOf, type Rig } from './rig.js';
import { renamedIn, type Renaming } from './renaming.js';

const opposite = (change: Renaming): Renaming => ({ ...change, from: change.to, to: change.from });

/** Everything in a box that can be called otherwise, with a new name; off and on are words of the trade. */
const every = (device: Device): readonly Renaming[] => [
  ...device.jacks.map(({ id }): Renaming => ({ of: 'jack', from: id, to: `the ${id}` })),
  ...device.chains.flatMap((c) => blockIds(c.slots)).map((id): Renaming => ({ of: 'stage', from: id, to: `my-${id}` })),
  ...device.controls.flatMap(({ id, domain }) =>
    'values' in domain
      ? domain.values
          .filter((v) => typeof v === 'string' && v !== 'on' && v !== 'off')
          .map((v): Renaming => ({ of: 'value', control: id, from: String(v), to: `${v} now` }))
      : [],
  ),
];

const rebuilt = (rig: Rig, device: Device, changes: readonly Renaming[]): Rig =>
  after(rig, rebuildDevice(rig, changes.reduce(renamedIn, device), changes));

const asText = (rig: Rig) =>
  [...everyPart(rig)].map((part) => JSON.stringify(part, (_, of: unknown) => sorted(of))).sort();
const sorted = (of: unknown): unknown =>
  of && typeof of === 'object' && !Array.isArray(of) ? Object.fromEntries(Object.entries(of).sort()) : of;

describe.each([
  ['island run', islandRun()],
  ['night market bass', nightMarketBass()],
  ['lighthouse solo', lighthouseSolo()],
])('%s, every jack, stage and position called otherwise', (_, rig) => {
  const changes = all(rig, 'device').map((d) => [d.id, every(d)] as const);
  const renamed = changes.reduce((so, [id, list]) => rebuilt(so, partOf(so, id)!, list), rig);

  test('there is a lot to rename', () => expect(changes.flatMap(([, c]) => c).length).toBeGreaterThan(40));

  test('no verdict changes in any hook-up', () => {
    for (const { id } of all(rig, 'hookup')) {
      const [was, now] = [deriveOnce(rig, id)!, deriveOnce(renamed, id)!];
      expect([...now.verdicts].map(([sound, v]) => [sound, v.is])).toEqual(
        [...was.verdicts].map(([sound, v]) => [sound, v.is]),
      );
    }
  });

  test('called back, it is the same rig', () => {
    const back = changes.reduce(
      (so, [id, list]) => rebuilt(so, partOf(so, id)!, list.map(opposite).reverse()),
      renamed,
    );
    expect(asText(back)).toEqual(asText(rig));
  });
});

test('an order that a box keeps goes by the new names of its stages', () => {
  const device = partOf(nightMarketBass(), all(nightMarketBass(), 'device')[0]!.id)!;
  const box: Device = {
    ...device,
    controls: [{ id: 'order', domain: { arrange: ['a', 'b'], branches: 0 }, powerUp: { at: 'b  (a)' }, use: 'sound' }],
    chains: [
      {
        id: 'path',
        from: [],
        to: [],
        order: 'order',
        slots: [
          { is: 'block', id: 'a', stage: 'delay' },
          { is: 'block', id: 'b', stage: 'reverb' },
        ],
      },
    ],
  };
  const { controls } = renamedIn(box, { of: 'stage', from: 'b', to: 'hall' });
  expect(controls[0]).toMatchObject({ domain: { arrange: ['a', 'hall'] }, powerUp: { at: 'hall  (a)' } });
});
