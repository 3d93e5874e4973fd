import { often } from '../../../testing/often.js';
import { hurrying, losing, replayTroubles, walkAstray } from '../../../testing/mishaps.js';
import { Random } from '../../../testing/random.js';
import { randomRig } from '../../../testing/random-rig.js';
import { SMALL, smallRig } from '../../../testing/small-rig.js';
import { proveRig, type Proved } from '../../../testing/walk.js';
import type { Act } from '../../rig/act.js';
import type { Device } from '../../rig/device.js';
import type { Program } from '../../rig/program.js';
import { partOf, type Part, type Rig } from '../../rig/rig.js';
import type { Move } from '../../rig/sound.js';
import { setUpBench, takeStep } from '../../derive/play/play.js';
import { sayFootsteps, stepText } from '../words/words.js';
import type { Mishap, Reply } from './question.js';
import { neverHealed, QUESTIONS, whatIf } from './what-if.js';

const ask = (about: Mishap, proved: Proved): Reply =>
  whatIf(about, proved.compilation, proved.modelled, proved.verdicts);
const proveSmall = (rig: Rig): Proved => proveRig(rig, partOf(rig, SMALL)!);

const boxes = { g: 'single-coil', c: 'midi-controller', d: 'stereo-delay', w: 'powered-speaker' };
const leads = ['g.out>d.in-l', 'd.out-l>w.in', 'c.midi-out>d.midi-in'];
const device =
  (id: string, change: (d: Device) => Device) =>
  (part: Part): Part =>
    part.kind === 'device' && part.id === `device:${id}` ? change(part) : part;
const called = (part: Part): Part =>
  part.kind === 'sound' ? { ...part, calls: [{ device: 'device:c', memory: 'slots', slot: part.at - 1 }] } : part;
const rigWith = (
  sounds: Readonly<Record<string, readonly string[]>>,
  more: readonly Part[] = [],
  ...changes: readonly ((part: Part) => Part)[]
): Rig => {
  const made = smallRig({
    boxes,
    leads,
    sounds,
    with: (part) => changes.reduce((p, change) => change(p), called(part)),
  });
  const { program, move } = made.parts;
  return {
    ...made,
    parts: {
      ...made.parts,
      program: new Map([...program, ...more.flatMap((p) => (p.kind === 'program' ? [[p.id, p] as const] : []))]),
      move: new Map([...move, ...more.flatMap((p) => (p.kind === 'move' ? [[p.id, p] as const] : []))]),
    },
  };
};
/** Nothing goes wrong on its own. */
const CALM = { moves: false, feet: false, powerCycle: false };
const SOUNDS = { Verse: ['d.delay', 'd.program=3'], Chorus: ['d.delay', 'd.program=7'] };
/** What the delay holds, so that a program change says it all. */
const HELD = [3, 7].map((number): Program => ({
  kind: 'program',
  id: `program:d-${number}`,
  device: 'device:d',
  memory: 'programs',
  number,
  name: `Echo ${number}`,
  contents: { on: 'on', mix: 30 },
  acts: [],
  assigns: [],
}));
const told = (proved: Proved, { question, troubles }: Reply) =>
  troubles.map((t) => {
    const [want] = t.wants;
    return sayFootsteps(
      proved.compilation.bearings.rig,
      { system: t.system, steps: question.steps },
      want!.example(),
      want!.variable as 'device:d.on',
    ).map((s) => s.text);
  });

describe('hasty feet', () => {
  test('a second stomp while the delay loads is missed; the wait is its load gap, told as the longest time', () => {
    const proved = proveSmall(rigWith(SOUNDS, HELD));
    const reply = ask('hasty feet', proved);
    expect(reply.troubles.map((t) => [t.sound, t.waitMs])).toEqual([
      ['sound:verse', 120],
      ['sound:chorus', 120],
    ]);
    expect(told(proved, reply)[0]).toEqual(['Power up', 'Stomp Chorus, 1B', 'Stomp Verse, 1A, less than 120 ms later']);
  });
  test('a box that keeps messages while it loads needs no wait', () => {
    const proved = proveSmall(
      rigWith(
        SOUNDS,
        HELD,
        device('d', (d) => ({ ...d, midi: { ...d.midi!, messages: 'queued' } })),
      ),
    );
    expect(ask('hasty feet', proved)).toMatchObject({ judged: 0, troubles: [] });
  });
  test('one that lets the controller wait for it before its slot is done needs none either: the next stomp stands behind it on the wire', () => {
    const proved = proveSmall(
      rigWith({ Verse: ['d.delay', 'd.program=3', 'd.mix=40'], Chorus: ['d.delay', 'd.program=7', 'd.mix=50'] }),
    );
    expect(ask('hasty feet', proved).troubles).toEqual([]);
  });
});

describe('a lost message', () => {
  const pc = (program: number): Act => ({ send: { pc: program, channel: 3 }, at: 'midi-out' });
  const cc = (value: number): Act => ({ send: { cc: 102, value, channel: 3 }, at: 'midi-out', afterMs: 120 });
  const typed = (number: number, acts: readonly Act[]): Program => ({
    kind: 'program',
    id: `program:c-${number}`,
    device: 'device:c',
    memory: 'slots',
    number,
    name: `Slot ${number}`,
    contents: {},
    acts,
    assigns: [],
  });
  test('the next stomp brings the sound back, because every slot says all', () => {
    expect(ask('lost message', proveSmall(rigWith(SOUNDS)))).toMatchObject({ judged: 2, troubles: [], undecided: [] });
  });
  test('a slot that leaves to another what it needs stays wrong, however often it is stomped', () => {
    const still = device('d', (d) => ({
      ...d,
      controls: d.controls.map((x) => (x.id === 'on' ? { ...x, powerUp: { at: 'on' as const } } : x)),
      memories: d.memories.map((m) => ({ ...m, stores: [] })),
      actuators: d.actuators.filter((a) => !('foot' in a.by)),
    }));
    const proved = proveSmall(
      rigWith(
        { Verse: ['d.delay'], Chorus: ['d.delay'] },
        [typed(0, [pc(3), cc(0), cc(127)]), typed(1, [pc(7)])],
        still,
      ),
    );
    expect([...proved.verdicts.values()].map((v) => v.is)).toEqual(['proved', 'proved']);
    const reply = ask('lost message', proved);
    expect(reply.troubles.map((t) => [t.sound, t.wants.map((w) => w.variable)])).toEqual([
      ['sound:chorus', ['device:d.on']],
    ]);
    expect(told(proved, reply)).toEqual([['Power up', 'Stomp Verse, 1A; message 3 of C is lost', 'Stomp Chorus, 1B']]);
    expect([...neverHealed(reply, proved.verdicts)]).toEqual(['sound:chorus']);
    expect(replayTroubles(proved, reply)).toEqual({ played: 1, right: [] });
  });
});

describe('a lost message of a move', () => {
  const lift: Move = {
    kind: 'move',
    id: 'move:lift',
    name: 'Lift',
    sounds: 'all',
    latch: true,
    at: [{ device: 'device:c', switch: 'E' }],
    on: [
      { control: 'device:d.mix', is: 80 },
      { stage: 'device:d.delay', is: 'in' },
    ],
    off: [],
  };
  test('is reckoned with place by place, and said in words', () => {
    const proved = proveSmall(rigWith(SOUNDS, [lift, ...HELD]));
    const { question } = ask('lost message', proved);
    const lost = [...question.steps].filter(([, s]) => s.does === 'stomp' && s.loses !== undefined);
    expect(lost.map(([id]) => id)).toEqual(['lost:stomp:device:c.E:0', 'lost:stomp:device:c.E:1']);
    expect(lost.map(([, s]) => stepText(proved.compilation.bearings.rig, s))).toEqual([
      'Stomp Lift; message 1 of C is lost',
      'Stomp Lift; message 2 of C is lost',
    ]);
  });
  test('on the bench it takes its time and does nothing, and the next press is whole again', () => {
    const proved = proveSmall(rigWith(SOUNDS, [lift, ...HELD]));
    const bench = setUpBench(proved, {});
    takeStep(proved, bench, { does: 'recall', sound: 'sound:verse' });
    takeStep(proved, bench, { does: 'stomp', device: 'device:c', switch: 'E', loses: 0 });
    expect(bench.value('device:d.mix')).not.toBe(80);
    takeStep(proved, bench, { does: 'stomp', device: 'device:c', switch: 'E', loses: 9 });
    takeStep(proved, bench, { does: 'stomp', device: 'device:c', switch: 'E' });
    expect(bench.value('device:d.mix')).toBe(80);
  });
  test('where moves are not reckoned with, neither are their messages', () => {
    const rig = rigWith(SOUNDS, [lift, ...HELD]);
    const none = proveRig(rig, { ...partOf(rig, SMALL)!, admits: { moves: false, feet: true, powerCycle: true } });
    expect([...ask('lost message', none).question.steps.keys()].filter((id) => id.startsWith('lost:stomp'))).toEqual(
      [],
    );
  });
});

describe('a move', () => {
  const move = (latch: boolean, more: Partial<Move> = {}): Move => ({
    kind: 'move',
    id: 'move:lift',
    name: 'Lift',
    sounds: 'all',
    latch,
    at: [{ device: 'device:c', switch: 'A' }],
    on: [{ control: 'device:d.mix', is: 80 }],
    off: [],
    ...more,
  });
  const [place] = partOf(rigWith(SOUNDS), 'device:c')!.memories[0]!.assignable!;
  const at = [{ device: 'device:c' as const, switch: place!.switch }];
  const sounds = { Verse: ['d.delay', 'd.program=3', 'd.mix=40'], Chorus: ['d.delay', 'd.program=7', 'd.mix=50'] };
  test('pressed after a recall it gives its on list, let go what the sound wants', () => {
    const proved = proveSmall(rigWith(sounds, [move(false, { at })]));
    expect(ask('first press', proved)).toMatchObject({ judged: 4, troubles: [] });
    expect(ask('late release', proved)).toMatchObject({ judged: 2, troubles: [] });
  });
  test('an off list that gives another value than the sound wants spoils the sound when it is let go late', () => {
    const proved = proveSmall(rigWith(sounds, [move(false, { at, off: [{ control: 'device:d.mix', is: 20 }] })]));
    const reply = ask('late release', proved);
    expect(reply.troubles.map((t) => [t.sound, t.move])).toEqual([
      ['sound:verse', 'move:lift'],
      ['sound:chorus', 'move:lift'],
    ]);
    expect(told(proved, reply)[0]!.slice(1)).toEqual(['Press Lift', 'Stomp Verse, 1A, then let go of Lift']);
  });
  test('is asked about also where the usual proof does not reckon with moves', () => {
    const rig = rigWith(sounds, [move(false, { at, off: [{ control: 'device:d.mix', is: 20 }] })]);
    const calm = proveRig(rig, { ...partOf(rig, SMALL)!, admits: CALM });
    for (const about of ['late release', 'first press'] as const)
      expect(ask(about, calm).troubles.map((t) => t.id)).toEqual(ask(about, proveSmall(rig)).troubles.map((t) => t.id));
    expect(ask('late release', calm).troubles).toHaveLength(2);
  });
  test('a latch that a load leaves on gives its off list at the first press', () => {
    const keeps = {
      kind: 'program' as const,
      id: 'program:c-0' as const,
      device: 'device:c' as const,
      memory: 'slots',
      number: 0,
      name: 'Verse',
      contents: {},
      acts: [{ send: { pc: 3, channel: 3 }, at: 'midi-out' }],
      assigns: [
        {
          switch: place!.switch,
          latch: true,
          on: [{ send: { cc: 20, value: 102, channel: 3 }, at: 'midi-out' }],
          off: [],
          afterLoad: 'on' as const,
        },
      ],
    };
    const proved = proveSmall(rigWith({ Verse: ['d.delay', 'd.program=3'] }, [move(true, { at }), keeps]));
    expect(ask('first press', proved).troubles.map((t) => [t.sound, t.move, t.press])).toContainEqual([
      'sound:verse',
      'move:lift',
      'first',
    ]);
  });
});

test('a knob that a recall brings back is right; one that it leaves alone is told', () => {
  const proved = proveSmall(
    rigWith({ Verse: ['d.delay', 'd.mix=40'], Chorus: ['d.delay', 'd.mix=50'], Plain: ['d.delay'] }),
  );
  expect(ask('turned knob', proved).troubles).toEqual([]);
  const bare = proveSmall(
    rigWith(
      { Verse: ['d.delay', 'd.mix=40'] },
      [
        {
          kind: 'program',
          id: 'program:c-0',
          device: 'device:c',
          memory: 'slots',
          number: 0,
          name: 'Verse',
          contents: {},
          acts: [{ send: { cc: 102, value: 127, channel: 3 }, at: 'midi-out' }],
          assigns: [],
        },
      ],
      device('d', (d) => ({
        ...d,
        controls: d.controls.map((x) => (x.id === 'mix' ? { ...x, powerUp: { at: 40 } } : x)),
        memories: d.memories.map((m) => ({ ...m, stores: [] })),
      })),
    ),
  );
  const reply = ask('turned knob', bare);
  expect(reply.troubles.map((t) => [t.sound, t.wants.map((w) => w.variable)])).toEqual([
    ['sound:verse', ['device:d.mix']],
  ]);
  expect(replayTroubles(bare, reply)).toEqual({ played: 1, right: [] });
});

describe('against the bench, on random rigs', () => {
  const rigs = Array.from({ length: often(60) }, (_, i) => {
    const { rig, hookup } = randomRig(i + 1);
    return proveRig(rig, hookup);
  });
  const replies = (about: Mishap) => rigs.map((proved) => [proved, ask(about, proved)] as const);

  test.each(['late release', 'first press', 'turned knob'] as const)(
    '%s: everything that is told ends wrong there',
    (about) => {
      const played = replies(about).map(([proved, reply]) => replayTroubles(proved, reply));
      expect(played.flatMap((p) => p.right)).toEqual([]);
      expect(played.reduce((n, p) => n + p.played, 0)).toBeGreaterThanOrEqual(10);
    },
  );
  test('all can be asked also where the usual proof reckons with nothing but stomps, and what is told of presses and knobs ends wrong there', () => {
    let played = 0;
    for (let i = 0; i < 120; i += 1) {
      const { rig, hookup } = randomRig(i + 1);
      const calm = proveRig(rig, { ...hookup, admits: CALM });
      for (const { about } of QUESTIONS) {
        const reply = ask(about, calm);
        if (about === 'hasty feet' || about === 'lost message') continue;
        const replayed = replayTroubles(calm, reply);
        expect(replayed.right).toEqual([]);
        played += replayed.played;
      }
    }
    expect(played).toBeGreaterThanOrEqual(10);
  });
  test('hasty feet: nearly all that is told ends wrong there, and nothing does that waited as long as it was told', () => {
    const all = replies('hasty feet');
    const played = all.map(([proved, reply]) => replayTroubles(proved, reply));
    const count = played.reduce((n, p) => n + p.played, 0);
    expect(count).toBeGreaterThan(40);
    // Where a slot tells one box two programs, how long it loads depends on what was loaded; the longer time is
    // reckoned with.
    expect(played.reduce((n, p) => n + p.right.length, 0)).toBeLessThan(count / 50);
    const wrong = all.flatMap(([proved, reply], i) => walkAstray(proved, reply, new Random(i), 40, hurrying(reply)));
    expect(wrong).toEqual([]);
  });
  test('lost messages: what is proved to heal at the next stomp does', () => {
    expect(
      replies('lost message').flatMap(([proved, reply], i) =>
        walkAstray(proved, reply, new Random(i), 60, losing(reply)),
      ),
    ).toEqual([]);
  });
  test('every question is asked in its turn and judges what it is about', () => {
    expect(QUESTIONS.map((q) => q.about)).toEqual([
      'late release',
      'first press',
      'hasty feet',
      'lost message',
      'turned knob',
    ]);
    for (const { about } of QUESTIONS) expect(replies(about).some(([, r]) => r.judged > 0)).toBe(true);
  });
});
