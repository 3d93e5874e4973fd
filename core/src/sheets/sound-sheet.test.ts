import { SMALL, smallRig } from '../../testing/small-rig.js';
import { apply } from '../change/apply.js';
import { saidBy } from '../recall/intend/wants.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../demo/island-run.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { addSound } from '../edits/sounds.js';
import { all, partOf, soundsInOrder, type Rig } from '../rig/rig.js';
import type { Sound } from '../rig/sound.js';
import { anatomy } from '../signal/graph/anatomy.js';
import { cellOf, controlColumn, pasted, sheetColumns, typeBlock, type Column } from './sound-sheet.js';
import { typeInto } from './typed-cell.js';

const rig = islandRun();
const columns = sheetColumns(rig, anatomy(rig, partOf(rig, BALLROOM_ID)!));
const column = (title: string): Column => columns.find((c) => c.title === title)!;
const sound = (n: string, r = rig) => partOf(r, `sound:${n}`)!;
const typed = (title: string, text: string, s: Sound = sound('01'), r: Rig = rig) => {
  const result = typeInto(r, s, column(title), text, here);
  return result.ok
    ? cellOf(r, result.value.put[0] as Sound, column(title), BALLROOM_ID).text
    : `${result.error.wrong} ${result.error.would}`;
};
const here = { hookup: BALLROOM_ID, only: false };
describe("a switcher's own controls as columns", () => {
  const swi = partOf(rig, 'device:swi')!;
  const own = (name: string) =>
    controlColumn(
      swi,
      swi.controls.find((c) => c.id === name)!,
    );
  const typedAt = (name: string, text: string) => {
    const result = typeInto(rig, sound('01'), own(name), text, here);
    return result.ok
      ? cellOf(rig, result.value.put[0] as Sound, own(name), BALLROOM_ID).text
      : `${result.error.wrong} ${result.error.would}`;
  };
  test('its output is muted in a sound', () => expect(typedAt('output', 'muted')).toBe('muted'));
  test('the order of its loops is typed by their numbers; those not named come last', () => {
    expect(typedAt('order', '3 1 2')).toBe('3 1 2 4 5 6 7 8');
    expect(typedAt('order', 'usual')).toBe('usual');
  });
  test('what it cannot do is refused in words', () => {
    expect(typedAt('order', '9 1')).toMatch(
      /^"9 1" is no order of its loops\. Type its loops .* such as 3 2 1; or usual\.$/,
    );
    expect(typedAt('order', '1 (2|3)')).toMatch(/^It leads no ways beside each other\./);
  });
});

/** A block pasted into the sheet with its first cell there. */
const pasteInto = (r: Rig, all_: readonly Column[], at: number, col: number, block: readonly (readonly string[])[]) => {
  const sounds = soundsInOrder(r);
  const cells = pasted(sounds.length, all_.length, { row: at, column: col }, block);
  return cells.ok ? typeBlock(r, sounds, all_, cells.value, here) : cells;
};
const row = (n: string) => columns.map((c) => cellOf(rig, sound(n), c, BALLROOM_ID).text);

describe('the sound sheet', () => {
  test('columns stand in signal order, loops before what follows them', () => {
    expect(columns.map((c) => c.title)).toEqual([
      'trim dB',
      'CMP',
      'OFZ',
      'LOW',
      'HIG',
      'GAT',
      'HED ch.',
      'MOD',
      'MOD prog',
      'REV',
      'REV prog',
      'DLY',
      'DLY prog',
      'DLY mix %',
    ]);
  });
  test('a row shows programs as the box does', () =>
    expect(row('03')).toEqual(['0', '●', '·', '●', '·', '·', 'clean', '●', '13', '●', '3.3', '●', '', '']));
  test.each([
    ['CMP', 'x', '●'],
    ['CMP', '-', '·'],
    ['CMP', 'ANY', 'any'],
    ['CMP', 'maybe', '"maybe" says neither in nor out. Type x for in, - for out, or any.'],
    ['HED ch.', 'lead', 'lead'],
    ['HED ch.', '2', 'lead'],
    ['HED ch.', 'l', 'lead'],
    ['HED ch.', 'third', '"third" is no channel of it. Type clean or lead.'],
    ['MOD prog', '13', '13'],
    ['MOD prog', '0', '"0" is not a number that Stereo modulation shows. It shows 1 to 128.'],
    ['REV prog', '2.2', '2.2'],
    ['REV prog', '22', '"22" is not a number that Stereo reverb shows. It shows 1.1 to 43.2.'],
    ['trim dB', '-2–3', '-2–3'],
    ['trim dB', '-2..3', '-2–3'],
    ['trim dB', '-2 to 3', '-2–3'],
    ['trim dB', 'hand', 'hand'],
    ['trim dB', '3–-2', '"3–-2" is no range inside -12 to 12 dB. Type the lower end first, such as 30–50.'],
    [
      'trim dB',
      '+2 over',
      '"+2 over" counts from the sound that it is derived from, and it is derived from none. Type -12 to 12 dB.',
    ],
    ['trim dB', '-3', '-3'],
    ['trim dB', '−3', '-3'],
    [
      'trim dB',
      '40',
      '"40" is outside its range. Type -12 to 12 dB, a range such as 30–50, heel and toe of a pedal such as 10>60, any, or hand.',
    ],
    ['trim dB', '', ''],
    ['trim dB', 'any', 'any'],
  ])('%s: typing "%s" shows "%s"', (title, text, shows) => expect(typed(title, text)).toBe(shows));

  test('a derived sound shows what it takes over, and its own on top; cleared, it follows again', () => {
    const applied = apply(rig, addSound(rig, 'sound:d', 'Derived', 'lead', 'sound:04'));
    const derived = applied.ok ? applied.value.rig : rig;
    const child = partOf(derived, 'sound:d')!;
    expect(cellOf(derived, child, column('HIG'), BALLROOM_ID)).toEqual({ text: '●', own: false });
    const out = typeInto(derived, child, column('HIG'), '-', here);
    const own = (out.ok && out.value.put[0]) as Sound;
    expect(cellOf(derived, own, column('HIG'), BALLROOM_ID)).toEqual({ text: '·', own: true });
    const cleared = typeInto(derived, own, column('HIG'), '', here);
    expect(cleared.ok && cellOf(derived, cleared.value.put[0] as Sound, column('HIG'), BALLROOM_ID)).toEqual({
      text: '●',
      own: false,
    });
  });
});

describe('what holds in one hook-up only', () => {
  const only = { hookup: FERRY_ID, only: true };
  const inFerry = (title: string, text: string, s: Sound) => {
    const done = typeInto(rig, s, column(title), text, only);
    return (done.ok && done.value.put[0]) as Sound;
  };
  const cell = (s: Sound, title: string, hookup: typeof FERRY_ID | typeof BALLROOM_ID) =>
    cellOf(rig, s, column(title), hookup);
  test('it shows there, with where it holds; elsewhere all is as it was, and says that it is not so everywhere', () => {
    const s = inFerry('REV prog', '2.2', sound('03'));
    expect([cell(s, 'REV prog', FERRY_ID), cell(s, 'REV prog', BALLROOM_ID)]).toEqual([
      { text: '2.2', own: true, where: 'only here' },
      { text: '3.3', own: true, where: 'not everywhere' },
    ]);
  });
  test('a stage out there only, a channel of several there only', () => {
    expect([
      cell(inFerry('CMP', '-', sound('03')), 'CMP', FERRY_ID).text,
      cell(inFerry('CMP', '-', sound('03')), 'CMP', BALLROOM_ID).text,
    ]).toEqual(['·', '●']);
    const lead = inFerry('HED ch.', 'lead', sound('03'));
    expect([cell(lead, 'HED ch.', FERRY_ID).text, cell(lead, 'HED ch.', BALLROOM_ID).text]).toEqual(['lead', 'clean']);
  });
  test('taken back, it follows the rest again', () => {
    const back = typeInto(rig, inFerry('REV prog', '2.2', sound('03')), column('REV prog'), '', only);
    expect(back.ok && back.value.put[0]).toEqual(sound('03'));
  });
  test('what is then typed for all hook-ups holds here too, and leaves what is said of others', () => {
    const s = inFerry('REV prog', '2.2', sound('03'));
    const inBallroom = typeInto(rig, s, column('REV prog'), '1.1', here);
    const inFerryToo = typeInto(rig, s, column('REV prog'), '1.1', { ...only, only: false });
    expect(
      [inBallroom, inFerryToo].map((t) =>
        t.ok
          ? [BALLROOM_ID, FERRY_ID].map(
              (h) => cellOf(rig, t.value.put[0] as Sound, column('REV prog'), h as typeof FERRY_ID).text,
            )
          : t.error,
      ),
    ).toEqual([
      ['1.1', '2.2'],
      ['1.1', '1.1'],
    ]);
  });
  test('what the sheet shows is what the proof reckons with', () => {
    const s = inFerry('REV prog', '2.2', sound('03'));
    const applied = apply(rig, { put: [s], remove: [] });
    const wanted = (hookup: typeof FERRY_ID | typeof BALLROOM_ID) =>
      saidBy(applied.ok ? applied.value.rig : rig, s, partOf(rig, hookup)!).controls.get('device:rev.program');
    expect([wanted(FERRY_ID), wanted(BALLROOM_ID)]).toEqual([{ is: 4 }, { is: 8 }]);
  });
});

describe('paste', () => {
  test('a block fills cells, row by row', () => {
    const done = pasteInto(rig, columns, 0, 1, [
      ['-', 'x'],
      ['x', ''],
    ]);
    const [one, two] = done.ok ? done.value : [];
    expect([
      cellOf(rig, one!, column('CMP'), BALLROOM_ID).text,
      cellOf(rig, one!, column('OFZ'), BALLROOM_ID).text,
      cellOf(rig, two!, column('CMP'), BALLROOM_ID).text,
    ]).toEqual(['·', '●', '●']);
  });
  test('copied out and pasted in, the sheet is the same', () => {
    const cells = soundsInOrder(rig).map((s) => columns.map((c) => cellOf(rig, s, c, BALLROOM_ID).text));
    const done = pasteInto(rig, columns, 0, 0, cells);
    expect(done.ok && done.value.map((s) => columns.map((c) => cellOf(rig, s, c, BALLROOM_ID).text))).toEqual(cells);
  });
  test.each([
    ['too many rows', 15, 0, [['0'], ['0']], '2 rows were pasted; from here on there are 1.'],
    ['too many columns', 0, 12, [['x', '0', 'x']], '3 columns were pasted; from here on there are 2.'],
    ['one bad cell', 0, 0, [['0'], ['loud']], '"loud" is outside its range.'],
  ])('%s: nothing is changed, and it says why', (_, at, col, rows, says) => {
    const done = pasteInto(rig, columns, at, col, rows);
    expect(done.ok ? [] : done.error.map((r) => r.wrong)).toContain(says);
  });
});

describe.each(
  DEMO_RIGS.flatMap(({ id, make }) => all(make(), 'hookup').map((h) => [`${id}, ${h.name}`, make(), h] as const)),
)('the sheet of %s', (_, demo, hookup) => {
  const sheet = sheetColumns(demo, anatomy(demo, hookup));
  test('each column has its own name and says what it is', () => {
    expect(new Set(sheet.map((c) => c.id)).size).toBe(sheet.length);
    expect(new Set(sheet.map((c) => c.title)).size).toBe(sheet.length);
    expect(sheet.every((c) => c.says.length > 3)).toBe(true);
  });
  test('what a cell shows can be typed into it again and shows the same', () => {
    for (const s of soundsInOrder(demo)) {
      for (const c of sheet) {
        const { text } = cellOf(demo, s, c, hookup.id);
        const again = typeInto(demo, s, c, text, { hookup: hookup.id, only: false });
        expect([s.name, c.title, again.ok]).toEqual([s.name, c.title, true]);
        const changed = again.ok ? (again.value.put.find((p): p is Sound => p.kind === 'sound') ?? s) : s;
        expect([s.name, c.title, cellOf(demo, changed, c, hookup.id).text]).toEqual([s.name, c.title, text]);
      }
    }
  });
});

describe('amounts under a pedal, and times in beats', () => {
  const pedalled = smallRig({
    boxes: { g: 'single-coil', c: 'midi-controller-exp', d: 'stereo-delay', w: 'powered-speaker' },
    leads: ['g.out>d.in-l', 'd.out-l>w.in', 'c.midi-out>d.midi-in'],
    sounds: { One: ['d.delay', 'd.mix=20'] },
    with: (p) =>
      p.kind === 'device' && p.id === 'device:d'
        ? {
            ...p,
            controls: [
              ...p.controls,
              { id: 'time', domain: { min: 1, max: 2000, unit: 'ms' }, powerUp: 'left', use: 'sound' },
            ],
          }
        : p,
  });
  const d = partOf(pedalled, 'device:d')!;
  const says = (control: string, text: string, r = pedalled): string => {
    const c = controlColumn(
      d,
      d.controls.find((x) => x.id === control)!,
    );
    const result = typeInto(r, partOf(r, 'sound:one')!, c, text, { hookup: SMALL, only: false });
    return result.ok
      ? cellOf(r, result.value.put[0] as Sound, c, SMALL).text
      : `${result.error.wrong} ${result.error.would}`;
  };
  test.each([
    ['10>60 C exp1', '10>60 C exp1'],
    ['60 > 10 c EXP2 slow', '60>10 C exp2 slow'],
    ['10>60 C exp1 fast @30', '10>60 C exp1 fast @30'],
    ['10>60 @30 C exp1 line', '10>60 C exp1 @30'],
    ['10>60', 'Which pedal is meant is not said. Name one of C exp1, C exp2.'],
    ['10>60 wah', 'No pedal input is called "wah". Name one of C exp1, C exp2.'],
    ['10>600 C exp1', '"10>600 C exp1" goes outside its range. Stay within 0 to 100 %.'],
    ['10>60 C exp1 @x', '"10>60 C exp1 @x" goes outside its range. Stay within 0 to 100 %.'],
    ['>60', '">60" does not say where heel and toe stand. Type heel and toe such as 10>60, then the pedal.'],
  ])('mix: typing "%s" shows "%s"', (text, shows) => {
    expect(says('mix', text)).toBe(shows);
    if (/^\d/.test(shows)) expect(says('mix', shows)).toBe(shows);
  });
  test.each([
    ['0.75 beats', '0.75 beats'],
    ['1 beat', '1 beats'],
    ['0,5 beats', '0.5 beats'],
  ])('time: typing "%s" shows "%s"', (text, shows) => expect(says('time', text)).toBe(shows));
  test('beats in a control that is no time are refused', () =>
    expect(says('mix', '2 beats')).toBe('"2 beats" is a time, and Stereo delay: mix is none. Type 0 to 100 %.'));
  test('where no controller has an input for a pedal, that is said', () =>
    expect(typed('trim dB', '-2>3')).toBe(
      'No controller of this rig has an input for a pedal. Add a controller with an expression input in Kit.',
    ));
});
