import fc from 'fast-check';
import { partedInto, type SheetColumn, type SheetRow } from './columns.js';

const column = (title: string, i: number): SheetColumn => ({
  id: String(i),
  device: title.slice(0, 3),
  is: 'stage',
  title,
  says: title,
});
const row = (cells: readonly string[]): SheetRow => ({
  id: 'sound:one',
  slot: '1A',
  name: 'One',
  mark: 'C',
  says: '',
  isDerived: false,
  cells: cells.map((text) => ({ text, own: true })),
});

const PAPER_MM = 180;
const width = (title: string, text: string): number =>
  Math.min(60, Math.max(...title.split(' ').map((w) => w.length), text.length) * 1.75 + 3);

test('on paper every column stands once, in its order, and no page is wider than the paper', () =>
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.stringMatching(/^[A-Z]{2,4}( [a-z]{1,9}){0,2}$/), fc.stringMatching(/^\S{0,40}$/)), {
        maxLength: 60,
      }),
      (all) => {
        const columns = all.map(([title], i) => column(title, i));
        const parts = partedInto([row(all.map(([, text]) => text))], columns);
        expect(parts.flat()).toEqual(columns.map((_, i) => i));
        for (const part of parts) {
          const wide = part.reduce((sum, i) => sum + width(all[i]![0], all[i]![1]), 0);
          expect(wide).toBeLessThanOrEqual(PAPER_MM + 1e-9);
        }
      },
    ),
  ));
