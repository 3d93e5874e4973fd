import type { Drill } from '@yunta/core/derive/views/drill';
import { atSpeed, clicksOf, countIn, endOf, fromCue } from './clock.js';
import { keepPractised, readPractised } from './practised.js';
import { signOf } from '../../shared/use-midi.js';

const drill: Drill = {
  title: 'X',
  bpm: 120,
  metre: { beats: 3, unit: 4 },
  cues: [
    { name: 'verse', seconds: 0, steps: [], hands: [] },
    { name: 'chorus', seconds: 12, steps: [{ key: 'slot 1', text: '2B' }], hands: [] },
    { name: 'solo', seconds: 30, steps: [{ key: 'slot 2', text: '2C' }], hands: [] },
  ],
  keys: [],
  bank: { size: 4, banks: 3, first: 0 },
  slots: {},
  shown: ['1A', '1B', '1C', '1D', '2A', '2B', '2C', '2D'],
  left: [],
};

test('at half the speed all takes twice as long, and a bar is counted in at that tempo', () => {
  const slow = atSpeed(drill, 0.5);
  expect(slow.cues.map((c) => c.seconds)).toEqual([0, 24, 60]);
  expect([countIn(drill), countIn(slow), endOf(slow)]).toEqual([1.5, 3, 63]);
});
test('it clicks from the count-in on, the first of each bar marked, until it ends', () => {
  const clicks = clicksOf(drill);
  expect(clicks.slice(0, 4)).toEqual([
    { at: -1.5, isFirst: true },
    { at: -1, isFirst: false },
    { at: -0.5, isFirst: false },
    { at: 0, isFirst: true },
  ]);
  expect(clicks.at(-1)!.at).toBeLessThanOrEqual(endOf(drill));
  expect(clicks.at(-1)!.at).toBeGreaterThan(endOf(drill) - 1);
});
test('from a cue on, that cue stands when it begins, in its own bank', () => {
  const part = fromCue(drill, 1);
  expect(part.cues.map((c) => [c.name, c.seconds])).toEqual([
    ['chorus', 0],
    ['solo', 18],
  ]);
  expect(part.bank!.first).toBe(1);
});
test('what was practised is kept rig by rig; a broken note is a song to practise anew', () => {
  const kept = new Map<string, string>();
  const store = { getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => void kept.set(k, v) };
  keepPractised('a', { song: 'song:1', level: 1, last: '2026-01-01T00:00:00Z' }, store);
  keepPractised('a', { song: 'song:1', level: 2, last: '2026-01-02T00:00:00Z' }, store);
  expect([readPractised('a', store).map((p) => p.level), readPractised('b', store)]).toEqual([[2], []]);
  store.setItem('yunta-practised a', '[{"song":"song:1","level":1,"last":"never"}, 3');
  expect(readPractised('a', store)).toEqual([]);
  store.setItem('yunta-practised a', '[{"song":"song:1","level":1,"last":"never"}, 3]');
  expect(readPractised('a', store)).toEqual([]);
});
test.each([
  [[0xc2, 5], '194 5'],
  [[0xb0, 80, 127], '176 80'],
  [[0xb0, 80, 0], undefined],
  [[0x90, 60, 1], '144 60'],
  [[0x80, 60, 0], undefined],
  [[0xf8], undefined],
  [null, undefined],
])('%j is the stomp %s', (data, sign) => expect(signOf(data)).toBe(sign));
