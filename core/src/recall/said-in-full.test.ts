import { SMALL, smallRig, type SmallRig } from '../../testing/small-rig.js';
import { deriveOnce, type Derived } from '../derive/deriver.js';
import type { Device } from '../rig/device.js';
import type { Song } from '../rig/show.js';
import { rigOf, everyPart, type Part } from '../rig/rig.js';
import type { Sound } from '../rig/sound.js';

const BOXES: SmallRig['boxes'] = { g: 'single-coil', s: 'switcher-4', d: 'stereo-delay', p: 'powered-speaker' };
const LEADS = ['g.out>s.in', 's.out>d.in-l', 'd.out-l>p.in', 's.midi-out>d.midi-in'];
const called = (part: Part): Part => (part.kind === 'sound' ? { ...part, calls: [{ device: 'device:s', memory: 'slots', slot: part.at - 1 }] } : part);
const delay = (change: (d: Device) => Device) => (part: Part): Part => (part.kind === 'device' && part.id === 'device:d' ? change(part) : called(part));
const of = (rig: SmallRig, more: readonly Part[] = []): Derived => deriveOnce(more.length ? rigOf([...everyPart(smallRig(rig)), ...more]) : smallRig(rig), SMALL)!;
const first = (d: Derived) => [...d.compilation.sounds.values()][0]!;
const wanted = (d: Derived, control: string) => first(d).wants.find((w) => w.control === `device:d.${control}`)?.value;

/** The delay sounds as soon as its mix is not zero: in over a range, with a message that sets it. */
const byMix = delay((d) => ({
  ...d,
  chains: d.chains.map((c) => ({ ...c, slots: c.slots.map((s) => (s.is === 'block' ? { ...s, on: [{ control: 'mix', from: 1, to: 100 }] } : s)) })),
  actuators: [...d.actuators, { id: 'mix cc', by: { midi: 'cc' as const, number: 40 }, acts: [{ control: 'mix', scale: [0, 100] as const }] }],
}));

describe('a stage that is in over a range', () => {
  test('keeps the value that the sheet says', () => expect(wanted(of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay', 'd.mix=37'] }, with: byMix }), 'mix')).toBe(37));
  test('keeps the value that the called program holds', () => {
    const program: Part = { kind: 'program', id: 'program:d-3', device: 'device:d', memory: 'programs', number: 3, name: 'Wide', contents: { on: 'on', mix: 42 }, acts: [], assigns: [] };
    const memory = (smallRig({ boxes: BOXES, leads: LEADS }).parts.device.get('device:d') as Device).memories[0]!.id;
    expect(wanted(of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay', 'd.program=3'] }, with: byMix }, [{ ...program, memory }]), 'mix')).toBe(42);
  });
  test('is never set to the lowest value unasked', () => expect(wanted(of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay'] }, with: byMix }), 'mix')).toBe(51));
});

test('a control change that can only turn on does not turn off: what it does not bring is left to a foot', () => {
  const oneWay = delay((d) => ({ ...d, actuators: d.actuators.filter((a) => !('midi' in a.by) || a.by.midi !== 'cc').concat({ id: 'only on', by: { midi: 'cc', number: 41 }, acts: [{ control: 'on', set: 'on' }] }) }));
  const d = of({ boxes: BOXES, leads: LEADS, sounds: { Lead: ['d.delay'], Clean: [] }, with: oneWay });
  const [lead, clean] = [...d.compilation.sounds.values()];
  expect(lead!.hand.map((h) => h.control)).not.toContain('device:d.on');
  expect(lead!.stored[0]!.program.acts).toContainEqual(expect.objectContaining({ send: expect.objectContaining({ cc: 41 }) }));
  expect(clean!.hand.map((h) => h.control)).toContain('device:d.on');
});

describe('what a sound says for a case', () => {
  const song: Song = { kind: 'song', id: 'song:one', title: 'Harbour lights', cues: [] };
  const saying = (wants: Sound['wants'], calls?: Sound['calls']) => (part: Part): Part => {
    const with_ = called(part);
    return with_.kind === 'sound' ? { ...with_, wants: [...with_.wants, ...wants], calls: calls ?? with_.calls } : with_;
  };
  const granted = { boxes: { ...BOXES, k: 'humbucker', a: 'ab-in' }, sounds: { Lead: ['d.delay', 'd.program=3'] } };
  const one = ['g.out>s.in', ...LEADS.slice(1)];
  const both = ['g.out>a.a', 'k.out>a.b', 'a.out>s.in', ...LEADS.slice(1)];
  test('with the only instrument that is plugged in, it counts', () => {
    const d = of({ ...granted, leads: one, with: saying([{ control: 'device:d.mix', is: 20 }, { control: 'device:d.mix', is: 60, in: { instrument: 'device:g' } }]) });
    expect(wanted(d, 'mix')).toBe(60);
  });
  test('with an instrument that is not plugged in, it does not count and is no question', () => {
    const d = of({ ...granted, leads: one, with: saying([{ control: 'device:d.mix', is: 20 }, { control: 'device:d.mix', is: 60, in: { instrument: 'device:k' } }]) });
    expect([wanted(d, 'mix'), d.answers.get('sound:lead')!.is === 'undecided']).toEqual([20, false]);
  });
  test('with one of two instruments that are plugged in: not decided, and it says why', () => {
    const d = of({ ...granted, leads: both, with: saying([{ control: 'device:d.mix', is: 20 }, { control: 'device:d.mix', is: 60, in: { instrument: 'device:k' } }]) });
    const { is, proof } = d.answers.get('sound:lead')!;
    expect([is, proof.is === 'undecided' && proof.because]).toEqual(['undecided', expect.stringContaining('with “Humbucker guitar”')]);
    expect(d.judgement.findings.map((f) => f.code)).toContain('recall.undecided');
  });
  test('in a song: not decided; and a call in a song does not call it in every other', () => {
    const plain: SmallRig = { ...granted, leads: one, with: called };
    const sound = smallRig(plain).parts.sound.get('sound:lead')!;
    const wants = of(plain, [song, saying([{ control: 'device:d.mix', is: 60, in: { song: 'song:one' } }])(sound)]);
    expect(wants.answers.get('sound:lead')).toMatchObject({ is: 'undecided', proof: { because: expect.stringContaining('in the song “Harbour lights”') } });
    const calls = of(plain, [song, { ...sound, calls: [{ device: 'device:s', memory: 'slots', slot: 5, in: { song: 'song:one' } }] }]);
    expect(first(calls).stored).toEqual([]);
  });
});
