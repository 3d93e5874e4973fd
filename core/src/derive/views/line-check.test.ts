import { DEMO_RIGS } from '../../demo/rigs.js';
import { PRACTICE } from '../../../testing/practice.js';
import { all, soundsInOrder } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { inputList } from './input-list.js';
import { CHECK_GROUPS, lineCheck } from './line-check.js';

const RIGS = [...DEMO_RIGS.map((r) => [r.id, r.make()] as const), ...PRACTICE.map((p) => [p.file, p.rig] as const)];

test.each(RIGS)(
  '%s: what is taken for granted, every line into the house, every sound, each by words of its own',
  (_, rig) => {
    const d = deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
    const lines = lineCheck(d);
    const many = CHECK_GROUPS.map((group) => lines.filter((l) => l.group === group).length);
    expect(many).toEqual([d.modelled.granted.length, inputList(d).length, soundsInOrder(rig).length]);
    expect(new Set(lines.map((l) => l.text)).size).toBe(lines.length);
  },
);

test('a sound says what should be heard of it, and where', () => {
  const d = deriveOnce(DEMO_RIGS[0]!.make(), 'hookup:ballroom')!;
  expect(lineCheck(d).find((l) => l.text.startsWith('Verse clean'))).toEqual({
    group: 'Sounds',
    text: 'Verse clean, SWI 1A',
    should: expect.stringMatching(/^Compressor, .*; heard at Front of house$/),
  });
});
