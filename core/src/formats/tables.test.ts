import fc from 'fast-check';
import Papa from 'papaparse';
import { after } from '../../testing/after.js';
import { BALLROOM_ID, islandRun } from '../demo/island-run.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { all, cablesOf, newRig, type Rig } from '../rig/rig.js';
import { addRows, kitRows, kitTable } from './kit-table.js';
import { cablesCsv, kitCsv, readCableTable } from './tables.js';

const ids = <K extends 'device' | 'cable'>(kind: K) => {
  let n = 0;
  return () => `${kind}:t${(n += 1)}` as `${K}:${string}`;
};
const read = <T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const wrong = (result: {
  ok: boolean;
  error?: readonly { where?: string; wrong: string; would: string }[];
}): readonly string[] => (result.ok ? [] : result.error!.map((e) => `${e.where}: ${e.wrong} ${e.would}`));
const MAIN = 'hookup:main' as const;
/** The boxes of a list, added to an empty rig. */
const kitOf = (text: string): Rig =>
  after(newRig('Kit'), addRows(newRig('Kit'), kitRows(read(kitTable(text))), ids('device')));

describe('there and back again', () => {
  test.each(DEMO_RIGS.map((r) => [r.id, r.make()] as const))(
    '%s: kit and cables come back from their tables',
    (_, rig) => {
      const kit = kitOf(kitCsv(rig));
      const told = (r: Rig) =>
        all(r, 'device').map((d) => [
          d.code,
          d.name,
          d.made,
          typeof d.midi?.channel === 'number' ? d.midi.channel : undefined,
        ]);
      expect(told(kit)).toEqual(told(rig));
      const hookup = all(rig, 'hookup')[0]!.id;
      const wired = after(kit, read(readCableTable(kit, MAIN, cablesCsv(rig, hookup), ids('cable'))));
      expect(cablesCsv(wired, MAIN)).toBe(cablesCsv(rig, hookup));
      expect(cablesOf(wired, MAIN)).toHaveLength(cablesOf(rig, hookup).length);
    },
  );
});

describe('as people paste it', () => {
  test('tabs, no heading, names as people say them, a decimal comma', () => {
    const kit = kitOf('GTR\tMy guitar\tsingle coil guitar\t\t\nAMP\t\tvalve head\n');
    expect(all(kit, 'device').map((d) => [d.code, d.name])).toEqual([
      ['GTR', 'My guitar'],
      ['AMP', 'Two-channel valve head 50 W'],
    ]);
    const wired = after(kit, read(readCableTable(kit, MAIN, 'gtr\tout\tamp\tin\t"4,5"\tthe long one', ids('cable'))));
    expect(cablesOf(wired, MAIN)[0]).toMatchObject({ m: 4.5, label: 'the long one' });
  });
  test('columns in another order under their heading', () => {
    const rig = islandRun();
    const turned = Papa.unparse([{ 'to jack': 'in', 'to box': 'TUN', 'from jack': 'out', 'from box': 'CMP' }]);
    const edit = read(readCableTable(rig, BALLROOM_ID, turned, ids('cable')));
    expect(edit.put).toMatchObject([{ ends: ['device:cmp.out', 'device:tun.in'] }]);
    expect(edit.remove.length).toBe(2);
  });
  test('a formula in a name stays a text when a spreadsheet opens it', () => {
    const rig = islandRun();
    const named = after(rig, { put: [{ ...all(rig, 'device')[0]!, name: '=1+1' }], remove: [] });
    expect(kitCsv(named)).toContain("'=1+1");
  });
});

describe('what cannot be read is said row by row, and nothing is changed', () => {
  const rig = islandRun();
  test('cables', () => {
    const lines = ['XYZ,out,SWI,in', 'CMP,hole,SWI,in', 'CMP,out,CMP,out', 'CMP,out,TUN,in,very long'];
    expect(wrong(readCableTable(rig, BALLROOM_ID, lines.join('\n'), ids('cable'))).map((w) => w.slice(0, 44))).toEqual(
      [
        'row 1: No box is called "XYZ". There are GSC',
        'row 2: CMP has no jack "hole". It has in, ou',
        'row 3: Both ends are in the same jack. Name ',
        'row 4: "very long" is no length. Give metres',
      ].map((w) => w.slice(0, 44)),
    );
  });
  test('any text at all gives an edit or reasons, never a fault', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        const result = readCableTable(rig, BALLROOM_ID, text, ids('cable'));
        expect(result.ok || result.error.length > 0).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});
