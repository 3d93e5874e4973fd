import { after, notGranted, withParts } from '../../../testing/after.js';
import { Random } from '../../../testing/random.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { replayAll, walk } from '../../../testing/walk.js';
import { BALLROOM_ID, FERRY_ID, islandRun } from '../../demo/island-run.js';
import { deriveOnce } from '../../derive/steps/deriver.js';
import { viewOf } from '../../derive/views/view.js';
import type { Id } from '../../rig/ids.js';
import { makeDevice } from '../../catalogue/make.js';
import { DEMO_RIGS } from '../../demo/rigs.js';
import { all, partOf, soundsInOrder, type Part, type Rig } from '../../rig/rig.js';
import { headline, limbsOf, verdictText } from '../words/verdict-words.js';
import { tally } from './sound-verdict.js';

const demo = islandRun();
const without = (...remove: Part['id'][]): Rig => after(demo, { put: [], remove });
const seen = (rig: Rig, hookup: Id<'hookup'> = BALLROOM_ID) => viewOf(deriveOnce(rig, hookup)!);
const verdictsIn = (rig: Rig, hookup: Id<'hookup'> = BALLROOM_ID) => seen(rig, hookup).sounds.map((s) => s.verdict);
const codes = (rig: Rig, hookup: Id<'hookup'> = BALLROOM_ID) =>
  deriveOnce(rig, hookup)!.judgement.findings.map((f) => f.code);

describe('cannot sound', () => {
  test('a hook-up without a single cable is never green', () => {
    const bare = after(demo, { put: [], remove: all(demo, 'cable').map((c) => c.id) });
    const view = seen(bare);
    expect(view.sounds.every((s) => s.verdict === 'cannot sound')).toBe(true);
    expect(headline(view.tally, view.limbs)).toBe('0 of 16 come back. 16 cannot sound.');
    expect(view.sounds[0]!.because).toContain('No instrument is plugged in.');
  });
  test('a pulled plug on the way to a stage: what is missing, and how far the signal comes', () => {
    const rig = after(demo, { put: [], remove: ['cable:b20'] });
    const lead = seen(rig).sounds.filter((s) => s.verdict === 'cannot sound');
    expect(lead.length).toBeGreaterThan(0);
    expect(lead[0]!.because).toMatch(/(not heard at|does not meet)/);
  });
  test('a drive whose plug is out, while everything else sounds: the stage is named, and the finding says it once', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', d: 'low-drive', p: 'powered-speaker' },
      leads: ['g.out>p.in'],
      sounds: { Crunch: [`d.${stageOf('low-drive')}`] },
    });
    const view = seen(rig, SMALL);
    expect(view.sounds[0]).toMatchObject({ verdict: 'cannot sound' });
    expect(view.sounds[0]!.because).toContain('has no cable here');
    expect(codes(rig, SMALL).filter((c) => c === 'wire.unmet-stage')).toHaveLength(1);
  });
  test('a return that is pulled: how far the signal comes is said by the box, wherever in it that is', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', s: 'switcher-4', d: 'low-drive', p: 'powered-speaker' },
      leads: ['g.out>s.in', 's.send1>d.in', 's.out>p.in'],
      sounds: { Crunch: [`d.${stageOf('low-drive')}`] },
    });
    expect(seen(rig, SMALL).sounds[0]!.because).toMatch(
      /^The signal does not meet Low-gain drive\. .* Four-loop switcher/,
    );
  });
  test('a box that stays at home in this hook-up, and is wired in another, is not missed', () => {
    expect(verdictsIn(demo, FERRY_ID).filter((v) => v === 'cannot sound')).toEqual([]);
    expect(verdictsIn(demo).filter((v) => v === 'cannot sound')).toEqual([]);
  });
  test('what a sound wants against what is taken for granted is said', () => {
    const rig = withParts(demo, {
      ...partOf(demo, 'sound:01')!,
      wants: [...partOf(demo, 'sound:01')!.wants, { control: 'device:ofz.on', is: 'off' }],
    });
    expect(seen(rig).sounds[0]).toMatchObject({
      verdict: 'cannot sound',
      because: expect.stringContaining('takes for granted') as string,
    });
  });
});

const stageOf = (key: string): string =>
  [...smallRig({ boxes: { x: key }, leads: [] }).parts.device.values()][0]!.chains.flatMap((c) => c.slots)[0]!.id;

describe('left to hands', () => {
  test('a sound that nothing calls is always left to hands, and found', () => {
    const [{ make }] = DEMO_RIGS.slice(-1) as [(typeof DEMO_RIGS)[number]];
    const solo = make();
    const rig = withParts(solo, { ...soundsInOrder(solo)[0]!, calls: [] });
    const hookup = all(rig, 'hookup')[0]!.id;
    const view = seen(rig, hookup);
    expect([view.sounds[0]!.verdict, view.sounds[0]!.isCalled]).toEqual(['left to hands', false]);
    expect(verdictText(view.sounds[0]!)).toContain('nothing calls it');
    expect(codes(rig, hookup)).toContain('recall.uncalled');
    expect(codes(demo)).not.toContain('recall.uncalled');
  });
  test('what a foot can move and nothing brings back is a thing to do, counted per sound and told apart', () => {
    const view = seen(notGranted(demo, 'device:cmp.on', 'device:tun.mute'));
    const first = view.sounds[0]!;
    expect([first.verdict, first.byFoot, first.byHand]).toEqual(['left to hands', ['CMP on/off to on'], []]);
    expect(verdictText(first)).toBe('comes back with 1 by foot');
    expect(view.limbs).toBe('foot');
    expect(headline(view.tally, view.limbs)).toBe('4 of 16 come back. 10 with your foot. 2 can come back wrong.');
  });
  test('plain pedals without a controller: every pair of sounds says what the foot has to hit', () => {
    const rig = smallRig({
      boxes: { g: 'single-coil', a: 'low-drive', b: 'chorus', p: 'powered-speaker' },
      leads: ['g.out>a.in', 'a.out>b.in', 'b.out>p.in'],
      sounds: {
        Clean: [],
        Crunch: [`a.${stageOf('low-drive')}`],
        Wide: [`a.${stageOf('low-drive')}`, `b.${stageOf('chorus')}`],
      },
    });
    const d = deriveOnce(rig, SMALL)!;
    expect([...d.answers.values()].map((a) => a.is)).toEqual(['left to hands', 'left to hands', 'left to hands']);
    expect(d.judgement.findings.find((f) => f.code === 'recall.uncalled')?.why).not.toContain('could call');
  });
});

test('two sounds that fill one slot with different contents', () => {
  const [one, two] = [partOf(demo, 'sound:01')!, partOf(demo, 'sound:04')!];
  const more = { device: 'device:mfc' as const, memory: 'slots' };
  const clash = withParts(
    demo,
    makeDevice('midi-controller', 'device:mfc'),
    { ...one, calls: [...one.calls, { ...more, slot: 1 }] },
    { ...two, calls: [...one.calls, { ...more, slot: 2 }] },
  );
  const found = deriveOnce(clash, BALLROOM_ID)!.judgement.findings.filter((f) => f.code === 'recall.slot-clash');
  expect(found.map((f) => f.evidence)).toEqual([['device:swi', 'sound:01', 'sound:04']]);
  expect(codes(demo)).not.toContain('recall.slot-clash');
});

test('the worst that holds is told, and the headline counts each once', () => {
  const view = seen(without('cable:b25'));
  expect(new Set(view.sounds.map((s) => s.verdict))).toEqual(new Set(['cannot sound']));
  expect(
    headline({ sounds: 16, proved: 9, 'left to hands': 4, broken: 2, undecided: 0, 'cannot sound': 1 }, 'foot'),
  ).toBe('9 of 16 come back. 4 with your foot. 2 can come back wrong. 1 cannot sound.');
  const d = deriveOnce(demo, BALLROOM_ID)!;
  expect(tally(d.answers)).toEqual({
    sounds: 16,
    proved: 14,
    'left to hands': 0,
    broken: 2,
    undecided: 0,
    'cannot sound': 0,
  });
  expect(limbsOf(d.answers.values())).toBe('foot or hand');
});

describe('a program that somebody chooses on the box itself', () => {
  const held = (number: number, mix: number): Part => ({
    kind: 'program',
    id: `program:d-${number}`,
    device: 'device:d',
    memory: 'programs',
    number,
    name: `No ${number}`,
    contents: { on: 'on', mix },
    acts: [],
    assigns: [],
  });
  const rig = (...programs: readonly Part[]): Rig =>
    withParts(
      smallRig({
        boxes: { g: 'single-coil', d: 'stereo-delay', p: 'powered-speaker' },
        leads: ['g.out>d.in-l', 'd.out-l>p.in'],
        sounds: { Near: ['d.delay', 'd.program=3', 'd.mix=20'], Far: ['d.delay', 'd.program=4', 'd.mix=60'] },
      }),
      ...programs,
    );
  test('brings all that it holds, and counts as one move', () => {
    const made = rig(held(3, 20), held(4, 60));
    const d = deriveOnce(made, SMALL)!;
    const [near] = viewOf(d).sounds;
    expect([near!.verdict, near!.byFoot, near!.byHand]).toEqual([
      'left to hands',
      [],
      [expect.stringMatching(/^D program to /)],
    ]);
    expect(d.modelled.system.events.find((e) => e.id === 'recall:sound:near')!.acts).toContainEqual(
      expect.objectContaining({ variable: 'device:d.mix', set: '20' }),
    );
    expect([walk(d, new Random(1), 400).contradictions, replayAll(d).contradictions]).toEqual([[], []]);
  });
  test('is chosen before the stomp, and said so: what the stomp sends would be undone by it', () => {
    const made = withParts(
      smallRig({
        boxes: { g: 'single-coil', s: 'switcher-4', d: 'stereo-delay', p: 'powered-speaker' },
        leads: ['g.out>s.in', 's.out>d.in-l', 'd.out-l>p.in'],
        sounds: { Near: ['d.delay', 'd.program=3'], Far: ['d.delay', 'd.program=4'] },
        with: (part) =>
          part.kind === 'sound'
            ? { ...part, calls: [{ device: 'device:s', memory: 'slots', slot: part.at - 1 }] }
            : part,
      }),
      held(3, 20),
      held(4, 60),
    );
    expect(viewOf(deriveOnce(made, SMALL)!).sounds.map((s) => s.byHand)).toEqual([
      [expect.stringMatching(/^D program to \S+, before the stomp$/)],
      [expect.stringMatching(/, before the stomp$/)],
    ]);
  });
  test('what it holds otherwise than the sound wants is a move of its own', () => {
    const [near] = viewOf(deriveOnce(rig(held(3, 55), held(4, 60)), SMALL)!).sounds;
    expect([near!.verdict, near!.byHand]).toEqual([
      'left to hands',
      [expect.stringMatching(/^D program to /), 'D mix to 20 %'],
    ]);
  });
});
