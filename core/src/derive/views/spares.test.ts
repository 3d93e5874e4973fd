import { after } from '../../../testing/after.js';
import { goneStale } from '../../board/stale.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { addEntry } from '../../edits/logbook.js';
import { addCase, pack } from '../../edits/packing.js';
import { tick } from '../../edits/ticks.js';
import type { Packed } from '../../rig/packing.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { spareNeeds } from './spares.js';

const demo = after(islandRun(), addCase('packCase:bag', 'Bag'));
const needs = (rig: Rig) => spareNeeds(deriveOnce(rig, BALLROOM_ID)!);
const packed = (rig: Rig, name: string, thing: Packed): Rig =>
  after(rig, pack(thePart(rig, 'packCase:bag'), name, thing));
const failed = (rig: Rig, times: number): Rig =>
  Array.from({ length: times }, (_, i) => i).reduce(
    (some, i) =>
      after(
        some,
        addEntry(`logEntry:f${i}`, {
          text: 'Gone',
          when: `2026-05-0${i + 1}T10:00:00.000Z`,
          by: '',
          about: 'device:dly',
          broke: 'jack',
        }),
      ),
    rig,
  );

test('what every sound goes through comes first; what failed comes before what never did', () => {
  const before = needs(demo);
  expect(before[0]?.sounds).toBe(before[0]?.of);
  const place = (rig: Rig) => needs(rig).findIndex((n) => n.device === 'device:dly');
  expect(place(demo)).toBeGreaterThan(0);
  expect(place(failed(demo, 5))).toBe(0);
  expect(needs(failed(demo, 5))[0]?.troubles).toEqual([{ part: 'jack', times: 5, last: '2026-05-05T10:00:00.000Z' }]);
});

test('what has no stage of its own counts as well: the switcher, and a supply with all that hangs on it', () => {
  const found = needs(demo);
  const of = (device: string) => found.find((n) => n.device === device)!;
  expect(of('device:swi').sounds).toBe(of('device:swi').of);
  expect(of('device:suh').sounds).toBe(of('device:suh').of);
  expect(found.some((n) => n.name === 'Mixing desk')).toBe(false);
});

test('a spare is found in its case', () => {
  const rig = packed(demo, 'Other delay', { device: 'device:dly', is: 'spare' });
  expect(needs(rig).find((n) => n.device === 'device:dly')?.packed).toEqual(['Bag']);
});

test('a backup is stale when something was typed into its box after its day, and when nobody said its day', () => {
  const box = thePart(demo, 'device:dly');
  const line = { text: 'Mix 30', is: 'mix 30' };
  const typed = (rig: Rig, when: string): Rig =>
    after(
      rig,
      tick(rig, { device: box.id, memory: box.memories[0]!.id, number: 1 }, [line], [line], {
        by: 'Ada',
        revision: 1,
        when,
      }),
    );
  const backup = (asOf?: string): Rig =>
    packed(demo, 'Presets of the delay', { device: box.id, is: 'digital', ...(asOf ? { asOf } : {}) });
  expect(goneStale(backup())).toEqual([{ device: box.id, name: 'Presets of the delay', since: 0 }]);
  expect(goneStale(typed(backup('2026-05-10'), '2026-05-10T10:00:00.000Z'))).toEqual([]);
  expect(goneStale(typed(backup('2026-05-10'), '2026-05-11T08:00:00.000Z'))).toEqual([
    { device: box.id, name: 'Presets of the delay', asOf: '2026-05-10', since: 1 },
  ]);
  // A spare that stores nothing cannot grow old.
  expect(goneStale(packed(demo, 'Other volume pedal', { device: 'device:vol', is: 'spare' }))).toEqual([]);
});
