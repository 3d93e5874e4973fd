import fc from 'fast-check';
import { often } from '../../testing/often.js';
import { all, newRig } from '../rig/rig.js';
import { apply } from '../change/apply.js';
import { addRows, COLUMN_USES, fitsIn, kitRows, kitTable, type KitTable } from './kit-table.js';

const table = (text: string): KitTable => {
  const read = kitTable(text);
  if (!read.ok) throw new Error(JSON.stringify(read.error));
  return read.value;
};
const told = (text: string) =>
  kitRows(table(text)).map((r) => [r.box?.key ?? '?', r.count, ...(r.channel ? [`ch ${r.channel}`] : [])]);
const added = (text: string) => {
  let n = 0;
  const rig = newRig('Pasted');
  const done = apply(
    rig,
    addRows(rig, kitRows(table(text)), () => `device:t${(n += 1)}`),
  );
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return all(done.value.rig, 'device');
};

describe('a list as somebody keeps it', () => {
  test('headings of their own, columns that say nothing here, channels and numbers as people write them', () => {
    const list = [
      'Qty\tItem\tMaker\tMIDI ch\tWeight (kg)',
      '1\tguitar\tsomebody\t\t3.9',
      '2 x\tlow-gain drive\tnobody\t\t0.4',
      '1\tstereo delay\tnobody\tch 3\t0.8',
    ].join('\n');
    expect(table(list).uses).toEqual(['how many', 'box', 'nothing', 'MIDI channel', 'nothing']);
    expect(told(list)).toEqual([
      ['single-coil', 1],
      ['low-drive', 2],
      ['stereo-delay', 1, 'ch 3'],
    ]);
    expect(added(list).map((d) => d.code)).toHaveLength(4);
  });

  test('without a heading the columns are told by what stands in them', () => {
    expect(table('wah;1;floor\n8-loop switcher;1;floor\ncompressor;2;floor').uses).toEqual(['box', 'how many', 'zone']);
    expect(added('wah;1;amp\ncompressor;2;floor').map((d) => d.zone)).toEqual(['amp', 'floor', 'floor']);
  });

  test('rows that fit are added; the others say why and what is near, and can be chosen', () => {
    const list = 'item\ntuner\npreamp\nsmoke machine\ntalk box';
    const rows = kitRows(table(list));
    expect(rows.map(fitsIn)).toEqual([true, false, false, false]);
    expect(rows[1]!.candidates.length).toBeGreaterThan(1);
    expect(rows.slice(1).every((r) => r.why)).toBe(true);
    expect(added(list)).toHaveLength(1);
    const chosen = kitRows(table(list), new Map([[1, rows[1]!.candidates[0]!.key]]));
    expect(fitsIn(chosen[1]!)).toBe(true);
  });

  test('the person knows better what a column says', () => {
    const { rows } = table('lead tone,low-gain drive\nwide,chorus');
    expect(kitRows({ rows, uses: ['name', 'box'] }).map((r) => [r.name, r.box?.key])).toEqual([
      ['lead tone', 'low-drive'],
      ['wide', 'chorus'],
    ]);
  });

  test('what cannot be is said beside its row', () => {
    const why = (text: string) => kitRows(table(text)).map((r) => r.why);
    expect(why('item,midi\nstereo delay,17')).toEqual(['“17” is no MIDI channel. Use 1 to 16.']);
    expect(why('item,qty\ntuner,many')).toEqual(['“many” is no number of boxes. Use 1 to 20.']);
    expect(why(`code,name,box\nDRIVER,Drive,low-drive\nLOW,${'n'.repeat(121)},low-drive`)).toEqual([
      expect.stringMatching(/^The code is too long: 6 characters/),
      expect.stringMatching(/^The name is too long: 121 characters/),
    ]);
  });

  test('nothing, and too much', () => {
    for (const [text, says] of [
      ['  \n ', 'There is nothing in it.'],
      [Array(501).fill('tuner').join('\n'), 'There are 501 rows.'],
    ] as const) {
      const read = kitTable(text);
      expect(read.ok ? '' : read.error[0]!.wrong).toBe(says);
    }
  });

  test('any text, with its columns used in any way, gives rows that can be kept, or reasons', () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), fc.array(fc.constantFrom(...COLUMN_USES)), (text, uses) => {
        const read = kitTable(text);
        if (!read.ok) return expect(read.error.length).toBeGreaterThan(0);
        for (const one of [read.value.uses, uses]) {
          const rows = kitRows({ rows: read.value.rows, uses: one });
          expect(rows).toHaveLength(read.value.rows.length);
          for (const row of rows) expect(row.box !== undefined || row.why !== undefined).toBe(true);
          let n = 0;
          const edit = addRows(newRig('A'), rows, () => `device:t${(n += 1)}`);
          expect(apply(newRig('A'), edit).ok).toBe(true);
        }
      }),
      { numRuns: often(80) },
    ));
});
