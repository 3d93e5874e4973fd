import { often } from '../../testing/often.js';
import { stagesOf } from '../edits/wire.js';
import type { Stage } from '../rig/device.js';
import { line } from '../../testing/run-line.js';
import { apply } from '../change/apply.js';
import { deriveOnce, type Derived } from '../derive/steps/deriver.js';
import { soundRun } from '../derive/views/view.js';
import { DEMO_RIGS } from '../demo/rigs.js';
import { addDevice } from '../edits/devices.js';
import type { Id } from '../rig/ids.js';
import { splitRef } from '../rig/ids.js';
import { signalCables } from '../rig/box.js';
import { all, newRig, rigOf, soundsInOrder, type Rig } from '../rig/rig.js';
import { ringsOf } from '../signal/graph/trace.js';
import { after } from '../../testing/after.js';
import { carryOutStart, planStart, type StartAnswers, type StartPlan } from './plan.js';
import { STARTING_POINTS } from './points.js';
import { type StartingPoint } from './questions.js';

/** Every answer to every question; the tuner stands elsewhere with the first and with the last answers to the others. */
const everyAnswer = ({ questions }: StartingPoint): readonly StartAnswers[] => {
  const others = questions.filter((q) => q.id !== 'tuner');
  const all = others.reduce<readonly StartAnswers[]>(
    (some, q) => some.flatMap((a) => q.choices.map((c) => ({ ...a, [q.id]: c.value }))),
    [{}],
  );
  const elsewhere = questions.find((q) => q.id === 'tuner')?.choices.slice(1) ?? [];
  return [...all, ...elsewhere.flatMap((c) => [all[0]!, all.at(-1)!].map((a) => ({ ...a, tuner: c.value })))];
};
/** Who asks for a tuner that mutes nothing is told so, and has it. */
const isTunedAloud = ({ tuner }: StartAnswers): boolean => tuner === 'tap' || tuner === 'none';
const point = (key: string): StartingPoint => STARTING_POINTS.find((p) => p.key === key)!;
const planned = (rig: Rig, p: StartingPoint, answers: StartAnswers = {}): StartPlan =>
  planStart(rig, p, answers, (n) => `device:new-${n}`);
const started = (rig: Rig, plan: StartPlan): Derived => {
  const hookup = all(rig, 'hookup')[0]!.id;
  const built = apply(rig, carryOutStart(rig, hookup, plan, { cable: (n) => `cable:new-${n}`, sound: 'sound:first' }));
  if (!built.ok) throw new Error(`${plan.point.key}: ${JSON.stringify(built.error[0])}`);
  return deriveOnce(built.value.rig, hookup)!;
};
const grave = (d: Derived) =>
  d.judgement.findings
    .filter((f) => f.severity === 'broken' || f.severity === 'danger')
    .map((f) => `${f.code}: ${f.why}`);
const kitOf = (...keys: readonly string[]): Rig =>
  keys.reduce((rig, key, i) => after(rig, addDevice(rig, key, `device:k${i}`)), newRig('Kit'));
const EMPTY = newRig('Nothing yet');

test('there are eleven, each with its own name, each asks at most six questions', () => {
  expect(STARTING_POINTS).toHaveLength(11);
  expect(new Set(STARTING_POINTS.map((p) => p.name)).size).toBe(11);
  for (const { questions } of STARTING_POINTS) {
    expect(questions.length).toBeLessThanOrEqual(6);
    for (const { choices } of questions) expect(choices.length).toBeGreaterThan(1);
  }
});

/** The boxes of a demo rig without its sounds and cables: a kit as somebody has it who begins. */
const boxesOf = (rig: Rig): Rig =>
  rigOf([...newRig('Kit').parts.about.values(), ...newRig('Kit').parts.hookup.values(), ...all(rig, 'device')]);
const KITS: readonly (readonly [string, Rig])[] = [
  ['nothing', EMPTY],
  ...DEMO_RIGS.map((r) => [`the boxes of ${r.id}`, boxesOf(r.make())] as const),
];

describe.each(KITS)('starting points pass their own judgement, from %s', (_, rig) => {
  test.each(STARTING_POINTS.map((p) => [p.key, p] as const))(
    '%s: whatever is answered, nothing but its supply is found above a note, and what can call calls',
    (_, p) => {
      // With nothing in the kit every answer is tried; with boxes one in three, another one for each kit.
      const share = rig === EMPTY ? 1 : often(1) > 1 ? 1 : 3;
      const own = KITS.findIndex(([, kit]) => kit === rig);
      for (const answers of everyAnswer(p).filter((_, i) => i % share === own % share)) {
        const plan = planned(rig, p, answers);
        const d = started(rig, plan);
        expect({
          answers,
          found: d.judgement.findings
            .filter((f) => f.severity !== 'note' && !f.code.startsWith('supply.'))
            .filter((f) => !(isTunedAloud(answers) && f.code === 'order.tuner-mute'))
            .map((f) => `${f.code}: ${f.why}`),
          faults: d.judgement.faults,
        }).toEqual({ answers, found: [], faults: [] });
        const callers = [...plan.used, ...plan.got].filter(({ device }) =>
          device.memories.some((m) => m.by !== undefined),
        );
        const sound = d.compilation.sounds.get('sound:first')!;
        expect({ answers, called: sound.stored.length > 0 }).toEqual({ answers, called: callers.length > 0 });
        if (callers.length)
          expect({ answers, verdict: ['proved', 'left to hands'].includes(d.answers.get('sound:first')!.is) }).toEqual({
            answers,
            verdict: true,
          });
        if (plan.got.some(({ device }) => device.memories.some((m) => m.by === 'cue')))
          expect(plan.leads.some((l) => l.from.endsWith('.midi-out'))).toBe(true);
      }
    },
  );
});

describe.each(STARTING_POINTS.map((p) => [p.name, p] as const))('%s', (_, p) => {
  test('on an empty kit, with every answer: everything is got, wired without a finding that is broken or dangerous, and the first sound is heard', () => {
    for (const answers of everyAnswer(p)) {
      const plan = planned(EMPTY, p, answers);
      expect(plan.used).toEqual([]);
      const d = started(EMPTY, plan);
      const sound = d.compilation.sounds.get('sound:first')!;
      expect({ answers, grave: grave(d) }).toEqual({ answers, grave: [] });
      expect({ answers, heard: sound.trace.reaches.map((r) => r.end.ref) }).toEqual({
        answers,
        heard: expect.arrayContaining([expect.any(String)]),
      });
      expect({ answers, rings: ringsOf(sound.trace), problems: sound.problems }).toEqual({
        answers,
        rings: [],
        problems: [],
      });
      expect(plan.leads.every((l) => l.why.length > 5)).toBe(true);
      expect(plan.chosen.every((c) => c.choice.because.length > 5)).toBe(true);
    }
  });

  test.each(DEMO_RIGS.map((r) => [r.id, r.make()] as const))(
    'on the kit of %s: what is there is used before anything is got, no lead is in a jack twice',
    (id, rig) => {
      const plan = planned(rig, p);
      expect(id && plan.used.length).toBeGreaterThan(2);
      const jacks = plan.leads.flatMap((l) => [l.from, l.to]);
      expect(new Set(jacks).size).toBe(jacks.length);
      const hookup = all(rig, 'hookup')[0]!.id;
      expect(
        apply(rig, carryOutStart(rig, hookup, plan, { cable: (n) => `cable:new-${n}`, sound: 'sound:first' })).ok,
      ).toBe(true);
    },
  );
});

describe('paths, as one would write them down by hand', () => {
  const path = (key: string, answers: StartAnswers = {}, rig: Rig = EMPTY) => {
    const d = started(rig, planned(rig, point(key), answers));
    const codes = new Map(all(d.rig, 'device').map((x) => [x.id.slice(7), x.code] as const));
    return line(soundRun(d, 'sound:first' as Id<'sound'>)).replaceAll(/new-\d+|k\d+/g, (id) => codes.get(id)!);
  };
  test('four cables: pedals before the amp, the amp in the next loop, effects after it, back into the power amp', () =>
    expect(path('four-cable')).toBe(
      'GSC TUN VOL /CMP/ /LOW/ /HIG/ (HED) /MOD/ /DLY/ /REV/ // HED CAB →Stage:mono MCB →Front of house:mono',
    ));
  test('a volume pedal after the gain comes behind the loop of the amp', () =>
    expect(path('four-cable', { volume: 'loop', air: 'wireless', heard: 'room' })).toBe(
      'GSC WLS TUN /CMP/ /LOW/ /HIG/ (HED) /VOL/ /MOD/ /DLY/ /REV/ HED CAB →Stage:mono',
    ));
  test('front and loop: the effects stand behind the gain', () =>
    expect(path('front-and-loop', { heard: 'room' })).toBe(
      'GSC TUN [CMP] [LOW] HED VOL [CHO] [ADL] [HRV] HED CAB →Stage:mono',
    ));
  test('the school of modulation in front puts it there', () =>
    expect(path('front-and-loop', { heard: 'room', modulation: 'front', volume: 'none' })).toBe(
      'GSC TUN [CMP] [LOW] [CHO] HED [ADL] [HRV] HED CAB →Stage:mono',
    ));
  test('without an amp, with the switcher of the kit: pedals and preamp in its loops, echoes behind it, two DIs of the kit', () => {
    const kit = kitOf('single-coil', 'wireless', 'switcher-8', 'low-drive', 'stereo-delay', 'preamp-cab', 'di', 'di');
    expect(path('amp-less', {}, kit)).toBe(
      'GSC WLS TUN /LOW/ (PCB) // // // // // // [DLY] {DI | DI2} →Front of house:mono',
    );
  });
  test('two DIs side by side: one through the pedals, one clean and always there', () =>
    expect(path('two-dis', { tuner: 'none' }, kitOf('bass', 'distortion', 'chorus'))).toBe(
      'BAS SPT {[DST] [CHO] DI | SPT DI2} →Front of house:mono',
    ));
  test.each([
    ['first', 'GSC TUN [CMP] [LOW] [ADL] AMP CAB →Stage:mono'],
    ['last', 'GSC [CMP] [LOW] [ADL] TUN AMP CAB →Stage:mono'],
    ['tap', 'GSC VOL [CMP] [LOW] [ADL] AMP CAB →Stage:mono'],
    ['none', 'GSC [CMP] [LOW] [ADL] AMP CAB →Stage:mono'],
  ])('the tuner stands %s', (tuner, way) => expect(path('straight', { tuner, heard: 'room' })).toBe(way));
  test('wet and dry from the speaker line', () =>
    expect(path('wet-dry', { heard: 'room' })).toContain('{CAB →Stage:mono | '));
});

describe('the kit comes first', () => {
  test('a drive and a head of the kit are used, only the rest is got, and it is said why', () => {
    const rig = kitOf('humbucker', 'distortion', 'midi-head', 'switcher-6');
    const plan = planned(rig, point('four-cable'));
    expect(plan.used.map((u) => u.device.made).sort()).toEqual(['distortion', 'humbucker', 'midi-head', 'switcher-6']);
    expect(plan.got.map((g) => g.device.made)).toEqual(
      expect.arrayContaining(['tuner', 'volume', 'cab-212', 'cab-mic', 'desk', 'stereo-delay']),
    );
    expect(plan.got.map((g) => g.device.made)).not.toContain('low-drive');
    expect([...plan.used, ...plan.got].every((b) => b.why.length > 5)).toBe(true);
    expect(grave(started(rig, plan))).toEqual([]);
  });
  test('more pedals than loops: some share one, echoes go behind the switcher, all of it is said and heard', () => {
    const gain = ['compressor', 'low-drive', 'high-drive', 'fuzz', 'boost', 'wah'] as const;
    const rig = kitOf('single-coil', 'switcher-4', ...gain, 'stereo-delay', 'stereo-reverb');
    const plan = planned(rig, point('four-cable'), { size: 'four' });
    expect(plan.notes.filter((n) => n.startsWith('No loop is left for each of'))).toHaveLength(1);
    expect(plan.notes.filter((n) => n.includes('It goes behind the switcher')).length).toBeGreaterThan(0);
    const wired = started(rig, plan);
    const plugged = new Set(all(wired.rig, 'cable').flatMap((c) => c.ends.map((end) => splitRef(end).device)));
    for (const { device } of plan.used) expect([device.name, plugged.has(device.id)]).toEqual([device.name, true]);
    expect(grave(wired)).toEqual([]);
  });
  test('a kit with a bass and no guitar answers for itself; a person may say otherwise', () => {
    const rig = kitOf('bass', 'low-drive');
    expect(planned(rig, point('straight')).chosen[0]!.choice.value).toBe('bass');
    expect(planned(rig, point('straight'), { instrument: 'guitar' }).chosen[0]!.choice.value).toBe('guitar');
  });
  test('what no loop is left for is not to be got', () => {
    const rig = kitOf('single-coil', 'switcher-4', 'compressor', 'low-drive', 'high-drive');
    expect(planned(rig, point('four-cable'), { size: 'four' }).got.map((g) => g.device.made)).not.toContain(
      'stereo-delay',
    );
  });
  test('boxes that play no part are named', () => {
    const rig = kitOf('single-coil', 'keyboard');
    expect(planned(rig, point('straight')).leftOver.map((d) => d.made)).toEqual(['keyboard']);
  });
  test('a rig with sounds keeps them and gets no other; what was plugged is pulled', () => {
    const rig = DEMO_RIGS[0]!.make();
    const hookup = all(rig, 'hookup')[0]!.id;
    const edit = carryOutStart(rig, hookup, planned(rig, point('straight')), {
      cable: (n) => `cable:new-${n}`,
      sound: 'sound:first',
    });
    expect(edit.put.some((x) => x.kind === 'sound')).toBe(false);
    expect(edit.remove).toHaveLength(signalCables(rig, hookup).length);
    expect(soundsInOrder(after(rig, edit))).toHaveLength(16);
  });
});

test('one volume pedal and one tuner are enough, wherever both are wanted', () => {
  for (const [name, rig] of KITS)
    for (const p of STARTING_POINTS.filter(({ questions }) => questions.some((q) => q.id === 'volume')))
      for (const volume of ['front', 'loop', 'none'])
        for (const tuner of ['first', 'last', 'tap', 'none']) {
          const plan = planned(rig, p, { volume, tuner });
          const cast = [...plan.used, ...plan.got].map(({ device }) => device);
          const count = (stage: Stage) =>
            cast.filter((d) => stagesOf(d).includes(stage) && !stagesOf(d).includes('wireless')).length;
          const where = `${name}, ${p.key}: volume ${volume}, tuner ${tuner}`;
          const wanted = volume !== 'none' || (tuner === 'tap' && count('volume') > 0);
          expect([where, count('volume'), count('tuner')]).toEqual([where, wanted ? 1 : 0, tuner === 'none' ? 0 : 1]);
          expect([where, grave(started(rig, plan))]).toEqual([where, []]);
        }
});
