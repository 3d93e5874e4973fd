import { after } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import type { Part } from '../../rig/rig.js';
import { deriveOnce } from '../steps/deriver.js';
import { programPlan } from './program-plan.js';

const demo = deriveOnce(islandRun(), BALLROOM_ID)!;

test('a plan in words: numbers as the box shows them, what they hold, who calls them, and what it would bring', () => {
  const plan = programPlan(demo, 'what needs one');
  expect(plan.boxes).toEqual([
    {
      device: 'device:dly',
      name: 'Stereo delay',
      programs: [{ shown: '4', name: 'Slap', holds: 'on/off on, mix 22 %', sounds: ['Chorus wide'], is: 'there' }],
    },
  ]);
  expect([plan.now, plan.then]).toEqual([
    { proved: 14, sounds: 16, toggles: 1, byHand: 0, messages: 38 },
    { proved: 15, sounds: 16, toggles: 0, byHand: 0, messages: 38 },
  ]);
  expect(plan.left).toEqual([]);
});
test('what it promises is what is found when it is carried out', () => {
  for (const planFor of ['what needs one', 'every sound'] as const) {
    const plan = programPlan(demo, planFor);
    const now = deriveOnce(after(demo.rig, plan.edit), BALLROOM_ID)!;
    expect(programPlan(now, planFor).now).toEqual(plan.then);
    expect(programPlan(now, planFor).then).toEqual(plan.then);
  }
});
test('what is left, and why, in words', () => {
  const rig = (change: (p: Part) => Part) =>
    smallRig({
      boxes: { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', e: 'stereo-reverb', w: 'powered-speaker' },
      leads: ['g.out>d.in-l', 'd.out-l>e.in-l', 'e.out-l>w.in', 'c.midi-out>d.midi-in', 'd.midi-thru>e.midi-in'],
      sounds: { Slap: ['d.delay'], Dry: [] },
      with: (p) =>
        change(p.kind === 'sound' ? { ...p, calls: [{ device: 'device:c', memory: 'slots', slot: p.at - 1 }] } : p),
    });
  const left = (change: (p: Part) => Part) => programPlan(deriveOnce(rig(change), SMALL)!, 'every sound').left;
  expect(
    left((p) => (p.kind === 'device' && p.id === 'device:e' ? { ...p, midi: { ...p.midi!, channel: 3 } } : p))[0],
  ).toBe(
    'Stereo delay shares its MIDI channel with another box, which would load as well. Give it a channel of its own first; “Slap” and “Dry” are left as they are.',
  );
  expect(
    left((p) =>
      p.kind === 'device' && p.id === 'device:e' ? { ...p, memories: p.memories.map((m) => ({ ...m, size: 1 })) } : p,
    ),
  ).toEqual([]);
  expect(
    left((p) =>
      p.kind === 'device' && p.id === 'device:d' ? { ...p, memories: p.memories.map((m) => ({ ...m, size: 1 })) } : p,
    ),
  ).toEqual(['Stereo delay has no number left for “Dry”.']);
});
