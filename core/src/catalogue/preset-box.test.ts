import { after, withParts } from '../../testing/after.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { callersIn, callFrom, placesOf, slotFrom } from '../edits/calls.js';
import { giveSlots, setWant } from '../edits/sounds.js';
import { deriveOnce, type Derived } from '../derive/steps/deriver.js';
import { typeIn } from '../derive/views/type-in.js';
import { Random } from '../../testing/random.js';
import { proveRig, walk } from '../../testing/walk.js';
import { termsOf } from '../derive/views/terms.js';
import { soundDetail } from '../derive/views/sound-detail.js';
import { stagesMet } from '../signal/graph/order.js';
import { whatIf } from '../recall/what-if/what-if.js';
import { viewOf } from '../derive/views/view.js';
import { programRows } from '../sheets/program-rows.js';
import { addProgram, programColumns, typePrograms } from '../sheets/program-sheet.js';
import { shown } from '../midi/numbering.js';
import type { Device } from '../rig/device.js';
import type { Result } from '../rig/result.js';
import type { Ref } from '../rig/ids.js';
import { partOf, type Rig } from '../rig/rig.js';
import type { Value } from '../rig/value.js';

const slotted = (rig: Rig): Rig => after(rig, giveSlots(rig));
/** Guitar, a modeller with presets and scenes, two channels of a desk; nothing else. */
const alone = (sounds: Readonly<Record<string, readonly string[]>>): Rig =>
  slotted(
    smallRig({
      boxes: { g: 'single-coil', m: 'modeller-two-loops', d: 'desk' },
      leads: ['g.out>m.in', 'm.out-l>d.ch1', 'm.out-r>d.ch2'],
      sounds,
    }),
  );
const derived = (rig: Rig): Derived => deriveOnce(rig, SMALL)!;
const verdicts = (d: Derived): Readonly<Record<string, string>> =>
  Object.fromEntries([...d.answers].map(([id, a]) => [partOf(d.rig, id)!.name, a.is]));
const soundIn = (rig: Rig, name: string) => [...rig.parts.sound.values()].find((s) => s.name === name)!;
const wanting = (rig: Rig, name: string, control: Ref, is: Value): Rig =>
  after(rig, setWant(soundIn(rig, name), { control, is }));
const inScene = (rig: Rig, name: string, place: string): Rig => {
  const scenes = callersIn(rig).find((c) => c.isScene)!;
  const slot = placesOf(rig, scenes).find((p) => p.text === place)!.slot;
  return after(rig, callFrom(rig, soundIn(rig, name), scenes, slot));
};
const stored = (d: Derived, name: string) =>
  d.compilation.sounds.get(soundIn(d.rig, name).id)!.stored.map((s) => s.program);

/** The number by which a message turns its drive on. */
const driveSwitch = (modeller: Device): number => {
  const by = modeller.actuators.find((a) => a.id === 'drive' && 'midi' in a.by)!.by;
  return 'midi' in by && by.midi === 'cc' ? by.number : NaN;
};

const THREE = {
  Clean: ['m.amp-a', 'm.cab-a'],
  Crunch: ['m.amp-a', 'm.cab-a', 'm.drive'],
  Lead: ['m.amp-b', 'm.cab-a', 'm.drive', 'm.delay'],
};

describe('a box that calls its own presets', () => {
  const rig = ['Crunch', 'Lead'].reduce(
    (r, name, i) => wanting(r, name, 'device:m.drive-gain', 30 + 20 * i),
    alone(THREE),
  );
  const d = derived(rig);
  test('each sound stands in a preset of its own and comes back by one stomp, whatever was stomped or turned', () => {
    expect(verdicts(d)).toEqual({ Clean: 'proved', Crunch: 'proved', Lead: 'proved' });
    expect(viewOf(d).sounds.map((s) => s.byFoot)).toEqual([[], [], []]);
  });
  test('a preset holds what the sound says; an amount that none says is dialled in as it pleases', () => {
    const [preset] = stored(d, 'Lead');
    expect(preset).toMatchObject({
      memory: 'presets',
      number: 2,
      contents: { drive: 'on', amp: 'B', 'drive-gain': 50 },
    });
    expect(preset!.contents).not.toHaveProperty('delay-mix');
    expect(preset!.contents).toMatchObject({ 'drive-level': 0 });
  });
  test('what to dial in stands among the boxes, not among the controllers, preset by preset', () => {
    const [box] = typeIn(d);
    expect(box).toMatchObject({ code: 'M', isController: false });
    expect(box!.slots.map((s) => [s.shown, s.lines.map((l) => l.text)])).toEqual([
      ['1A', ['name “Clean”', 'everything off', 'amp A', 'cab A']],
      ['1B', ['name “Crunch”', 'on: drive; the others off', 'drive gain 30 %', 'amp A', 'cab A']],
      ['1C', ['name “Lead”', 'on: drive, delay; the others off', 'drive gain 50 %', 'amp B', 'cab A']],
    ]);
  });
});

describe('scenes', () => {
  const rig = [
    ['Clean', '1A scene 1'],
    ['Crunch', '1A scene 2'],
    ['Lead', '1A scene 3'],
  ].reduce((r, [name, place]) => inScene(r, name!, place!), alone(THREE));
  test('are places of their own: a preset with three scenes holds three sounds', () => {
    const scenes = callersIn(rig).find((c) => c.isScene)!;
    expect(placesOf(rig, scenes).flatMap((p) => (p.sound ? [`${p.text}: ${p.sound.name}`] : []))).toEqual([
      '1A scene 1: Clean',
      '1A scene 2: Crunch',
      '1A scene 3: Lead',
    ]);
    expect(slotFrom(rig, soundIn(rig, 'Lead'), scenes)).toBe(2);
  });
  const d = derived(rig);
  test('all come back, and the preset around them holds only what no scene sets', () => {
    expect(verdicts(d)).toEqual({ Clean: 'proved', Crunch: 'proved', Lead: 'proved' });
    expect(stored(d, 'Lead').map((p) => [p.memory, p.of, p.number])).toEqual([
      ['presets', undefined, 0],
      ['scenes', 0, 2],
    ]);
    expect(stored(d, 'Lead')[0]!.contents).not.toHaveProperty('drive');
    expect(stored(d, 'Lead')[0]!.contents).toMatchObject({ ctl1: 'open', 'eq-low': 0 });
    expect(d.judgement.findings.filter((f) => f.code === 'recall.slot-clash')).toEqual([]);
  });
  test('a sound that stood alone in the preset becomes its first scene when another comes in', () => {
    const joined = inScene(alone(THREE), 'Lead', '1A scene 2');
    const scenes = callersIn(joined).find((c) => c.isScene)!;
    expect(placesOf(joined, scenes).flatMap((p) => (p.sound ? [`${p.text}: ${p.sound.name}`] : []))).toEqual([
      '1A scene 1: Clean',
      '1A scene 2: Lead',
    ]);
    expect(verdicts(derived(joined))).toEqual({ Clean: 'proved', Crunch: 'proved', Lead: 'proved' });
  });
  test('are dialled in one by one, each after its preset', () =>
    expect(typeIn(d)[0]!.slots.map((s) => s.shown)).toEqual(['1A', '1A scene 1', '1A scene 2', '1A scene 3']));
});

describe('a move turns the time of the delay, which no scene sets', () => {
  const move = (rig: Rig): Rig =>
    after(rig, {
      put: [
        {
          kind: 'move',
          id: 'move:slow',
          name: 'Slow',
          at: [{ device: 'device:m', switch: 'E' }],
          sounds: 'all',
          latch: true,
          on: [{ control: 'device:m.delay-time', is: 900 }],
          off: [],
        },
      ],
      remove: [],
    });
  const timed = wanting(alone(THREE), 'Lead', 'device:m.delay-time', 400);
  test('the next preset gives it back', () => expect(verdicts(derived(move(timed)))['Lead']).toBe('proved'));
  test('the next scene does not, where its preset is loaded already and nobody stomps that again', () => {
    const scenes = [
      ['Clean', '1A scene 1'],
      ['Lead', '1A scene 2'],
    ].reduce((r, [name, place]) => inScene(r, name!, place!), timed);
    const d = derived(move(scenes));
    expect(verdicts(d)['Lead']).not.toBe('proved');
    const { modelled, verdicts: proved } = proveRig(move(scenes), partOf(scenes, SMALL)!);
    const verdict = proved.get('sound:lead')!;
    const wrong = verdict.is === 'broken' ? verdict.wrong.map((w) => w.variable) : [];
    expect(wrong).toEqual(['device:m.delay-time']);
    expect(modelled.steps.get('recall:sound:lead')).toEqual({ does: 'recall', sound: 'sound:lead' });
  });
});

test('a knob that somebody turned is reset by the next preset', () => {
  const timed = wanting(alone(THREE), 'Lead', 'device:m.delay-time', 400);
  const { compilation, modelled, verdicts: proved } = proveRig(timed, partOf(timed, SMALL)!);
  const reply = whatIf('turned knob', compilation, modelled, proved);
  expect(reply.question.systems[0]!.events.map((e) => e.id)).toContain('knob:device:m.delay-time');
  expect(reply.troubles).toEqual([]);
});

test('a controller in the rig calls the sounds, not the box with presets; its program is what they want then', () => {
  const rig = smallRig({
    boxes: { g: 'single-coil', m: 'modeller', s: 'switcher-8', d: 'desk' },
    leads: ['g.out>s.in', 's.out>m.in', 'm.out-l>d.ch1', 's.midi-out>m.midi-in'],
  });
  expect(callersIn(rig).map((c) => c.code)).toEqual(['M', 'S']);
});

describe('a box that also commands: one stomp loads its preset, the reverb behind it, and the channel of the amp', () => {
  const rig = slotted(
    smallRig({
      boxes: { g: 'single-coil', m: 'modeller', h: 'valve-head', c: 'cab-212', r: 'stereo-reverb' },
      leads: [
        'g.out>m.in',
        'm.send>h.in',
        'h.send>m.return',
        'm.out-l>r.in-l',
        'r.out-l>h.return',
        'h.speaker>c.in',
        'm.midi-out>r.midi-in',
        'm.ctl1>h.channel-switch',
      ],
      sounds: {
        Clean: ['h.clean', 'm.cab', 'r.reverb', 'r.program=1'],
        Lead: ['h.lead', 'm.drive', 'm.cab', 'r.reverb', 'r.program=5'],
      },
    }),
  );
  const d = derived(rig);
  test('a preset sends the program and closes the contact', () => {
    const [preset] = stored(d, 'Lead');
    expect(preset!.contents).toMatchObject({ ctl1: 'closed', drive: 'on' });
    expect(preset!.acts.map((a) => ('send' in a ? a.send : a))).toContainEqual(expect.objectContaining({ pc: 5 }));
    expect(verdicts(d)).toEqual({ Clean: 'proved', Lead: 'proved' });
  });
  test('a preset that was typed in without the contact is found', () => {
    const [preset] = stored(d, 'Lead');
    const forgot = withParts(rig, {
      ...preset!,
      id: 'program:forgot',
      contents: { ...(preset!.contents as object), ctl1: 'open' },
    });
    expect(verdicts(derived(forgot))).toMatchObject({ Lead: 'broken' });
  });
});

describe('a move on its own switch', () => {
  const solo = (rig: Rig): Rig =>
    after(rig, {
      put: [
        {
          kind: 'move',
          id: 'move:solo',
          name: 'Solo',
          at: [{ device: 'device:m', switch: 'E' }],
          sounds: 'all',
          latch: true,
          on: [
            { control: 'device:m.drive-gain', is: 75 },
            { control: 'device:m.drive-level', is: 3 },
          ],
          off: [],
        },
      ],
      remove: [],
    });
  const rig = solo(wanting(alone(THREE), 'Lead', 'device:m.drive-gain', 40));
  const d = derived(rig);
  test('gives back what the sound says; an amount that it does not say is not made up', () => {
    const off = (name: string) => stored(d, name)[0]!.assigns[0]!.off;
    expect(off('Lead')).toEqual([
      { control: 'drive-gain', set: 40 },
      { control: 'drive-level', set: 0 },
    ]);
    expect(off('Clean')).toEqual([{ control: 'drive-level', set: 0 }]);
  });
  test('where nothing gives it back is found, and what to do about it', () => {
    const found = d.judgement.findings.filter((f) => f.code === 'recall.unsaid');
    expect(found.map((f) => f.why)).toEqual([
      'Solo moves M drive gain, and “Clean” and “Crunch” do not say where it stands: nothing gives it back there.',
    ]);
    const said = ['Clean', 'Crunch'].reduce((r, name) => wanting(r, name, 'device:m.drive-gain', 20), rig);
    expect(derived(said).judgement.findings.filter((f) => f.code === 'recall.unsaid')).toEqual([]);
  });
  test('more than its switches can be assigned to is found', () => {
    const few = withParts(rig, {
      ...partOf(rig, 'device:m')!,
      memories: partOf(rig, 'device:m')!.memories.map((m) =>
        m.id === 'presets' ? { ...m, limits: { ...m.limits, assignments: 1 } } : m,
      ),
    });
    expect(
      derived(few)
        .judgement.findings.filter((f) => f.code === 'midi.capacity')
        .map((f) => f.why)
        .join(),
    ).toContain('stores 1 assignments of its switches in a slot');
  });
});

test('what is easily forgotten of an assigned switch is a line to tick beside it', () => {
  const rig = after(alone(THREE), {
    put: [
      {
        kind: 'move',
        id: 'move:solo',
        name: 'Solo',
        at: [{ device: 'device:m', switch: 'E' }],
        sounds: 'all',
        latch: true,
        on: [{ control: 'device:m.delay', is: 'on' }],
        off: [],
      },
    ],
    remove: [],
  });
  const [box] = typeIn(derived(rig));
  const texts = box!.slots[0]!.lines.map((l) => l.text);
  const at = texts.findIndex((t) => t.startsWith('switch E, latched'));
  expect(texts.slice(at + 1, at + 3)).toEqual([
    'switch E: the assign is armed in this preset',
    'switch E: its source is this switch, not the one it starts with',
  ]);
  expect(new Set(box!.slots.flatMap((s) => s.lines.map((l) => l.is))).size).toBeGreaterThan(3);
});

describe('a controller that calls presets and scenes over MIDI', () => {
  const OF: Readonly<Record<string, { readonly preset: number; readonly scene: number; readonly drive: string }>> = {
    Verse: { preset: 4, scene: 0, drive: 'off' },
    Chorus: { preset: 4, scene: 2, drive: 'on' },
    Solo: { preset: 5, scene: 2, drive: 'off' },
  };
  const bare = smallRig({
    boxes: { g: 'single-coil', s: 'switcher-8', m: 'modeller-two-loops', d: 'desk' },
    leads: ['g.out>s.in', 's.out>m.in', 'm.out-l>d.ch1', 'm.out-r>d.ch2', 's.midi-out>m.midi-in'],
    sounds: Object.fromEntries(
      Object.entries(OF).map(([name, { preset, scene, drive }]) => [
        name,
        [`m.program=${preset}`, `m.scene=${scene}`, 'm.amp-a', 'm.cab-a', ...(drive === 'on' ? ['m.drive'] : [])],
      ]),
    ),
  });
  const modeller = partOf(bare, 'device:m')!;
  const { memory, columns } = {
    memory: modeller.memories[0]!,
    columns: programColumns(modeller, modeller.memories[0]!),
  };
  const done = <T>(result: Result<T, unknown>): T => {
    if (!result.ok) throw new Error(JSON.stringify(result.error));
    return result.value;
  };
  /** Each scene written down with what the sound in it wants, all else off. */
  const written = Object.values(OF).reduce(
    (r, { preset, scene, drive }) => {
      const place = `${shown(memory.shows, preset)} scene ${scene + 1}`;
      const withRow = after(r, done(addProgram(r, modeller, memory, place, '')));
      const row = programRows(withRow, modeller, memory, []).find((p) => p.shown === place)!;
      const cells = columns.flatMap((c, column) =>
        c.is === 'switch' && modeller.memories[1]!.stores.includes(c.id)
          ? [{ row: 0, column, text: c.id === 'drive' && drive === 'on' ? 'on' : 'off' }]
          : [],
      );
      return after(withRow, done(typePrograms(withRow, [row.program], columns, cells)));
    },
    after(bare, giveSlots(bare)),
  );

  test('the preset goes first, then the scene in it; what the scene holds is not sent again', () => {
    const [slot] = stored(derived(written), 'Chorus');
    const sends = slot!.acts.map((a) => ('send' in a ? a.send : a));
    expect(sends.slice(0, 2)).toMatchObject([{ pc: 4 }, { cc: 19, value: 2 }]);
    expect(sends).not.toContainEqual(expect.objectContaining({ cc: driveSwitch(modeller) }));
  });
  test('every sound comes back, and on the bench as well', () => {
    expect(verdicts(derived(written))).toEqual({ Verse: 'proved', Chorus: 'proved', Solo: 'proved' });
    const proved = proveRig(written, partOf(written, SMALL)!);
    expect(walk(proved, new Random(7), 300).contradictions).toEqual([]);
  });
  test('a scene that was dialled in otherwise is told', () => {
    const [row] = programRows(written, modeller, memory, []).filter((r) => r.shown.endsWith('scene 3'));
    const column = columns.findIndex((c) => c.id === 'drive');
    const wrong = after(
      written,
      done(typePrograms(written, [row!.program], columns, [{ row: 0, column, text: 'off' }])),
    );
    const sends = stored(derived(wrong), 'Chorus')[0]!.acts.map((a) => ('send' in a ? a.send : a));
    expect(sends).toContainEqual(expect.objectContaining({ cc: driveSwitch(modeller), value: 127 }));
  });
});

describe('a modeller whose presets say in which order their blocks come', () => {
  const bare = alone({
    Verse: ['m.amp-a', 'm.cab-a', 'm.delay', 'm.reverb'],
    Wash: ['m.amp-a', 'm.cab-a', 'm.delay', 'm.reverb'],
  });
  const wash = soundIn(bare, 'Wash');
  const order: readonly Ref[] = ['device:m.amp-a', 'device:m.cab-a', 'device:m.reverb', 'device:m.delay'];
  const rig = after(bare, { put: [{ ...wash, order }], remove: [] });
  const d = derived(rig);
  const met = (name: string) => stagesMet(d.compilation.sounds.get(soundIn(rig, name).id)!.trace);
  test('the signal meets them so, in that sound alone', () => {
    expect(met('Verse').slice(-2)).toEqual(['device:m.delay', 'device:m.reverb']);
    expect(met('Wash').slice(-2)).toEqual(['device:m.reverb', 'device:m.delay']);
    expect(verdicts(d)).toEqual({ Verse: 'proved', Wash: 'proved' });
  });
  test('it is dialled in with the preset; the usual order needs no word', () => {
    const lines = typeIn(d)[0]!.slots.map((s) => s.lines.map((l) => l.text).filter((t) => t.startsWith('order')));
    expect(lines).toEqual([[], ['order tuner gate drive loop1 amp loop2 cab eq mod reverb delay']]);
  });
  test('each block has a place that can be changed', () => {
    const places = soundDetail(d, wash.id)!.order;
    expect(places.map((p) => [p.text, p.loop?.slot])).toEqual([
      ['M tuner', 'tuner'],
      ['M amp-a', 'amp'],
      ['M cab-a', 'cab'],
      ['M reverb', 'reverb'],
      ['M delay', 'delay'],
    ]);
  });
});

describe('a setting for all presets', () => {
  const sides = (outputs: string) => {
    const rig = smallRig({
      boxes: { g: 'single-coil', m: 'modeller-two-loops', d: 'desk' },
      leads: ['g.out>m.in', 'm.out-l>d.ch1', 'm.out-r>d.ch2'],
      sounds: { Wide: ['m.amp-a', 'm.cab-a', 'm.reverb'] },
      settings: { 'm.outputs': outputs },
    });
    const d = derived(slotted(rig));
    const terms = termsOf(d);
    return {
      setting: terms.settings.filter((s) => s.name.startsWith('outputs')).map((s) => [s.value, s.said]),
      stored: stored(d, 'Wide').some((p) => p.contents !== 'unplanned' && 'outputs' in p.contents),
      wide: terms.listening.reduce((n, l) => n + l.wide, 0),
    };
  };
  test('is set for the house, by hand; no preset holds it', () => {
    expect(sides('stereo')).toEqual({ setting: [['stereo', true]], stored: false, wide: 1 });
    expect(sides('mono')).toEqual({ setting: [['mono', true]], stored: false, wide: 0 });
  });
});
