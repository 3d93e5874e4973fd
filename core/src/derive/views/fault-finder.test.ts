import { DEMO_RIGS } from '../../demo/rigs.js';
import { PRACTICE } from '../../../testing/practice.js';
import { all, soundsInOrder } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { failureOf } from './fails.js';
import { faultFinder } from './fault-finder.js';

const RIGS = [...DEMO_RIGS.map((r) => [r.id, r.make()] as const), ...PRACTICE.map((p) => [p.file, p.rig] as const)];

test.each(RIGS)('%s: behind all but the last one can listen, and each has a way out that is looked up', (_, rig) => {
  const d = deriveOnce(rig, all(rig, 'hookup')[0]!.id)!;
  const keys = new Set<string>();
  for (const { id } of soundsInOrder(rig)) {
    const finder = faultFinder(d, id);
    finder?.suspects.forEach((s, i) => {
      expect([s.text, s.listen !== undefined]).toEqual([s.text, i < finder.suspects.length - 1]);
      keys.add(s.key);
    });
  }
  for (const key of keys) expect(failureOf(d, key)?.key).toBe(key);
});

test('at a loudspeaker it is said to switch off first; what silences and is no fault is asked before', () => {
  const d = deriveOnce(DEMO_RIGS[0]!.make(), 'hookup:ballroom')!;
  const { suspects, first } = faultFinder(d, 'sound:01')!;
  expect(first).toEqual([
    'the volume of the instrument',
    'Tuner: is it muted?',
    'Volume pedal: is it at full?',
    'is the channel open at the desk?',
  ]);
  const speaker = suspects.filter((s) => s.listen?.includes('Switch the amp off'));
  expect(speaker.map((s) => s.text)).toContain('the lead from HED speaker to CAB in');
  expect(suspects[0]).toMatchObject({ text: 'Single-coil guitar', key: 'device:gsc' });
  expect(faultFinder(d, 'sound:none')).toBeUndefined();
});
