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
