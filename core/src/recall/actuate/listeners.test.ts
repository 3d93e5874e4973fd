import { withParts } from '../../../testing/after.js';
import { makeDevice } from '../../catalogue/make.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import type { Message } from '../../rig/act.js';
import type { Device } from '../../rig/device.js';
import type { Id, Ref } from '../../rig/ids.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import { restingValue } from '../../signal/graph/state.js';
import { bearings } from './bearings.js';
import { compile } from './compile.js';
import { listeners } from './listeners.js';
import { model } from '../model/model.js';
import { ModelMemory } from '../model/model-memory.js';
import { touched } from './touched.js';

const demo = islandRun();
const put = (...parts: Part[]): Rig => withParts(demo, ...parts);
const box = (id: Id<'device'>, change: (d: Device) => Device): Device => change(partOf(demo, id)!);
const on = (rig: Rig) => bearings(rig, partOf(rig, BALLROOM_ID)!);
const heard = (rig: Rig, message: Message) =>
  listeners(on(rig), 'device:swi', 'midi-out', message).map(
    (l) => `${l.device.id.slice(7)}:${l.answers.map((a) => a.id).join()}`,
  );

describe('who takes notice of a message', () => {
  test('the box on that channel, with what in it answers', () => {
    expect(heard(demo, { pc: 4, channel: 3 })).toEqual(['dly:program change']);
    expect(heard(demo, { cc: 20, value: 9, channel: 4 })).toEqual(['rev:mix']);
  });
  test('nobody on a channel of no box, at a controller that no box knows, or for a tempo', () => {
    expect(heard(demo, { pc: 4, channel: 16 })).toEqual([]);
    expect(heard(demo, { cc: 119, value: 0, channel: 3 })).toEqual([]);
    expect(heard(demo, { bpm: 120 })).toEqual([]);
  });
  test('a box in omni mode answers to every channel', () => {
    const rig = put(box('device:rev', (d) => ({ ...d, midi: { ...d.midi!, omni: true } })));
    expect(heard(rig, { pc: 1, channel: 2 }).map((h) => h.slice(0, 3))).toEqual(expect.arrayContaining(['mod', 'rev']));
    expect(heard(rig, { pc: 1, channel: 9 })).toEqual(['rev:program change']);
  });
  test('a box that is wired to no other hears nothing', () => {
    expect(
      listeners(on(put(makeDevice('midi-controller', 'device:mfc'))), 'device:mfc', 'midi-out', { pc: 1, channel: 3 }),
    ).toEqual([]);
  });
});

test('what messages, contacts and feet can change is never called left alone', () => {
  const b = on(demo);
  const moved = touched(b, [...compile(b).sounds.values()]);
  expect([...moved]).toEqual(
    expect.arrayContaining(['device:dly.program', 'device:dly.on', 'device:rev.mix', 'device:hed.channel'] as Ref[]),
  );
  expect([moved.has('device:cmp.on'), moved.has('device:hed.gain')]).toEqual([true, false]);
});

describe('a model that remembers', () => {
  const compiled = (rig: Rig) => compile(on(rig));
  test('a controller that another box calls: what its slots hold is part of that call', () => {
    const memory = new ModelMemory();
    const second: Device = {
      ...makeDevice('switcher-4', 'device:sw2'),
      midi: { channel: 4, messages: 'lost' },
      actuators: [
        ...makeDevice('switcher-4', 'device:sw2').actuators,
        { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'slots', slot: 'value' }] },
      ],
    };
    const atRest = Object.fromEntries(
      second.memories[0]!.stores.map((s) => [s, restingValue(second.controls.find((c) => c.id === s)!)]),
    );
    const hears: Part = {
      kind: 'cable',
      id: 'cable:sw2',
      hookup: BALLROOM_ID,
      ends: ['device:rev.midi-thru', 'device:sw2.midi-in'],
    };
    const slot = (loop1: string): Part => ({
      kind: 'program',
      id: 'program:sw2-3',
      device: 'device:sw2',
      memory: 'slots',
      number: 3,
      name: 'x',
      acts: [],
      assigns: [],
      contents: { ...atRest, loop1 },
    });
    for (const loop1 of ['on', 'off', 'on']) {
      const rig = put(second, hears, slot(loop1));
      expect(
        model(compiled(rig)).system.events.some(
          (e) => e.id.startsWith('recall:') && e.acts.some((a) => a.variable === 'device:sw2.loop1'),
        ),
      ).toBe(true);
      expect(model(compiled(rig), memory).system).toEqual(model(compiled(rig)).system);
    }
  });
});
