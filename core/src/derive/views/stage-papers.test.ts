import { after } from '../../../testing/after.js';
import { PRACTICE } from '../../../testing/practice.js';
import { SMALL } from '../../../testing/small-rig.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../../demo/island-run.js';
import { setWant } from '../../edits/sounds.js';
import { all, partOf, soundsInOrder } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { floorCards, memoryTable } from './stage-papers.js';
import { telling } from './telling.js';

const demo = islandRun();
const d = deriveOnce(demo, BALLROOM_ID)!;
const list = partOf(demo, 'setList:ferry')!;

describe('the floor card', () => {
  test('every sound that a foot calls lies under its switch once, with the songs of the set that use it', () => {
    const [card, ...others] = floorCards(d, list);
    expect(others).toEqual([]);
    const slots = card!.banks.flatMap((b) => b.slots).filter((s) => s.sound);
    expect(slots.map((s) => s.sound).sort()).toEqual(
      soundsInOrder(demo)
        .map((s) => s.name)
        .sort(),
    );
    expect(card!.banks.map((b) => [b.name, b.slots.map((s) => s.switch).join('')])).toEqual(
      ['1', '2', '3', '4'].map((n) => [`bank ${n}`, 'ABCD']),
    );
    const rope = all(demo, 'song')[0]!;
    const called = rope.cues.flatMap((c) => ('sound' in c.call ? [partOf(demo, c.call.sound)!.name] : []));
    expect(slots.filter((s) => s.songs.includes(rope.title)).map((s) => s.sound)).toEqual(called);
    expect(card!.moves).toEqual([
      { switch: 'E', name: 'Lift', how: 'while held' },
      { switch: 'F', name: 'Delay throw', how: 'on and off' },
    ]);
  });
  test('without a set all songs count; a rig that no foot calls has none', () => {
    const other = { ...list, songs: [] };
    expect(floorCards(d, other)[0]!.banks[0]!.slots[0]!.songs).toEqual([]);
    expect(floorCards(d, undefined)[0]!.banks[0]!.slots[0]!.songs.length).toBeGreaterThan(0);
    expect(floorCards(deriveOnce(PRACTICE.find((p) => p.file === 'theatre-pit')!.rig, SMALL)!, undefined)).toEqual([]);
  });
});

test('what is called from another slot in another hook-up does not lie under the switch here', () => {
  const lead = soundsInOrder(demo).find((s) => s.name === 'Lead')!;
  const [call] = lead.calls;
  const calls = [
    { ...call!, in: { hookup: BALLROOM_ID } },
    { ...call!, slot: 20, in: { hookup: FERRY_ID } },
  ];
  const rig = after(demo, { put: [{ ...lead, calls }], remove: [] });
  const places = (hookup: typeof BALLROOM_ID): readonly string[] =>
    floorCards(deriveOnce(rig, hookup)!, list).flatMap((c) =>
      c.banks.flatMap((b) => b.slots.filter((s) => s.sound === 'Lead').map((s) => s.place)),
    );
  expect([places(BALLROOM_ID), places(FERRY_ID)]).toEqual([['1D'], ['6A']]);
  expect(memoryTable(deriveOnce(rig, FERRY_ID)!, list).rows.find((r) => r.sound === 'Lead')!.hit).toBe('6A');
});
test('song to memory says for each cue what each box loads, as the box shows it', () => {
  const pit = PRACTICE.find((p) => p.file === 'theatre-pit')!.rig;
  const { columns, rows } = memoryTable(deriveOnce(pit, SMALL)!, partOf(pit, 'setList:show'));
  expect(columns.map((c) => c.code)).toEqual(['PRE', 'DLY']);
  expect(rows).toHaveLength(all(pit, 'song').flatMap((s) => s.cues).length);
  // The preamp counts 1A, 1B, 2A; the delay from 0: Lead is its fourth program in both.
  expect(rows.find((r) => r.sound === 'Lead')!.loads).toEqual(['2B', '3']);
  expect(rows.find((r) => r.song === '7. Storm')).toMatchObject({ cue: 'Wall', loads: ['3A', '0'] });
});

describe('the rig told', () => {
  test('every box of the hook-up is told once, in the order of the signal, with what it comes after', () => {
    const told = telling(d);
    const wired = all(demo, 'device').filter((x) => d.anatomy.wiring.wired.has(x.id));
    const codes = [...told.boxes, ...told.beside].map((b) => b.code);
    expect([...codes].sort()).toEqual(wired.map((x) => x.code).sort());
    expect(codes.indexOf('CMP')).toBeGreaterThan(codes.indexOf('SWI'));
    expect(told.boxes.find((b) => b.code === 'CMP')!.after).toEqual(['SWI']);
    expect(told.opening[0]).toContain('16 sounds, 12 songs');
  });
  test('a box says in which sounds and songs it is heard; the person’s own words stand beside it and beside its sound', () => {
    const told = telling(d);
    expect(told.boxes.find((b) => b.code === 'OFZ')!.heard).toBe(
      'In Storm fuzz and Fog fuzz; songs: Tin roof, Old ballast and Fog signal.',
    );
    const fuzz = soundsInOrder(demo).find((s) => s.name === 'Fog fuzz')!;
    const want = { stage: 'device:ofz.fuzz', is: 'in', why: 'the old record has it' } as const;
    const own = all(demo, 'device').find((x) => x.code === 'OFZ')!;
    const stage = `${own.id}.fuzz` as const;
    const said = after(demo, setWant(fuzz, { ...want, stage }));
    const again = telling(deriveOnce(said, BALLROOM_ID)!);
    expect(again.boxes.find((b) => b.code === 'OFZ')!.why).toEqual(['the old record has it']);
    expect(again.sounds.find((s) => s.name === 'Fog fuzz')!.why).toEqual(['the old record has it']);
  });
});
