import { after } from '../../testing/after.js';
import { makeDevice } from '../catalogue/make.js';
import { islandRun, BALLROOM_ID } from '../demo/island-run.js';
import { all, cablesOf, newRig, partOf } from '../rig/rig.js';
import { addSound } from './sounds.js';
import { carryOutWiring, planControl } from './wire.js';

const ids = (n: number) => `cable:c${n}` as const;
const pit = after(newRig('Pit'), {
  put: [
    makeDevice('timeline', 'device:tml'),
    makeDevice('stereo-delay', 'device:dly'),
    makeDevice('stereo-reverb', 'device:rev'),
  ],
  remove: [],
});
const main = all(pit, 'hookup')[0]!.id;

test('MIDI is led from what calls to what listens, box by box', () => {
  const plan = planControl(pit, main);
  expect(plan.steps.map((s) => `${s.from} ${s.to}`)).toEqual([
    'device:tml.midi-out device:dly.midi-in',
    'device:dly.midi-thru device:rev.midi-in',
  ]);
});

test('it only adds to what is plugged, and says when nothing is left to do', () => {
  const audio = { kind: 'cable', id: 'cable:a', hookup: main, ends: ['device:dly.out-l', 'device:rev.in-l'] } as const;
  const rig = after(pit, { put: [audio], remove: [] });
  const wired = after(rig, carryOutWiring(rig, main, planControl(rig, main), ids));
  expect(cablesOf(wired, main)).toHaveLength(3);
  expect(cablesOf(wired, main)).toContainEqual(audio);
  expect(planControl(wired, main)).toMatchObject({ steps: [], notes: ['It is plugged already.'] });
  expect(planControl(islandRun(), BALLROOM_ID).steps).toEqual([]);
});

test('a kit that sends nothing is told so', () =>
  expect(planControl(newRig('Empty'), main).notes).toEqual([
    'No box here sends MIDI or closes a contact that another one listens to.',
  ]));

test('boxes that pass nothing on are fed by a thru box of the kit', () => {
  const ends = ['device:one', 'device:two'].map((id) => {
    const box = makeDevice('stereo-delay', id as 'device:one');
    return {
      ...box,
      jacks: box.jacks.filter((j) => j.id !== 'midi-thru'),
      chains: box.chains.filter((c) => c.id !== 'thru'),
    };
  });
  const kit = after(newRig('Pit'), {
    put: [makeDevice('timeline', 'device:tml'), makeDevice('midi-thru', 'device:thr'), ...ends],
    remove: [],
  });
  const fed = planControl(kit, all(kit, 'hookup')[0]!.id).steps.map((s) => `${s.from} ${s.to}`);
  expect(fed[0]).toBe('device:tml.midi-out device:thr.midi-in');
  expect(fed.slice(1).map((s) => s.split(' ')[1])).toEqual(['device:one.midi-in', 'device:two.midi-in']);
  expect(new Set(fed.map((s) => s.split(' ')[0])).size).toBe(3);
});

test('a sound made while a timeline is all that could call it is called by the timeline', () => {
  const wired = after(pit, carryOutWiring(pit, main, planControl(pit, main), ids));
  const made = after(wired, addSound(wired, 'sound:one', 'Overture'));
  expect(partOf(made, 'sound:one')!.calls).toEqual([{ device: 'device:tml', memory: expect.any(String), slot: 0 }]);
  expect(partOf(after(pit, addSound(pit, 'sound:one', 'Overture')), 'sound:one')!.calls).toEqual([]);
});
