import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { all, partOf, soundsInOrder } from '../../rig/rig.js';
import { UNKNOWN } from '../model/domains.js';
import { controlText, placeText, sayFootsteps, slotText, stepText, valueText } from './words.js';

const rig = islandRun();
const d = deriveOnce(rig, BALLROOM_ID)!;

test('a place is said as its controller shows it', () => {
  const sounds = soundsInOrder(rig);
  expect(slotText(rig, sounds[0]!)).toBe('1A');
  expect(placeText(rig, sounds[2]!)).toBe('Chorus wide, 1C');
  expect(placeText(rig, { ...sounds[2]!, calls: [] })).toBe('Chorus wide');
});

test('controls by code and by what people call them', () => {
  expect(controlText(rig, 'device:dly.on')).toBe('DLY on/off');
  expect(controlText(rig, 'device:swi.ctl1')).toBe('SWI contact 1');
  expect(controlText(rig, 'device:nobody.on')).toBe('device:nobody on');
});

test.each([
  ['device:mod.program', 12, '13'],
  ['device:rev.program', 4, '2.2'],
  ['device:dly.program', 4, '4'],
  ['device:dly.mix', 22, '22 %'],
  ['device:swi.trim', -3, '-3 dB'],
  ['device:dly.on', 'off', 'off'],
  ['device:dly.mix', UNKNOWN, UNKNOWN],
] as const)('%s %s is shown as "%s"', (control, value, text) => expect(valueText(rig, control, value)).toBe(text));

test('everything that can happen to the demo rigs is said in words of their own', () => {
  for (const { make } of DEMO_RIGS) {
    const demo = make();
    for (const hookup of all(demo, 'hookup')) {
      const { modelled } = deriveOnce(demo, hookup.id)!;
      const said = new Map([...modelled.steps].map(([event, step]) => [event, stepText(demo, step)]));
      for (const text of said.values()) expect(text).toMatch(/^(Stomp|Press|Let go of|Step on|\p{Lu}).{2,}/u);
      for (const text of said.values()) expect(text).not.toMatch(/device:|sound:|undefined/);
    }
  }
});

test('footsteps begin with the power-up and end with the control as it must not be', () => {
  const [id, verdict] = [...d.verdicts].find(([, v]) => v.is === 'broken')!;
  if (verdict.is !== 'broken') throw new Error('nothing is broken');
  for (const wrong of verdict.wrong) {
    const control = wrong.variable as `device:${string}.${string}`;
    const steps = sayFootsteps(rig, d.modelled, wrong.example(), control);
    expect(steps[0]!.text).toBe('Power up');
    expect(steps).toHaveLength(wrong.length + 1);
    expect(steps.at(-1)!.text).toContain(partOf(rig, id as `sound:${string}`)!.name);
    expect(steps.at(-1)!.value).not.toBe(valueText(rig, control, wrong.wanted));
  }
});
