import type { Device } from '../rig/device.js';
import { wrongInDevice } from '../rig/device-references.js';
import { keysOf } from '../known/keys.js';
import { CATALOGUE } from './boxes.js';
import {
  ACT_KINDS,
  actKind,
  actWords,
  freshActuator,
  newAct,
  newStimulus,
  STIMULUS_KINDS,
  stimulusKind,
  stimulusWords,
} from './switch-words.js';

const BOXES = CATALOGUE.map(({ box }): Device => ({ ...box, id: 'device:x', kind: 'device' }));

test('what a switch does is said in the words of the trade', () => {
  const box: Device = {
    ...BOXES[0]!,
    controls: [{ id: 'ch', name: 'channel', domain: { values: ['clean', 'lead'] }, powerUp: 'left', use: 'sound' }],
  };
  const words = (...acts: Parameters<typeof actWords>[1][]) => acts.map((act) => actWords(box, act));
  expect(
    words(
      { control: 'ch', toggle: ['clean', 'lead'] },
      { control: 'ch', set: 'lead', when: [{ control: 'ch', in: ['clean'] }] },
      { send: { pc: 4, channel: 2 }, at: 'midi-out', afterMs: 30 },
      { send: { cc: 64, value: 127, channel: 1 }, at: 'midi-out' },
      { pulse: 'ctl1' },
      { load: 'slots', slot: { bank: 'bank', banks: [1, 2], plus: 2, size: 4 } },
    ),
  ).toEqual([
    'turns channel over between clean and lead',
    'sets channel to lead, while ch=clean',
    'waits 30 ms, then sends program 4 on channel 2 at midi-out',
    'sends controller 64 at 127 on channel 1 at midi-out',
    'closes ctl1 for a moment',
    'loads place 3 of the bank',
  ]);
  expect(stimulusWords({ foot: 'A', gesture: 'twice' })).toBe('switch A pressed twice');
  expect(stimulusWords({ midi: 'cc', number: 80, channel: 3 })).toBe('controller 80 on channel 3');
});

test('every switch of the catalogue has words, and is of a kind that can be chosen', () => {
  for (const device of BOXES)
    for (const { by, acts } of device.actuators) {
      expect(stimulusWords(by)).toMatch(/^[a-z]/i);
      expect(keysOf(STIMULUS_KINDS)).toContain(stimulusKind(by));
      for (const act of acts) {
        expect(act).toHaveProperty(actKind(act));
        expect(actWords(device, act)).not.toMatch(/undefined|\[object/);
      }
    }
});

test('whatever is offered for a switch points at something that the box has', () => {
  const offered = new Set<string>();
  for (const device of BOXES)
    for (const kind of keysOf(STIMULUS_KINDS)) {
      const by = newStimulus(device, kind);
      if (!by) continue;
      expect(stimulusKind(by)).toBe(kind);
      for (const does of keysOf(ACT_KINDS)) {
        const act = newAct(device, does);
        if (!act) continue;
        offered.add(`${kind} ${does}`);
        expect(actKind(act)).toBe(does);
        const actuators = [...device.actuators, { ...freshActuator(device, by), acts: [act] }];
        expect(wrongInDevice({ ...device, actuators })).toEqual([]);
      }
    }
  for (const does of keysOf(ACT_KINDS)) expect(offered).toContain(`foot ${does}`);
  for (const kind of keysOf(STIMULUS_KINDS)) expect(offered).toContain(`${kind} toggle`);
});
