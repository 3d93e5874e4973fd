import { byDay } from './history-list.js';

const now = new Date(2026, 10, 29, 15, 30);
const entry = (revision: number, label: string, when: Date) => ({
  revision,
  id: `c${revision}`,
  label,
  who: 'local',
  when: when.toISOString(),
  parts: 1,
});

test('changes stand by day; what was done again and again is one line that leads back to the last of it', () => {
  const days = byDay(
    [
      entry(6, 'Verse: CMP', new Date(2026, 10, 29, 12)),
      entry(5, 'Verse: CMP', new Date(2026, 10, 29, 11)),
      entry(4, 'Add 2 boxes', new Date(2026, 10, 29, 10)),
      entry(3, 'Verse: CMP', new Date(2026, 10, 28, 23)),
    ],
    now,
  );
  expect(days.map((d) => [d.name, d.lines.map((l) => [l.newest.revision, l.times])])).toEqual([
    [
      'Today',
      [
        [6, 2],
        [4, 1],
      ],
    ],
    ['Yesterday', [[3, 1]]],
  ]);
});

test('of changes that a search leaves, those are one line only between which nothing else was done', () => {
  const found = [entry(6, 'Verse: CMP', now), entry(4, 'Verse: CMP', now), entry(3, 'Verse: CMP', now)];
  expect(byDay(found, now)[0]?.lines.map((l) => [l.newest.revision, l.times])).toEqual([
    [6, 1],
    [4, 2],
  ]);
});
