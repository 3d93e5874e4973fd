import { after } from '../../../testing/after.js';
import type { Edit } from '../../change/edit.js';
import { makeDevice } from '../../catalogue/make.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { setUpBench, takeStep } from '../../derive/play/play.js';
import type { Device } from '../../rig/device.js';
import type { Disturbances } from '../../rig/hookup.js';
import type { Id, Ref } from '../../rig/ids.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import { bearings } from '../actuate/bearings.js';
import { compile } from '../actuate/compile.js';
import { OTHER, UNKNOWN } from './domains.js';
import { foundAt, realValue } from '../words/footsteps.js';
import { model } from './model.js';
import { ModelMemory } from './model-memory.js';
import { prove } from '../../prover/prove.js';
import { afterEvent } from '../../prover/system.js';
import { stepText } from '../words/words.js';

const demo = islandRun();
const changed = (edit: Edit, rig = demo): Rig => after(rig, edit);
const put = (...parts: Part[]): Rig => changed({ put: parts, remove: [] });
const device = (id: Id<'device'>, change: (d: Device) => Device): Rig => put(change(partOf(demo, id)!));
const modelled = (rig: Rig) => {
  const compilation = compile(bearings(rig, partOf(rig, BALLROOM_ID)!));
  return { compilation, modelled: model(compilation) };
};
const system = (rig: Rig) => modelled(rig).modelled.system;
const variable = (rig: Rig, id: string) => system(rig).variables.find((v) => v.id === id);
const group = (rig: Rig, id: string) => system(rig).together!.find((g) => g.variables.includes(id));
const events = (rig: Rig) => system(rig).events.map((e) => e.id);
const admit = (admits: Disturbances): Rig => put({ ...partOf(demo, BALLROOM_ID)!, admits });

describe('power-up', () => {
  test('a box wakes in one of its programs with its contents: the values come together', () => {
    const rows = group(demo, 'device:dly.program')!;
    expect(rows.variables).toEqual(['device:dly.program', 'device:dly.on', 'device:dly.mix']);
    expect(rows.rows).toContainEqual(['4', 'on', '22']);
    expect(rows.rows).toContainEqual(['0', 'off', '0']);
    expect(rows.rows).toContainEqual([OTHER, UNKNOWN, UNKNOWN]);
    expect(rows.rows.every((r) => r.length === 3)).toBe(true);
  });
  test('the switcher wakes in its first slot; the amp reads its contact and wakes with it', () => {
    const rows = group(demo, 'device:swi.loop1')!;
    expect(rows.variables).toContain('device:hed.channel');
    expect(rows.rows).toHaveLength(1);
    expect(rows.rows[0]![rows.variables.indexOf('device:hed.channel')]).toBe('clean');
  });
  test('a fixed value is the only one; one that is as it was left may be any', () => {
    expect(variable(demo, 'device:swi.latch-F')!.initial).toEqual(['off']);
    const dly = partOf(demo, 'device:dly')!;
    const programs = [...demo.parts.program.values()]
      .filter((p) => p.device === 'device:dly')
      .map((p) => ({ ...p, contents: { mix: 1 } }));
    const without = put(
      {
        ...dly,
        memories: dly.memories.map((m) => ({ ...m, stores: ['mix'] })),
        controls: dly.controls.map((c) => (c.id === 'on' ? { ...c, powerUp: 'left' } : c)),
      },
      ...programs,
    );
    expect(variable(without, 'device:dly.on')!.initial).toEqual(['off', 'on']);
  });
  test('a program whose contents nobody wrote down holds what is not known', () => {
    const rig = put({
      kind: 'program',
      id: 'program:rev-x',
      device: 'device:rev',
      memory: 'programs',
      number: 20,
      name: 'x',
      contents: 'unplanned',
      acts: [],
      assigns: [],
    });
    expect(group(rig, 'device:rev.program')!.rows).toContainEqual(['20', UNKNOWN, UNKNOWN]);
  });
});

describe('what can happen', () => {
  test('recalls, a move that is held, one that latches, feet on boxes, plugs that are kicked', () => {
    const happens = events(demo);
    expect(happens.filter((e) => e.startsWith('recall:'))).toHaveLength(16);
    expect(happens).toEqual(
      expect.arrayContaining([
        'press:device:swi.E',
        'release:device:swi.E',
        'stomp:device:swi.F',
        'foot:device:dly.switch',
        'power:device:dly',
        'power:device:swi',
      ]),
    );
  });
  test('a recall has no condition; a held switch cannot be pressed twice', () => {
    for (const e of system(demo).events.filter((x) => x.id.startsWith('recall:'))) expect(e.when ?? []).toEqual([]);
    expect(system(demo).events.find((e) => e.id === 'press:device:swi.E')!.when).toEqual([
      { variable: 'device:swi.held-E', in: ['off'] },
    ]);
  });
  test.each<[keyof Disturbances, RegExp]>([
    ['moves', /^(press|release|stomp):/],
    ['feet', /^foot:/],
    ['powerCycle', /^power:/],
    ['knobs', /^knob:/],
  ])('without %s nothing of the kind happens', (key, kind) => {
    const all = { moves: true, feet: true, powerCycle: true, knobs: true };
    expect(events(admit(all)).some((e) => kind.test(e))).toBe(true);
    expect(events(admit({ ...all, [key]: false })).some((e) => kind.test(e))).toBe(false);
  });
  test('nobody steps on what is taken for granted', () => {
    expect(events(demo)).not.toContain('foot:device:cmp.switch');
    expect(events(demo)).not.toContain('foot:device:tun.switch');
  });
  test('a sound that two controllers call can be called by half', () => {
    const rig = changed({
      put: [
        makeDevice('midi-controller', 'device:mfc'),
        {
          ...partOf(demo, 'sound:01')!,
          calls: [...partOf(demo, 'sound:01')!.calls, { device: 'device:mfc', memory: 'slots', slot: 3 }],
        },
      ],
      remove: [],
    });
    const { modelled: m } = modelled(rig);
    const calls = [...m.steps.values()].flatMap((s) => (s.does === 'call' ? [[s.device, s.slot, s.holds ?? {}]] : []));
    expect(calls).toEqual(
      expect.arrayContaining([
        ['device:swi', 0, {}],
        ['device:mfc', 3, {}],
        ['device:swi', 16, { ctl1: 'open' }],
        ['device:swi', 16, { ctl1: 'closed' }],
      ]),
    );
    expect(
      m.system.events.find((e) => e.id === 'recall:sound:01')!.acts.some((a) => a.variable === 'device:mfc.slot'),
    ).toBe(true);
  });
  test('a box that wakes in nobody knows what wakes in each of its ways', () => {
    const rig = device('device:dly', (d) => ({
      ...d,
      controls: d.controls.map((c) => (c.id === 'program' ? { ...c, powerUp: 'unknown' } : c)),
    }));
    const wakes = events(rig).filter((e) => e.startsWith('power:device:dly'));
    expect(wakes.length).toBe(variable(rig, 'device:dly.program')!.domain.filter((v) => v !== UNKNOWN).length);
  });
  test('every step has words', () => {
    const { modelled: m } = modelled(demo);
    const words = [...m.steps.values()].map((s) => stepText(demo, s));
    expect(words).toEqual(
      expect.arrayContaining([
        'Stomp Verse clean, 1A',
        'Press Lift',
        'Let go of Lift',
        'Stomp Delay throw',
        'Step on Stereo delay itself (switch)',
        'Stereo delay loses its power and comes on again',
      ]),
    );
    expect(new Set(words).size).toBe(words.length);
  });
});

describe('acts of one event', () => {
  test('choosing the program that is loaded does nothing on a box that does not reload', () => {
    const rig = device('device:rev', (d) => ({
      ...d,
      memories: d.memories.map((m) => ({ ...m, again: 'nothing' as const })),
      actuators: d.actuators.filter((a) => a.id !== 'mix'),
    }));
    const s = system(rig);
    const recall = s.events.find((e) => e.id === 'recall:sound:01')!;
    const at = (program: string, mix: string) =>
      afterEvent(recall, {
        ...Object.fromEntries(s.variables.map((v) => [v.id, v.initial[0]!])),
        'device:rev.program': program,
        'device:rev.mix': mix,
      })['device:rev.mix'];
    expect([at('3', '42'), at('4', '42')]).toEqual(['42', '18']);
  });
  test('a relay that opens lets the amp go back; one that stays closed does nothing', () => {
    const s = system(demo);
    const first = Object.fromEntries(s.variables.map((v) => [v.id, v.initial[0]!]));
    const event = (id: string) => s.events.find((e) => e.id === id)!;
    const lead = afterEvent(event('recall:sound:04'), first);
    expect(lead['device:hed.channel']).toBe('lead');
    expect(afterEvent(event('recall:sound:08'), lead)['device:hed.channel']).toBe('lead');
    expect(afterEvent(event('recall:sound:01'), lead)['device:hed.channel']).toBe('clean');
  });
});

describe('from the system back to real boxes', () => {
  const { compilation, modelled: m } = modelled(demo);
  const b = compilation.bearings;
  test('a name stands for a value of the control, another value for one that nobody names', () => {
    expect(realValue(b, m, 'device:dly.program', '4')).toBe(4);
    expect(realValue(b, m, 'device:dly.on', 'off')).toBe('off');
    const other = realValue(b, m, 'device:dly.program', OTHER);
    expect(variable(demo, 'device:dly.program')!.domain).not.toContain(String(other));
    expect(realValue(b, m, 'device:none.x' as Ref, '1')).toBeUndefined();
  });
  test('what is taken for granted is found so, whatever the power-up says', () => {
    expect(foundAt(b, m, { 'device:cmp.on': 'off' })('device:cmp.on')).toBe('on');
    expect(foundAt(b, m, {})('device:vol.amount')).toBe(100);
  });
  test('a bench at any power-up row stands as the row says', () => {
    for (const row of group(demo, 'device:dly.program')!.rows) {
      const bench = setUpBench({ compilation, modelled: m }, { 'device:dly.program': row[0]! });
      expect(String(bench.value('device:dly.on'))).toBe(row[1]);
      takeStep({ compilation, modelled: m }, bench, { does: 'recall', sound: 'sound:01' });
      expect(bench.value('device:dly.on')).toBe('off');
    }
  });
});

test('a model that remembers gives the same system, with the very same acts for sounds that did not change', () => {
  const memory = new ModelMemory();
  const compilation = compile(bearings(demo, partOf(demo, BALLROOM_ID)!));
  const first = model(compilation, memory);
  const again = model(compilation, memory);
  expect(again.system).toEqual(first.system);
  expect(again.system.events[0]!.acts[0]).toBe(first.system.events[0]!.acts[0]);
  expect([...prove(again.system).values()].filter((v) => v.is === 'proved')).toHaveLength(14);
});
