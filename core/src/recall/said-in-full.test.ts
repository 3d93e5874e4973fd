import fc from 'fast-check';
import { SMALL, smallRig, type SmallRig } from '../../testing/small-rig.js';
import { setUpBench, wrongOnBench } from '../derive/play/play.js';
import { deriveOnce, type Derived } from '../derive/steps/deriver.js';
import type { Device } from '../rig/device.js';
import type { Song } from '../rig/show.js';
import { rigOf, everyPart, type Part } from '../rig/rig.js';
import type { Sound } from '../rig/sound.js';

const BOXES: SmallRig['boxes'] = { g: 'single-coil', s: 'switcher-4', d: 'stereo-delay', p: 'powered-speaker' };
const LEADS = ['g.out>s.in', 's.out>d.in-l', 'd.out-l>p.in', 's.midi-out>d.midi-in'];
const called = (part: Part): Part =>
  part.kind === 'sound' ? { ...part, calls: [{ device: 'device:s', memory: 'slots', slot: part.at - 1 }] } : part;
const delay =
  (change: (d: Device) => Device) =>
  (part: Part): Part =>
    part.kind === 'device' && part.id === 'device:d' ? change(part) : called(part);
const of = (rig: SmallRig, more: readonly Part[] = []): Derived =>
  deriveOnce(more.length ? rigOf([...everyPart(smallRig(rig)), ...more]) : smallRig(rig), SMALL)!;
const first = (d: Derived) => [...d.compilation.sounds.values()][0]!;
const wanted = (d: Derived, control: string) => first(d).wants.find((w) => w.control === `device:d.${control}`)?.value;

/** The delay sounds as soon as its mix is not zero: in over a range, with a message that sets it. */
const byMix = delay((d) => ({
  ...d,
  chains: d.chains.map((c) => ({
    ...c,
    slots: c.slots.map((s) => (s.is === 'block' ? { ...s, on: [{ control: 'mix', from: 1, to: 100 }] } : s)),
  })),
  actuators: [
    ...d.actuators,
    { id: 'mix cc', by: { midi: 'cc' as const, number: 40 }, acts: [{ control: 'mix', scale: [0, 100] as const }] },
  ],
}));

describe('a stage that is in over a range', () => {
  test('keeps the value that the sheet says', () =>
    expect(
      wanted(of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay', 'd.mix=37'] }, with: byMix }), 'mix'),
    ).toBe(37));
  test('keeps the value that the called program holds', () => {
    const program: Part = {
      kind: 'program',
      id: 'program:d-3',
      device: 'device:d',
      memory: 'programs',
      number: 3,
      name: 'Wide',
      contents: { on: 'on', mix: 42 },
      acts: [],
      assigns: [],
    };
    const memory = (smallRig({ boxes: BOXES, leads: LEADS }).parts.device.get('device:d') as Device).memories[0]!.id;
    expect(
      wanted(
        of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay', 'd.program=3'] }, with: byMix }, [
          { ...program, memory },
        ]),
        'mix',
      ),
    ).toBe(42);
  });
  test('is never set to the lowest value unasked', () =>
    expect(wanted(of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay'] }, with: byMix }), 'mix')).toBe(51));
});

describe('an amount that only a foot moves, of a stage that is in over a range', () => {
  const steps = (values: readonly number[], powerUp: Device['controls'][number]['powerUp'] = { at: 50 }) =>
    delay((d) => ({
      ...d,
      memories: [],
      actuators: d.actuators
        .filter((a) => !('midi' in a.by))
        .map((a) => ({ ...a, acts: a.acts.filter((act) => !('load' in act)) }))
        .concat({ id: 'mix step', by: { foot: 'mix', gesture: 'press' }, acts: [{ control: 'mix', step: values }] }),
      controls: d.controls.filter((c) => c.id !== 'program').map((c) => (c.id === 'mix' ? { ...c, powerUp } : c)),
      chains: d.chains.map((c) => ({
        ...c,
        slots: c.slots.map((s) => (s.is === 'block' ? { ...s, on: [{ control: 'mix', from: 1, to: 100 }] } : s)),
      })),
    }));
  const inRange = (part: Part, from: number, to: number): Part =>
    part.kind !== 'device' || part.id !== 'device:d'
      ? part
      : {
          ...part,
          chains: part.chains.map((c) => ({
            ...c,
            slots: c.slots.map((s) => (s.is === 'block' ? { ...s, on: [{ control: 'mix', from, to }] } : s)),
          })),
        };
  const lead = (change: ReturnType<typeof steps>, said = ['d.delay']) =>
    of({ boxes: BOXES, leads: LEADS, sounds: { Lead: said }, with: change });
  const answer = (d: Derived) => {
    const { is, hands } = d.answers.get('sound:lead')!;
    return [is, hands.map((h) => h.control)];
  };
  test('that stays in the range asks nothing of anybody, and every value in it is right on the bench', () => {
    const d = lead(steps([20, 50, 80]));
    expect(answer(d)).toEqual(['proved', []]);
    const bench = setUpBench(d, {});
    bench.stomp('device:d', 'mix');
    expect([bench.value('device:d.mix'), wrongOnBench(d, bench, 'sound:lead')]).toEqual([80, []]);
  });
  test('whatever values it steps through: spared exactly when each of them, and how it wakes, serves', () => {
    const amount = fc.constantFrom(0, 5, 10, 40, 60, 100);
    // A step goes on from the first place of a value in its list: each stands there once.
    const values = fc.uniqueArray(amount, { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(values, amount, amount, amount, (through, woken, a, b) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)];
        const d = lead((part) => inRange(steps(through, { at: woken })(part), from, to));
        const stays = [...through, woken].every((v) => v >= from && v <= to);
        expect(answer(d)).toEqual(stays ? ['proved', []] : ['left to hands', ['device:d.mix']]);
        const bench = setUpBench(d, {});
        for (const _ of through) bench.stomp('device:d', 'mix');
        if (stays) expect(wrongOnBench(d, bench, 'sound:lead')).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
  test('that can leave it is set by foot', () =>
    expect(answer(lead(steps([0, 50, 80])))).toEqual(['left to hands', ['device:d.mix']]));
  test('that may wake anyhow is set by foot', () =>
    expect(answer(lead(steps([20, 50, 80], 'unknown')))).toEqual(['left to hands', ['device:d.mix']]));
  test('of which the sheet says the value is set to it', () =>
    expect(answer(lead(steps([20, 50, 80]), ['d.delay', 'd.mix=50']))).toEqual(['left to hands', ['device:d.mix']]));
});

test('a knob that one sound wants at a value, and another anywhere in a range, is set once and left alone', () => {
  const still = delay((d) => ({
    ...d,
    memories: [],
    actuators: d.actuators.filter((a) => 'foot' in a.by && a.acts.every((act) => 'control' in act)),
    controls: d.controls.map((c) => (c.id === 'mix' ? { ...c, powerUp: 'left' as const } : c)),
    chains: d.chains.map((c) => ({
      ...c,
      slots: c.slots.map((s) => (s.is === 'block' ? { ...s, on: [{ control: 'mix', from: 1, to: 100 }] } : s)),
    })),
  }));
  const d = of({
    boxes: BOXES,
    leads: LEADS,
    sounds: { Lead: ['d.delay', 'd.mix=37'], Wide: ['d.delay'] },
    with: still,
  });
  expect([d.compilation.leftAlone.get('device:d.mix'), [...d.answers.values()].map((a) => a.is)]).toEqual([
    37,
    ['proved', 'proved'],
  ]);
});

test('a program of which several serve is still chosen by somebody: that choice is not its own proof', () => {
  const byProgram = delay((d) => ({
    ...d,
    chains: d.chains.map((c) => ({
      ...c,
      slots: c.slots.map((s) => (s.is === 'block' ? { ...s, on: [{ control: 'program', in: [1, 2] }] } : s)),
    })),
  }));
  const leads = LEADS.filter((l) => !l.includes('midi'));
  const d = of({ boxes: BOXES, leads, sounds: { Lead: ['d.delay'], Dry: ['d.program=5'] }, with: byProgram });
  const { is, hands } = d.answers.get('sound:lead')!;
  expect([is, hands.map((h) => h.control)]).toEqual(['left to hands', ['device:d.program']]);
});

test('a control change that can only turn on does not turn off: what it does not bring is left to a foot', () => {
  const oneWay = delay((d) => ({
    ...d,
    actuators: d.actuators
      .filter((a) => !('midi' in a.by) || a.by.midi !== 'cc')
      .concat({ id: 'only on', by: { midi: 'cc', number: 41 }, acts: [{ control: 'on', set: 'on' }] }),
  }));
  const d = of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay'], Clean: [] }, with: oneWay });
  const [lead, clean] = [...d.compilation.sounds.values()];
  expect(lead!.hand.map((h) => h.control)).not.toContain('device:d.on');
  expect(lead!.stored[0]!.program.acts).toContainEqual(
    expect.objectContaining({ send: expect.objectContaining({ cc: 41 }) }),
  );
  expect(clean!.hand.map((h) => h.control)).toContain('device:d.on');
});

describe('what a sound says for a case', () => {
  const song: Song = { kind: 'song', id: 'song:one', title: 'Harbour lights', cues: [] };
  const saying =
    (wants: Sound['wants'], calls?: Sound['calls']) =>
    (part: Part): Part => {
      const with_ = called(part);
      return with_.kind === 'sound'
        ? { ...with_, wants: [...with_.wants, ...wants], calls: calls ?? with_.calls }
        : with_;
    };
  const granted = { boxes: { ...BOXES, k: 'humbucker', a: 'ab-in' }, sounds: { Lead: ['d.delay', 'd.program=3'] } };
  const one = ['g.out>s.in', ...LEADS.slice(1)];
  const both = ['g.out>a.a', 'k.out>a.b', 'a.out>s.in', ...LEADS.slice(1)];
  test('with the only instrument that is plugged in, it counts', () => {
    const d = of({
      ...granted,
      leads: one,
      with: saying([
        { control: 'device:d.mix', is: 20 },
        { control: 'device:d.mix', is: 60, in: { instrument: 'device:g' } },
      ]),
    });
    expect(wanted(d, 'mix')).toBe(60);
  });
  test('with an instrument that is not plugged in, it does not count and is no question', () => {
    const d = of({
      ...granted,
      leads: one,
      with: saying([
        { control: 'device:d.mix', is: 20 },
        { control: 'device:d.mix', is: 60, in: { instrument: 'device:k' } },
      ]),
    });
    expect([wanted(d, 'mix'), d.answers.get('sound:lead')!.is === 'undecided']).toEqual([20, false]);
  });
  test('with one of two instruments that are plugged in: not decided, and it says why', () => {
    const d = of({
      ...granted,
      leads: both,
      with: saying([
        { control: 'device:d.mix', is: 20 },
        { control: 'device:d.mix', is: 60, in: { instrument: 'device:k' } },
      ]),
    });
    const { is, proof } = d.answers.get('sound:lead')!;
    expect([is, proof.is === 'undecided' && proof.because]).toEqual([
      'undecided',
      expect.stringContaining('with “Humbucker guitar”'),
    ]);
    expect(d.judgement.findings.map((f) => f.code)).toContain('recall.undecided');
  });
  test('in a song: not decided; and a call in a song does not call it in every other', () => {
    const plain: SmallRig = { ...granted, leads: one, with: called };
    const sound = smallRig(plain).parts.sound.get('sound:lead')!;
    const wants = of(plain, [song, saying([{ control: 'device:d.mix', is: 60, in: { song: 'song:one' } }])(sound)]);
    expect(wants.answers.get('sound:lead')).toMatchObject({
      is: 'undecided',
      proof: { because: expect.stringContaining('in the song “Harbour lights”') },
    });
    const calls = of(plain, [
      song,
      { ...sound, calls: [{ device: 'device:s', memory: 'slots', slot: 5, in: { song: 'song:one' } }] },
    ]);
    expect(first(calls).stored).toEqual([]);
  });
});
