import { apply } from '../change/apply.js';
import { after } from '../../testing/after.js';
import type { Edit } from '../change/edit.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../demo/island-run.js';
import { deriveOnce } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import { line } from '../../testing/run-line.js';
import { cablesOf, everyPart, partOf, type Rig } from '../rig/rig.js';
import { addHookup, assume, changeHookup, compareHookups, copyHookup, doNotAssume, removeHookup } from './hookups.js';

const demo = islandRun();
const made = (edit: Edit, rig: Rig = demo): Rig => after(rig, edit);
const ends = (rig: Rig, id: `hookup:${string}`) =>
  cablesOf(rig, id)
    .map((c) => [...c.ends].sort().join())
    .sort();

describe('hook-ups', () => {
  test('a new one is empty and can be renamed', () => {
    const rig = made(addHookup('hookup:fly', 'Fly date'));
    expect(cablesOf(rig, 'hookup:fly')).toEqual([]);
    expect(partOf(made(changeHookup(partOf(rig, 'hookup:fly')!, { name: 'Fly' }), rig), 'hookup:fly')!.name).toBe(
      'Fly',
    );
  });
  test('a copy has the same cables, settings and assumptions, and lives on its own', () => {
    const rig = made(copyHookup(demo, BALLROOM_ID, 'hookup:copy', 'Copy', (i) => `cable:copy-${i}`));
    expect(ends(rig, 'hookup:copy')).toEqual(ends(rig, BALLROOM_ID));
    expect(partOf(rig, 'hookup:copy')!.assumes).toEqual(partOf(rig, BALLROOM_ID)!.assumes);
    const cut = made({ put: [], remove: ['cable:copy-0'] }, rig);
    expect(cablesOf(cut, BALLROOM_ID)).toHaveLength(42);
    const [a, b] = [BALLROOM_ID, 'hookup:copy' as const].map((h) => deriveOnce(rig, h)!);
    expect([...b!.verdicts].map(([id, v]) => [id, v.is])).toEqual([...a!.verdicts].map(([id, v]) => [id, v.is]));
  });
  test('a copy takes along what is wanted only in what it was copied from', () => {
    const sound = partOf(demo, 'sound:01')!;
    const rig = made({
      put: [{ ...sound, wants: [...sound.wants, { control: 'device:swi.trim', is: 2, in: { hookup: FERRY_ID } }] }],
      remove: [],
    });
    const copied = made(
      copyHookup(rig, FERRY_ID, 'hookup:copy', 'Copy', (i) => `cable:copy-${i}`),
      rig,
    );
    expect(
      partOf(copied, 'sound:01')!
        .wants.slice(-2)
        .map((w) => w.in?.hookup),
    ).toEqual([FERRY_ID, 'hookup:copy']);
    expect(partOf(copied, 'sound:02')).toBe(partOf(rig, 'sound:02'));
  });
  test('nothing to copy or take away is no edit', () => {
    expect(copyHookup(demo, 'hookup:none', 'hookup:x', 'X', () => 'cable:x')).toEqual({ put: [], remove: [] });
    expect(removeHookup(demo, 'hookup:none')).toEqual({ put: [], remove: [] });
  });
  test('taken away, it takes its cables, what was accepted in it and what is wanted only there', () => {
    const sound = partOf(demo, 'sound:01')!;
    const rig = made({
      put: [
        { ...sound, wants: [...sound.wants, { control: 'device:swi.trim', is: 2, in: { hookup: FERRY_ID } }] },
        { kind: 'acceptance', id: 'acceptance:1', hookup: FERRY_ID, code: 'wire.unused', evidence: 'x', reason: 'so' },
      ],
      remove: [],
    });
    const gone = made(removeHookup(rig, FERRY_ID), rig);
    expect(everyPart(gone).filter((p) => JSON.stringify(p).includes(FERRY_ID))).toEqual([]);
    expect(partOf(gone, 'sound:01')).toEqual(sound);
    expect(cablesOf(gone, BALLROOM_ID)).toHaveLength(42);
  });
});

describe('from one hook-up to another', () => {
  const change = compareHookups(demo, BALLROOM_ID, FERRY_ID);
  test('pull nine, plug nine, thirty-three stay', () =>
    expect([change.pull.length, change.plug.length, change.stays]).toEqual([9, 9, 33]));
  test('carried out, the one is the other', () => {
    const rig = made({
      put: change.plug.map((c, i) => ({ ...c, id: `cable:new-${i}` as const, hookup: BALLROOM_ID })),
      remove: change.pull.map((c) => c.id),
    });
    expect(ends(rig, BALLROOM_ID)).toEqual(ends(rig, FERRY_ID));
  });
  test('there and back are each other turned round; to itself there is nothing to do', () => {
    const back = compareHookups(demo, FERRY_ID, BALLROOM_ID);
    expect([back.pull.length, back.plug.length]).toEqual([change.plug.length, change.pull.length]);
    expect(compareHookups(demo, FERRY_ID, FERRY_ID)).toEqual({ pull: [], plug: [], stays: 42 });
  });
  test('cables of one box are pulled together', () => {
    const boxes = change.pull.map((c) => c.ends.map((e) => e.split('.')[0]));
    const switcher = boxes.map((b) => b.includes('device:swi'));
    expect(switcher.lastIndexOf(true) - switcher.indexOf(true) + 1).toBe(switcher.filter(Boolean).length);
  });
});

describe('the demo without its amp', () => {
  const d = deriveOnce(demo, FERRY_ID)!;
  test.each([
    [
      'sound:01',
      'gsc wls sel tun vol (cmp) /ofz/ /low/ /hig/ /gat/ (pre) /mod/ // [dly] ═rev< ═dis ═→Front of house:left+right',
    ],
    [
      'sound:04',
      'gsc wls sel tun vol (cmp) /ofz/ (low) (hig) /gat/ (pre) /mod/ // dly< ═rev ═dis ═→Front of house:left+right',
    ],
    [
      'sound:07',
      'gsc wls sel tun vol /cmp/ (ofz) /low/ /hig/ (gat) (pre) /mod/ // [dly] ═rev< ═dis ═→Front of house:left+right',
    ],
  ] as const)('%s: %s', (sound, path) => expect(line(soundRun(d, sound))).toBe(path));
  test('every sound has a problem-free way to the desk, and the same two faults as with the amp', () => {
    expect([...d.compilation.sounds.values()].flatMap((c) => c.problems)).toEqual([]);
    expect([...d.verdicts].filter(([, v]) => v.is !== 'proved').map(([id]) => id)).toEqual(['sound:03', 'sound:06']);
  });
});

test('taken for granted, said anew, taken back; two things of one control are refused, and nothing is changed', () => {
  const hookup = (rig: Rig) => partOf(rig, BALLROOM_ID)!;
  const once = made(assume(hookup(demo), 'device:vol.amount', 100, 'at full'));
  expect(hookup(once).assumes.at(-1)).toEqual({ control: 'device:vol.amount', value: 100, why: 'at full' });
  const again = made(assume(hookup(once), 'device:vol.amount', 90, 'nearly'), once);
  expect(hookup(again).assumes.filter((a) => a.control === 'device:vol.amount')).toHaveLength(1);
  expect(
    hookup(made(doNotAssume(hookup(again), 'device:vol.amount'), again)).assumes.some(
      (a) => a.control === 'device:vol.amount',
    ),
  ).toBe(false);
  const both = apply(once, {
    put: [
      { ...hookup(once), assumes: [...hookup(once).assumes, { control: 'device:vol.amount', value: 0, why: 'off' }] },
    ],
    remove: [],
  });
  expect(both.ok ? '' : `${both.error[0]!.wrong} ${both.error[0]!.would}`).toBe(
    'vol.amount is taken for granted at 0, and 100 is said of it as well. Say one of the two.',
  );
});
