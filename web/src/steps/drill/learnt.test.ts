import { keepLearnt, nextToLearn, readLearnt } from './learnt.js';

const storeOf = (kept: Record<string, string> = {}) => ({
  getItem: (key: string) => kept[key] ?? null,
  setItem: (key: string, value: string) => void (kept[key] = value),
});
const keys = ['A', 'B', 'up'].map((id) => ({ id, text: id, is: 'slot' as const }));

test('what was learnt is there again for the same rig, and for no other', () => {
  const store = storeOf();
  keepLearnt('one', { '176 80': 'A' }, store);
  expect(readLearnt('one', store)).toEqual({ '176 80': 'A' });
  expect(readLearnt('two', store)).toEqual({});
});

test('switches are learnt in their order; one that another song has already taught is not asked again', () => {
  expect(nextToLearn(keys, {})?.id).toBe('A');
  expect(nextToLearn(keys, { x: 'A', y: 'up' })?.id).toBe('B');
  expect(nextToLearn(keys, { x: 'A', y: 'up', z: 'B' })).toBeUndefined();
});

test('a note that is none is learnt anew', () => {
  expect(readLearnt('one', storeOf({ 'yunta-midi-switches one': '{' }))).toEqual({});
  expect(readLearnt('one', storeOf({ 'yunta-midi-switches one': '{"a":3,"b":"B"}' }))).toEqual({ b: 'B' });
});
