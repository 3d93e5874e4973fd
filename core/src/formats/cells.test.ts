import fc from 'fast-check';
import { after } from '../../testing/after.js';
import { all, newRig } from '../rig/rig.js';
import { LARGEST_TABLE, readCells, writeCells } from './cells.js';
import { addRows, kitRows, kitTable } from './kit-table.js';
import { kitCsv } from './tables.js';

const cell = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom("'=1+1", '=1+1', '+49', '-', '@x', "''=x", "'", "'quoted'", 'a,b', 'a\tb', '"', 'two\nlines', '🎸'),
);
const table = fc
  .array(fc.array(cell, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 5 })
  .filter((rows) => new Set(rows.map((r) => r.length)).size === 1);

describe('a table that was written is read back', () => {
  test.each([',', '\t'])('cell by cell, with "%s" between them', (delimiter) =>
    fc.assert(
      fc.property(table, (rows) => {
        fc.pre(rows.every((row) => row.every((c) => !c.includes('\r'))));
        const read = readCells(writeCells(rows, delimiter), delimiter);
        expect(read.ok && read.value).toEqual(rows);
      }),
      { numRuns: 500 },
    ),
  );
  test('no cell begins as a formula does', () =>
    fc.assert(
      fc.property(table, (rows) => {
        const guarded = writeCells(
          rows.map((row) => row.map((c) => c.replaceAll(/[\r\n"\t,]/g, ''))),
          '\t',
        );
        for (const one of guarded.split(/[\t\n]/)) expect(one).not.toMatch(/^[=+\-@]/);
      }),
      { numRuns: 300 },
    ));
  test.each(['=1+1', "'=1+1", '+ more', '-6 dB pad', '@home', "'tis"])('a box called %s keeps its name', (name) => {
    const kitOf = (text: string) => {
      const table = kitTable(text);
      if (!table.ok) throw new Error('refused');
      return after(
        newRig('A'),
        addRows(newRig('A'), kitRows(table.value), () => 'device:a'),
      );
    };
    const one = kitOf('LOW,x,low-drive');
    const rig = after(one, { put: all(one, 'device').map((d) => ({ ...d, name })), remove: [] });
    expect(all(kitOf(kitCsv(rig)), 'device').map((d) => [d.code, d.name])).toEqual([['LOW', name]]);
  });
});

describe('what is no table is refused with its place', () => {
  test('a quotation that does not end', () => {
    for (const text of ['a,b\nc,"d\ne,f', '"loud" cab\tx\ny\tz']) {
      const read = readCells(text);
      expect(read.ok ? [] : read.error).toMatchObject([
        { where: expect.stringMatching(/^row \d$/), wrong: expect.stringContaining('quotation mark') },
      ]);
    }
  });
  test('too large a table, without reading it', () => {
    const read = readCells('x'.repeat(LARGEST_TABLE + 1));
    expect(read.ok ? '' : read.error[0]!.wrong).toContain('500,001 characters');
  });
});
