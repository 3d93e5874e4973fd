import { after, notGranted } from '../../../testing/after.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { BALLROOM_ID, islandRun } from '../../demo/island-run.js';
import { removeDevice } from '../../edits/devices.js';
import { setWant } from '../../edits/sounds.js';
import type { Device } from '../../rig/device.js';
import type { Ref } from '../../rig/ids.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import { bearings } from './bearings.js';
import { compile, handMoves } from './compile.js';
import { model } from '../model/model.js';
import { prove } from '../../prover/prove.js';
import { wrongInSystem } from '../../prover/system.js';
import { grantedText } from '../words/words.js';

const compiled = (rig: Rig) => compile(bearings(rig, partOf(rig, BALLROOM_ID)!));
const verdicts = (rig: Rig) => prove(model(compiled(rig)).system);
const soundOf = (rig: Rig, n: string) => partOf(rig, `sound:${n}`)!;
const device = (rig: Rig, id: `device:${string}`, change: (d: Device) => Device): Rig =>
  after(rig, { put: [change(partOf(rig, id)!)], remove: [] });

const rig = islandRun();

describe('what a sound says becomes what the controller stores', () => {
  const lead = compiled(rig).sounds.get('sound:04')!;
  const { program } = lead.stored[0]!;

  test('stages become loops; what is not named is out; the contact chooses the channel', () => {
    expect(program.contents).toMatchObject({
      loop1: 'on',
      loop2: 'off',
      loop3: 'on',
      loop4: 'on',
      loop5: 'off',
      loop6: 'on',
      loop7: 'off',
      loop8: 'on',
      ctl1: 'closed',
      output: 'open',
      trim: 3,
    });
  });
  test('program changes carry the wire number and the channel of the box', () => {
    expect(program.acts).toEqual([
      { send: { pc: 4, channel: 3 }, at: 'midi-out' },
      { send: { pc: 4, channel: 4 }, at: 'midi-out' },
    ]);
  });
  test('each message says what it is for, with the number that the box shows', () => {
    expect(lead.stored[0]!.meant).toEqual([
      { device: 'device:dly', text: 'program 4' },
      { device: 'device:rev', text: 'program 2.2' },
    ]);
  });
  test('a program is wanted with all that it stores', () => {
    expect(lead.wants).toContainEqual({ control: 'device:dly.mix', value: 22, why: { by: 'program', number: 4 } });
  });
  test('gates that the sound passes are wanted open', () => {
    const touchable = compiled(notGranted(rig, 'device:sel.select')).sounds.get('sound:04')!;
    expect(lead.wants).toContainEqual({ control: 'device:swi.output', value: 'open', why: { by: 'gate' } });
    expect(touchable.wants).toContainEqual({ control: 'device:sel.select', value: 'a', why: { by: 'gate' } });
  });
  test('the compiled state sounds: every wanted pair is reached and no problem is left', () => {
    for (const c of compiled(rig).sounds.values())
      expect([c.problems, c.trace.reaches.map((r) => r.end.ref)]).toEqual([
        [],
        ['device:cab.air', 'device:foh.#house'],
      ]);
  });
});

describe('hands and feet', () => {
  test('settings and what is in the hands are listed as they rest, with how they wake where that differs', () => {
    const wakes = (part: Part): Part =>
      part.kind === 'device' && part.id === 'device:t'
        ? { ...part, controls: part.controls.map((c) => (c.id === 'mute' ? { ...c, powerUp: { at: 'on' } } : c)) }
        : part;
    const made = smallRig({
      boxes: { g: 'single-coil', t: 'tuner', p: 'powered-speaker' },
      leads: ['g.out>t.in', 't.out>p.in'],
      sounds: { Dry: [] },
    });
    const granted = (rig: Rig) =>
      model(compile(bearings(rig, partOf(rig, SMALL)!))).granted.map((g) => [grantedText(rig, g), g.why]);
    expect(granted(made)).toEqual([['T mute off', 'in the player’s hands, as it rests']]);
    const set = smallRig({
      boxes: { g: 'single-coil', t: 'tuner', p: 'powered-speaker' },
      leads: ['g.out>t.in', 't.out>p.in'],
      sounds: { Dry: [] },
      settings: { 't.mute': 'off' },
      with: wakes,
    });
    expect(granted(set)).toEqual([['T mute off, on after power-up', 'set for this hook-up']]);
  });
  test('what is set before the show is taken for granted, and the proof says so', () => {
    const granted = model(compiled(rig)).granted.map((g) => `${g.control} ${g.value}`);
    expect(granted).toEqual(
      expect.arrayContaining([
        'device:vol.amount 100',
        'device:cmp.on on',
        'device:tun.mute off',
        'device:sel.select a',
      ]),
    );
  });
  test('a box that only a foot reaches and that sounds want differently is a hand move, and the rest is still proved', () => {
    const pulled = after(notGranted(rig, 'device:cmp.on'), {
      put: [],
      remove: ['cable:b07', 'cable:b08', 'cable:b06'],
    });
    const inLine = after(pulled, {
      put: [
        { kind: 'cable', id: 'cable:x1', hookup: BALLROOM_ID, ends: ['device:vol.out', 'device:cmp.in'] },
        { kind: 'cable', id: 'cable:x2', hookup: BALLROOM_ID, ends: ['device:cmp.out', 'device:swi.in'] },
      ],
      remove: [],
    });
    const c = compiled(inLine);
    expect(handMoves(c, 'sound:01')).toEqual([{ control: 'device:cmp.on', value: 'on', by: 'foot' }]);
    expect(handMoves(c, 'sound:10')).toEqual([{ control: 'device:cmp.on', value: 'off', by: 'foot' }]);
    expect(verdicts(inLine).get('sound:01')).toEqual({ is: 'proved' });
  });
  test('a switch that a foot can hit is not taken for granted by itself; without feet it is', () => {
    const touchable = notGranted(rig, 'device:cmp.on');
    expect(handMoves(compiled(touchable), 'sound:01')).toEqual([{ control: 'device:cmp.on', value: 'on', by: 'foot' }]);
    const withoutFeet = after(touchable, {
      put: [{ ...partOf(touchable, BALLROOM_ID)!, admits: { moves: true, feet: false, powerCycle: true } }],
      remove: [],
    });
    expect(handMoves(compiled(withoutFeet), 'sound:01')).toEqual([]);
  });
});

describe('the demo rig and its two honest faults', () => {
  const v = verdicts(rig);
  test('fourteen of sixteen sounds are proved', () =>
    expect([...v.values()].filter((x) => x.is === 'proved')).toHaveLength(14));
  test('Chorus wide leaves its delay to a toggle', () =>
    expect(v.get('sound:03')).toMatchObject({ is: 'broken', wrong: [{ variable: 'device:dly.on', wanted: 'on' }] }));
  test('Waltz grit sends a program number that is one off', () =>
    expect(v.get('sound:06')).toMatchObject({
      is: 'broken',
      length: 1,
      wrong: [{ variable: 'device:mod.program', wanted: '12' }, { variable: 'device:mod.mix' }],
    }));
  test('calling a program that holds the delay on cures the first', () => {
    const cured = after(rig, setWant(soundOf(rig, '03'), { control: 'device:dly.program', is: 6 }));
    expect(verdicts(cured).get('sound:03')).toEqual({ is: 'proved' });
  });
  test('letting Yunta plan the slot cures the second', () => {
    expect(verdicts(after(rig, { put: [], remove: ['program:swi-5'] })).get('sound:06')).toEqual({ is: 'proved' });
  });
  test('its recall system is sound in itself', () => expect(wrongInSystem(model(compiled(rig)).system)).toEqual([]));
});

describe('the ways of real boxes', () => {
  const reverb = (change: (d: Device) => Device) => device(rig, 'device:rev', change);

  test('a box that does not reload the current program gets its values by control change as well', () => {
    const c = compiled(
      reverb((d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, again: 'nothing' as const })) })),
    );
    const acts = c.sounds.get('sound:01')!.stored[0]!.program.acts;
    expect(acts).toContainEqual({ send: { cc: 102, value: 127, channel: 4 }, at: 'midi-out', afterMs: 60 });
    expect(acts.findIndex((a) => 'send' in a && 'pc' in a.send && a.send.channel === 4)).toBeLessThan(
      acts.findIndex((a) => 'send' in a && 'cc' in a.send && a.send.channel === 4),
    );
  });

  test('on a channel that nobody reaches the want becomes a hand move', () => {
    const cut = after(rig, { put: [], remove: ['cable:b30'] });
    expect(
      compiled(cut)
        .sounds.get('sound:01')!
        .hand.map((h) => h.control),
    ).toContain('device:rev.program');
  });

  test('two boxes on one channel: each loads what was meant for the other, and the prover sees it', () => {
    const shared = reverb((d) => ({ ...d, midi: { ...d.midi!, channel: 3 } }));
    const wrong = verdicts(shared).get('sound:01');
    expect(wrong).toMatchObject({ is: 'broken' });
    expect(wrong?.is === 'broken' && wrong.wrong.map((w) => w.variable)).toContain('device:rev.program');
  });

  test('a box that keeps messages while it loads, or has loaded at once, needs no pause', () => {
    const waits = (change: (d: Device) => Device) =>
      compiled(reverb((d) => change({ ...d, memories: d.memories.map((m) => ({ ...m, again: 'nothing' as const })) })))
        .sounds.get('sound:01')!
        .stored[0]!.program.acts.flatMap((a) => ('send' in a ? (a.afterMs ?? []) : []));
    expect(waits((d) => ({ ...d, midi: { ...d.midi!, messages: 'queued' } }))).toEqual([]);
    expect(waits((d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, gapMs: 0 })) }))).toEqual([]);
  });

  test('a controller that cannot pause sends at once, and the prover sees what the box misses', () => {
    const hasty = device(
      reverb((d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, again: 'nothing' as const })) })),
      'device:swi',
      (d) => ({ ...d, memories: d.memories.map((m) => ({ ...m, limits: { ...m.limits, waits: false } })) }),
    );
    expect(
      compiled(hasty)
        .sounds.get('sound:01')!
        .stored[0]!.program.acts.every((a) => !('send' in a) || a.afterMs === undefined),
    ).toBe(true);
  });

  test('more than 128 programs: bank select goes before the program change', () => {
    const large = reverb((d) => ({
      ...d,
      memories: d.memories.map((m) => ({ ...m, size: 300 })),
      controls: d.controls.map((c) => (c.id === 'program' ? { ...c, domain: { min: 0, max: 299, unit: '' } } : c)),
    }));
    const asked = after(large, setWant(soundOf(large, '01'), { control: 'device:rev.program', is: 200 }));
    expect(compiled(asked).sounds.get('sound:01')!.stored[0]!.program.acts).toContainEqual({
      send: { pc: 72, channel: 4, bank: 1 },
      at: 'midi-out',
    });
  });
});

describe('inheritance and cases', () => {
  const want = (sound: string) =>
    new Map(
      compiled(derived)
        .sounds.get(`sound:${sound}`)!
        .wants.map((w) => [w.control, w.value]),
    );
  const derived = after(rig, {
    put: [
      {
        kind: 'sound',
        id: 'sound:d',
        name: 'Derived',
        role: 'lead',
        at: 20,
        parent: 'sound:04',
        calls: [{ device: 'device:swi', memory: 'slots', slot: 40 }],
        wants: [
          { control: 'device:swi.trim', more: 2 },
          { stage: 'device:hig.overdrive', is: 'out' },
          { control: 'device:rev.program', is: 8, in: { hookup: BALLROOM_ID } },
          { control: 'device:rev.program', is: 3 },
        ],
      },
    ],
    remove: [],
  });
  test('a derived sound follows its parent except where it differs; a relative want adds; the more particular case wins', () => {
    const w = want('d');
    expect(w.get('device:swi.trim' as Ref)).toBe(5);
    expect(w.get('device:swi.loop3' as Ref)).toBe('on');
    expect(w.get('device:swi.loop4' as Ref)).toBe('off');
    expect(w.get('device:rev.program' as Ref)).toBe(8);
  });
});

describe('the order that a sound wants', () => {
  test('an orderable switcher is told the arrangement; one that cannot reorder has a problem', () => {
    const asked = after(rig, {
      put: [{ ...soundOf(rig, '02'), order: ['device:low.overdrive', 'device:cmp.compressor'] }],
      remove: [],
    });
    expect(compiled(asked).sounds.get('sound:02')!.stored[0]!.program.contents).toMatchObject({
      order: 'loop3 loop2 loop1 loop4 loop5 loop6 loop7 loop8',
    });
    const fixed = device(asked, 'device:swi', (d) => ({ ...d, chains: d.chains.map(({ order: _, ...c }) => c) }));
    expect(compiled(fixed).sounds.get('sound:02')!.problems).toContainEqual({
      is: 'order',
      first: 'device:low.overdrive',
      second: 'device:cmp.compressor',
    });
  });
});

test('without a controller nothing is stored anywhere, and what sounds want differently is done by hand', () => {
  const bare = compiled(after(rig, removeDevice(rig, 'device:swi')));
  for (const c of bare.sounds.values()) expect(c.stored).toEqual([]);
  expect(handMoves(bare, 'sound:01').map((h) => h.control)).toContain('device:dly.program');
});
