import fc from 'fast-check';
import { overlaps } from './shapes.js';
import { labelsOn, onSheets, readLabelPaper, sidesOf, type LabelPaper } from './label-paper.js';

const read = (text: string): LabelPaper => {
  const is = readLabelPaper(text);
  if (!is.ok) throw new Error(JSON.stringify(is.error));
  return is.value;
};
const wrong = (text: string): string => {
  const is = readLabelPaper(text);
  return is.ok ? '' : is.error.map((e) => e.wrong).join(' ');
};

test('worked by hand: three by eight of 70 × 36 mm lie in the middle of A4, gaps and margins as they are said', () => {
  expect(read('3 x 8 of 70 x 36 mm on A4')).toEqual({
    paper: 'A4',
    across: 3,
    down: 8,
    label: [70, 36],
    gap: [0, 0],
    margin: [0, 4.5],
  });
  expect(read('3×7 63,5 × 38.1 mm, A4, gap 2.5 x 0')).toMatchObject({ label: [63.5, 38.1], margin: [7.25, 15.15] });
  expect(read('3 x 10 labels of 6.6 x 2.5 cm on letter, margin 4 x 12')).toMatchObject({
    paper: 'Letter',
    label: [66, 25],
    margin: [4, 12],
  });
});

test('what cannot be is refused with what is wrong', () => {
  expect(wrong('3 x 8 of 80 x 36 mm on A4')).toBe('The labels need 240 mm, and A4 is 210 mm wide.');
  expect(wrong('2 x 9 of 70 x 36 mm')).toBe('The labels need 324 mm, and A4 is 297 mm high.');
  expect(wrong('3 x 8 of 70 x 36 mm, margin 5 x 4')).toBe('The labels need 215 mm, and A4 is 210 mm wide.');
  expect(wrong('0 x 8 of 70 x 36 mm')).toBe('That is no sheet of labels.');
  expect(wrong('3 x 8 of 0 x 36 mm')).toBe('That is no sheet of labels.');
  expect(wrong('the small ones')).toBe('"the small ones" is no label paper.');
});

const papers = fc
  .record({
    across: fc.integer({ min: 1, max: 6 }),
    down: fc.integer({ min: 1, max: 12 }),
    w: fc.integer({ min: 1, max: 100 }),
    h: fc.integer({ min: 1, max: 80 }),
    gaps: fc.tuple(fc.integer({ min: 0, max: 5 }), fc.integer({ min: 0, max: 5 })),
    name: fc.constantFrom('A4', 'Letter'),
  })
  .map(
    ({ across, down, w, h, gaps, name }) =>
      `${across} x ${down} of ${w} x ${h} mm on ${name}, gap ${gaps[0]} x ${gaps[1]}`,
  )
  .filter((text) => readLabelPaper(text).ok);

test('law: every label lies on its sheet, on no other, in order, and none that is used already is taken', () =>
  fc.assert(
    fc.property(papers, fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 90 }), (text, many, used) => {
      const paper = read(text);
      const [w, d] = sidesOf(paper);
      const sheets = onSheets(
        paper,
        Array.from({ length: many }, (_, i) => i),
        used,
      );
      expect(sheets.flat().map(({ thing }) => thing)).toEqual(Array.from({ length: many }, (_, i) => i));
      const free = labelsOn(paper) - (used % labelsOn(paper));
      expect(sheets.length).toBe(many === 0 ? 0 : 1 + Math.ceil(Math.max(0, many - free) / labelsOn(paper)));
      if (many > 0) expect(sheets[0]!.length).toBe(Math.min(free, many));
      for (const sheet of sheets) {
        const rects = sheet.map(({ at }) => ({ ...at, w: paper.label[0], d: paper.label[1] }));
        for (const [i, r] of rects.entries()) {
          expect(r.x >= -0.01 && r.y >= -0.01 && r.x + r.w <= w + 0.01 && r.y + r.d <= d + 0.01).toBe(true);
          for (const other of rects.slice(i + 1))
            expect(overlaps({ ...r, w: r.w - 1e-6, d: r.d - 1e-6 }, other)).toBe(false);
        }
      }
    }),
  ));
