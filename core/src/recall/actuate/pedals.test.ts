import { often } from '../../../testing/often.js';
import fc from 'fast-check';
import { after, withParts } from '../../../testing/after.js';
import { Random } from '../../../testing/random.js';
import { randomRig } from '../../../testing/random-rig.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { proveRig, walk } from '../../../testing/walk.js';
import { makeDevice } from '../../catalogue/make.js';
import { CHECKS } from '../../checks/index.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { setUpBench, takeStep } from '../../derive/play/play.js';
import { typeIn } from '../../derive/views/type-in.js';
import { swept } from '../../rig/act.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, type Part, type Rig } from '../../rig/rig.js';
import type { Want } from '../../rig/sound.js';
import { jumpOf } from './pedals.js';
import { stepText } from '../words/words.js';

const called = (p: Part): Part =>
  p.kind === 'sound' ? { ...p, calls: [{ device: 'device:c', memory: 'slots', slot: p.at - 1 }] } : p;
const under =
  (sound: string, want: Want) =>
  (p: Part): Part =>
    p.kind === 'sound' && p.id === `sound:${sound}` ? { ...p, wants: [...p.wants, want] } : p;
const swell: Want = { control: 'device:d.mix', pedal: 'device:c.exp1', heel: 10, toe: 60, at: 30 };

/**
 * A controller with a pedal, a delay that it reaches; Swell puts the mix under the pedal, Plain says what it wants of
 * it.
 */
const rigWith = (
  want: Want | undefined = swell,
  plain: readonly string[] = [],
  more: { leads?: readonly string[]; change?: (p: Part) => Part } = {},
): Rig =>
  smallRig({
    boxes: { g: 'single-coil', c: 'midi-controller-exp', d: 'stereo-delay', w: 'powered-speaker', x: 'expression' },
    leads: more.leads ?? ['g.out>d.in-l', 'd.out-l>w.in', 'c.midi-out>d.midi-in', 'x.exp>c.exp1'],
    sounds: { Swell: ['d.delay'], Plain: plain },
    with: (p) => (more.change ?? ((x) => x))(want ? under('swell', want)(called(p)) : called(p)),
  });
const proved = (rig: Rig, sound: Id<'sound'>) => deriveOnce(rig, SMALL)!.verdicts.get(sound)!;

describe('the value at a position of the pedal', () => {
  test.each([
    [10, 60, 'line', 0, 10],
    [10, 60, 'line', 127, 60],
    [60, 10, 'line', 127, 10],
    [0, 100, 'slow', 64, 25],
    [0, 100, 'fast', 64, 75],
    [0, 100, 'line', 64, 50],
  ] as const)('heel %d, toe %d, %s, at %d: %d', (heel, toe, curve, byte, value) =>
    expect(swept({ heel, toe, curve }, byte, 1)).toBe(value),
  );
  test('it stays between heel and toe, begins and ends there, and never turns back', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -60, max: 60 }),
        fc.integer({ min: -60, max: 60 }),
        fc.constantFrom('line' as const, 'slow' as const, 'fast' as const),
        (heel, toe, curve) => {
          const values = Array.from({ length: 128 }, (_, byte) => swept({ heel, toe, curve }, byte, 1));
          expect([values[0], values[127]].map((v) => v! + 0)).toEqual([heel + 0, toe + 0]);
          for (const [i, v] of values.slice(1).entries())
            expect(Math.sign(v - values[i]!) * Math.sign(toe - heel)).toBeGreaterThanOrEqual(0);
        },
      ),
    ));
});

describe('an amount under a pedal', () => {
  const d = deriveOnce(rigWith(), SMALL)!;
  test('the slot of its controller says what the pedal sends: controller 20 on channel 3, 10 to 60 % of 127', () => {
    const [slot] = d.compilation.sounds.get('sound:swell')!.stored;
    // 10 % of 0..127 is 12.7, 60 % is 76.2: the bytes that come nearest.
    expect(slot!.program.sweeps).toEqual([{ jack: 'exp1', cc: 20, channel: 3, at: 'midi-out', heel: 13, toe: 76 }]);
    expect(d.compilation.sounds.get('sound:plain')!.stored[0]!.program.sweeps).toBeUndefined();
  });
  test('until it moves, the recall sends where it is to stand', () => {
    const bench = setUpBench(d, {});
    takeStep(d, bench, { does: 'recall', sound: 'sound:swell' });
    expect(bench.value('device:d.mix')).toBe(30);
    bench.pedal('device:c', 'exp1', 127);
    expect(bench.value('device:d.mix')).toBe(60);
    bench.pedal('device:c', 'exp1', 0);
    expect(bench.value('device:d.mix')).toBe(10);
    expect(bench.pedalAt('device:c', 'exp1')).toBe(0);
  });
  test('in a sound that does not assign it the pedal sends nothing', () => {
    const bench = setUpBench(d, {});
    takeStep(d, bench, { does: 'recall', sound: 'sound:swell' });
    takeStep(d, bench, { does: 'recall', sound: 'sound:plain' });
    const heard = bench.heard.length;
    bench.pedal('device:c', 'exp1', 100);
    expect(bench.heard.slice(heard).map((h) => h.is)).toEqual(['stomp']);
  });
  test('it is typed in with its numbers, and with the jump at the first touch', () => {
    const line = typeIn(d)
      .find((b) => b.code === 'C')!
      .slots[0]!.lines.find((l) => l.text.startsWith('pedal'))!;
    expect(line).toMatchObject({
      text: 'pedal exp1: channel 3, controller 20, heel 13, toe 76',
      why: 'D mix from 10 % to 60 %; at first touch it can jump by 30',
    });
    expect(jumpOf({ control: 'device:d.mix', pedal: 'device:c.exp1', heel: 10, toe: 60, by: 'no way' })).toBe(50);
  });
});

describe('the proof reckons with pedals', () => {
  test('left anywhere, it is brought back by a sound that says where it is to stand', () => {
    expect(proved(rigWith(), 'sound:swell').is).toBe('proved');
    expect(proved(rigWith(swell, ['d.delay', 'd.mix=50']), 'sound:plain').is).toBe('proved');
  });
  test('a slot that was typed without that message leaves the amount where the pedal put it, when the box does not load its program again', () => {
    const stubborn = (p: Part): Part =>
      p.kind === 'device' && p.id === 'device:d'
        ? { ...p, memories: p.memories.map((m) => ({ ...m, again: 'nothing' as const })) }
        : p;
    const rig = withParts(
      rigWith({ control: 'device:d.mix', pedal: 'device:c.exp1', heel: 10, toe: 60 }, ['d.delay', 'd.program=4'], {
        change: (p) =>
          stubborn(
            p.kind === 'sound' && p.id === 'sound:swell'
              ? { ...p, wants: [...p.wants, { control: 'device:d.program', is: 4 }] }
              : p,
          ),
      }),
      {
        kind: 'program',
        id: 'program:d-4',
        device: 'device:d',
        memory: 'programs',
        number: 4,
        name: 'Half',
        contents: { on: 'on', mix: 25 },
        acts: [],
        assigns: [],
      },
      {
        kind: 'program',
        id: 'program:c-1',
        device: 'device:c',
        memory: 'slots',
        number: 1,
        name: 'Plain',
        contents: {},
        acts: [{ send: { pc: 4, channel: 3 }, at: 'midi-out' }],
        assigns: [],
      },
    );
    const wrongWith = (of: Rig) => {
      const verdict = proved(of, 'sound:plain');
      return verdict.is === 'broken'
        ? verdict.wrong.filter((w) => w.variable === 'device:d.mix').map((w) => w.example().events)
        : [];
    };
    // The power comes on with the slot of Swell loaded: the pedal works at once.
    expect(wrongWith(rig)).toEqual([['pedal:device:c.exp1:0', 'recall:sound:plain']]);
    expect(
      wrongWith(withParts(rig, { ...all(rig, 'hookup')[0]!, admits: { moves: false, feet: true, powerCycle: true } })),
    ).toEqual([]);
  });
  test('each of its positions that does something of its own is one event, told in words', () => {
    const d = deriveOnce(rigWith(), SMALL)!;
    expect([...d.modelled.steps.values()].filter((s) => s.does === 'pedal').map((s) => stepText(d.rig, s))).toEqual([
      'Move the pedal at C exp1 to its heel',
      'Move the pedal at C exp1 to 39 %',
    ]);
  });
});

describe('a pedal that moves nothing is found', () => {
  const finding = (rig: Rig) => deriveOnce(rig, SMALL)!.judgement.findings.find((f) => f.code === 'midi.unreached');
  test('because nothing is plugged in', () =>
    expect(finding(rigWith(swell, [], { leads: ['g.out>d.in-l', 'd.out-l>w.in', 'c.midi-out>d.midi-in'] }))?.why).toBe(
      '“Swell” puts D mix under the pedal at Large MIDI foot controller (exp1), but nothing is plugged in there.',
    ));
  test('because the sound does not call its controller', () =>
    expect(
      finding(rigWith(swell, [], { change: (p) => (p.kind === 'sound' ? { ...p, calls: [] } : p) }))?.why,
    ).toContain('the sound calls no slot of Large MIDI foot controller'));
  test('because nothing that the controller sends moves it', () =>
    expect(finding(rigWith({ ...swell, control: 'device:d.program' }))?.why).toContain(
      'nothing that Large MIDI foot controller sends moves it on',
    ));
  test('and one that works is not', () => expect(finding(rigWith())).toBeUndefined());
  test('the check is the one for what cannot be reached', () =>
    expect(CHECKS.find((c) => c.code === 'midi.unreached')!.title).toBe('A box or a pedal that cannot be reached'));
});

test('a pedal at a jack that is none, or past its range, is refused', () => {
  const rig = rigWith(undefined);
  const sound = partOf(rig, 'sound:swell')!;
  for (const wrong of [
    { ...swell, pedal: 'device:c.midi-in' as const },
    { ...swell, toe: 500 },
    { ...swell, at: -3 },
  ])
    expect(() => after(rig, { put: [{ ...sound, wants: [wrong] }], remove: [] })).toThrow();
});

/** A random rig whose controllers have a pedal under which some of its sounds put amounts of MIDI boxes. */
const withPedals = (seed: number): ReturnType<typeof randomRig> => {
  const { rig, hookup } = randomRig(seed);
  const random = new Random(seed + 9000);
  const controllers = all(rig, 'device').filter((d) => d.memories.some((m) => m.by === 'slot'));
  const boxes = all(rig, 'device').filter((d) => d.midi && d.controls.some((c) => c.id === 'mix'));
  const parts: Part[] = [];
  for (const [i, c] of controllers.entries()) {
    const pedal = makeDevice('expression', `device:pedal-${i}`);
    parts.push(
      pedal,
      {
        ...c,
        jacks: [
          ...c.jacks.filter((j) => j.id !== 'exp9'),
          { ...makeDevice('midi-controller-exp', 'device:any').jacks.find((j) => j.id === 'exp1')!, id: 'exp9' },
        ],
      },
      { kind: 'cable', id: `cable:pedal-${i}`, hookup: hookup.id, ends: [`device:pedal-${i}.exp`, `${c.id}.exp9`] },
    );
  }
  for (const s of all(rig, 'sound')) {
    const box = boxes.length && controllers.length && random.chance(60) ? random.pick(boxes) : undefined;
    if (!box || s.wants.some((w) => 'control' in w && w.control === `${box.id}.mix`)) continue;
    parts.push({
      ...s,
      wants: [
        ...s.wants,
        {
          control: `${box.id}.mix`,
          pedal: `${random.pick(controllers).id}.exp9`,
          heel: random.int(0, 100),
          toe: random.int(0, 100),
          ...(random.chance(60) ? { at: random.int(0, 100) } : {}),
        },
      ],
    });
  }
  return { rig: withParts(rig, ...parts), hookup };
};

test('bench and prover agree on random rigs with pedals, whatever is stomped and moved', () => {
  let [recalls, pedals] = [0, 0];
  for (let seed = 1; seed <= often(30); seed += 1) {
    const { rig, hookup } = withPedals(seed);
    const p = proveRig(rig, hookup);
    pedals += [...p.modelled.steps.values()].filter((s) => s.does === 'pedal').length > 0 ? 1 : 0;
    const walked = walk(p, new Random(seed), 200);
    expect([seed, walked.contradictions]).toEqual([seed, []]);
    recalls += walked.recalls;
  }
  expect(pedals).toBeGreaterThan(10);
  expect(recalls).toBeGreaterThan(3000);
});
