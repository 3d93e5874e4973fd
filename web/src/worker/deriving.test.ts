import { BALLROOM_ID, islandRun } from '@yunta/core/demo/island-run';
import { setWant } from '@yunta/core/edits/sounds';
import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import type { WayWrong } from '@yunta/core/derive/views/view';
import { ABOUT, all, everyPart, partOf, rigName } from '@yunta/core/rig/rig';
import { FAILURES } from '@yunta/core/testing/failures';
import type { WhatIfView } from '@yunta/core/derive/views/what-ifs';
import { giantRig } from '@yunta/core/testing/giant-rig';
import { Deriving } from './deriving.js';

const nothing = { put: [], remove: [] } as const;
const loaded = () => {
  const worker = new Deriving();
  worker.held.load(everyPart(islandRun()));
  return { worker, view: worker.held.update(nothing, BALLROOM_ID)! };
};

describe('what the worker answers', () => {
  test('every answer is plain data', async () => {
    const { worker, view } = loaded();
    const finding = view.findings[0]!;
    for (const answer of [
      view,
      worker.answers.run('sound:01'),
      worker.answers.run(),
      worker.answers.stored('sound:01'),
      worker.answers.remedies(finding.fingerprint),
      await worker.asking.board(),
      worker.answers.changes('sound:01', 'sound:02'),
      worker.bench.powerUp(),
      worker.answers.mishaps(),
      worker.answers.calls(),
      worker.answers.standings(),
    ]) {
      expect(structuredClone(answer)).toEqual(answer);
    }
  });
  test('the board of a very full rig is worked out in pieces, and given up when something else is derived', async () => {
    const { rig, hookup } = giantRig();
    const worker = new Deriving();
    worker.held.load(everyPart(rig));
    worker.held.update(nothing, hookup.id);
    const whole = await worker.asking.board();
    expect(whole).toHaveLength(128 * 127);
    const pending = worker.asking.board();
    worker.held.update({ put: [{ ...partOf(rig, whole[0]!.from)!, name: 'Another' }], remove: [] }, hookup.id);
    expect(await pending).toEqual([]);
  });
  test('an edit brings the copy up to date; the same edit back brings the old answer', () => {
    const { worker, view } = loaded();
    const sound = partOf(islandRun(), 'sound:03')!;
    const cured = worker.held.update(setWant(sound, { control: 'device:dly.program', is: 6 }), BALLROOM_ID)!;
    expect([view.tally.proved, cured.tally.proved]).toEqual([14, 15]);
    expect(worker.held.update({ put: [sound], remove: [] }, BALLROOM_ID)!.tally.proved).toBe(14);
  });
  test('a hook-up that is not there gives nothing, and then a right one gives all again', async () => {
    const { worker } = loaded();
    expect(worker.held.update(nothing, 'hookup:none')).toBeUndefined();
    expect([
      worker.answers.run('sound:01'),
      await worker.asking.board(),
      worker.answers.remedies('x'),
      worker.bench.powerUp(),
    ]).toEqual([[], [], [], undefined]);
    expect(worker.held.update(nothing, BALLROOM_ID)!.tally.sounds).toBe(16);
  });
  test('a counterexample played step by step ends wrong in the control that it names', () => {
    const { worker, view } = loaded();
    const wrong = view.sounds.find((s) => s.id === 'sound:03')!.shortest;
    worker.bench.powerUp(wrong!.powerUp);
    const shown = wrong!.steps.flatMap((s) => (s.event ? [worker.bench.act({ step: s.event })!] : []));
    expect(shown.at(-1)!.sound).toEqual({
      id: 'sound:03',
      name: 'Chorus wide',
      wrong: ['DLY on/off is off, wanted on'],
      silentAt: [],
    });
  });
  test('what the usual proof leaves out is answered in plain data, one after the other, and what is told can be played', async () => {
    const { worker } = loaded();
    const told: WhatIfView[] = [];
    const parts: number[] = [];
    expect(
      await worker.asking.whatIfs((answer, done) => {
        parts.push(done);
        if (answer) told.push(answer);
      }),
    ).toBe(true);
    expect(told.map((a) => a.about)).toEqual([
      'late release',
      'first press',
      'hasty feet',
      'lost message',
      'turned knob',
    ]);
    expect(structuredClone(told)).toEqual(told);
    expect([...parts].sort((a, b) => a - b)).toEqual(parts);
    expect(parts.at(-1)).toBe(1);
    const [hasty] = told[2]!.troubles;
    worker.bench.powerUp(hasty!.powerUp);
    hasty!.steps.forEach((s, i) => {
      if (s.event)
        worker.bench.act({
          step: s.event,
          ...(hasty!.steps[i + 1]?.afterMs === undefined ? {} : { nextMs: hasty!.steps[i + 1]!.afterMs! }),
        });
    });
    expect(worker.bench.stands(hasty!.control)).not.toBe(hasty!.wanted);
    expect(worker.bench.played()!.faulty).toBe(true);
  });
  test('a round of questions stops when it is told to, when another begins and when something else was derived', async () => {
    const { worker } = loaded();
    const tell = () => undefined;
    const first = worker.asking.whatIfs(tell);
    worker.asking.stopAsking();
    expect(await first).toBe(false);
    const [second, third] = [worker.asking.whatIfs(tell), worker.asking.whatIfs(tell)];
    expect([await second, await third]).toEqual([false, true]);
    worker.held.update(
      setWant(partOf(islandRun(), 'sound:03')!, { control: 'device:dly.program', is: 6 }),
      BALLROOM_ID,
    );
    const fourth = worker.asking.whatIfs(tell);
    worker.held.update({ put: [partOf(islandRun(), 'sound:03')!], remove: [] }, BALLROOM_ID);
    expect(await fourth).toBe(false);
  });
  test('a note or a tick leaves the bench and the answers as they are; what changes a sound sets the bench up anew', async () => {
    const { worker } = loaded();
    await worker.asking.whatIfs(() => undefined);
    worker.bench.powerUp();
    const before = worker.bench.act({ stomp: 'B', device: 'device:swi', gesture: 'press' })!;
    const about = partOf(islandRun(), ABOUT)!;
    worker.held.update({ put: [{ ...about, notes: 'The rack goes to the left.' }], remove: [] }, BALLROOM_ID);
    const after = worker.bench.goOn()!;
    expect([after.sound, worker.bench.played()!.steps.length]).toEqual([before.sound, 1]);
    const parts: number[] = [];
    expect(await worker.asking.whatIfs((_, done) => parts.push(done))).toBe(true);
    expect(parts).toHaveLength(5);
    worker.held.update(
      setWant(partOf(islandRun(), 'sound:03')!, { control: 'device:dly.program', is: 6 }),
      BALLROOM_ID,
    );
    expect(worker.bench.goOn()).toBeUndefined();
    worker.bench.powerUp();
    expect(worker.bench.goOn()?.sound).toEqual(worker.bench.later()!.sound);
  });
  test('plugs side by side can be exchanged on the bench, and the run follows', () => {
    const { worker } = loaded();
    const swap = worker.answers.faults().find((f) => f.fault.fault === 'swap')!;
    expect(swap.text).toMatch(/the plugs in .+ and .+ are exchanged$/);
    worker.bench.powerUp();
    expect(worker.bench.act(swap.fault)!.wire.filter((w) => w.reads.startsWith('plugged wrong'))).toHaveLength(2);
    expect(worker.bench.played()!.faulty).toBe(true);
  });
  test('letting go of a switch that does not mind leaves what the press did to be seen', async () => {
    const { worker } = loaded();
    worker.bench.powerUp();
    worker.bench.act({ stomp: 'D', device: 'device:swi', gesture: 'press' });
    expect(worker.bench.act({ stomp: 'D', device: 'device:swi', gesture: 'release' })!.audio).toEqual([
      '3 dB louder; what nobody stated counts as set by ear.',
    ]);
    worker.bench.act({ stomp: 'E', device: 'device:swi', gesture: 'press' });
    expect(worker.bench.act({ stomp: 'E', device: 'device:swi', gesture: 'release' })!.audio).toEqual([
      expect.stringMatching(/dB softer/),
    ]);
  });
  test('what can happen to the boxes is told in words', () => {
    const { worker } = loaded();
    expect(worker.answers.mishaps().map((m) => m.text)).toEqual(
      expect.arrayContaining([
        'Stereo delay loses its power and comes on again',
        'Step on Stereo reverb itself (switch)',
      ]),
    );
  });
  test('each hook-up is judged, and the one that is shown stays as it was', () => {
    const { worker, view } = loaded();
    expect(worker.answers.standings().map((s) => [s.hookup, s.tally.proved, s.tally.sounds, s.pressing])).toEqual([
      ['hookup:ballroom', 14, 16, 8],
      ['hookup:ferry-deck', 14, 16, 8],
    ]);
    expect(worker.held.update(nothing, BALLROOM_ID)!.findings).toEqual(view.findings);
  });
});

describe('the bench, as time goes by outside', () => {
  const clock = { now: 0, real: performance.now.bind(performance) };
  const pass = (ms: number) => {
    clock.now += ms;
  };
  beforeEach(() => {
    performance.now = () => clock.now;
  });
  afterEach(() => {
    performance.now = clock.real;
  });

  test('before a footstep that follows in a hurry time stands still, however often one looks, until one plays freely', async () => {
    const { worker } = loaded();
    let hasty: WhatIfView['troubles'][number] | undefined;
    await worker.asking.whatIfs((answer) => {
      if (answer?.about === 'hasty feet') [hasty] = answer.troubles;
    });
    const [, first, second] = hasty!.steps;
    const begin = () => {
      worker.bench.powerUp(hasty!.powerUp);
      return worker.bench.act({ step: first!.event!, nextMs: second!.afterMs! })!;
    };
    const hurried = begin();
    pass(150);
    expect(worker.bench.later()).toEqual(hurried);
    expect(hurried.busy).toBe(false);
    worker.bench.act({ step: second!.event! });
    expect(worker.bench.stands(hasty!.control)).not.toBe(hasty!.wanted);
    begin();
    expect(worker.bench.playFreely()!.busy).toBe(true);
    pass(150);
    expect(worker.bench.later()!.busy).toBe(false);
    worker.bench.act({ step: second!.event! });
    expect(worker.bench.stands(hasty!.control)).toBe(hasty!.wanted);
    begin();
    const anew = worker.bench.powerUp()!;
    pass(150);
    expect(worker.bench.later()!.now).not.toBe(anew.now);
  });
  test('all that the proof tells of the demo rigs and of twelve ways of breaking can be played, a footstep every 900 ms, and ends wrong as told', async () => {
    const right: string[] = [];
    let played = 0;
    for (const rig of [...DEMO_RIGS.map(({ make }) => make()), ...FAILURES.map((f) => f.rig)]) {
      for (const { id } of all(rig, 'hookup')) {
        const worker = new Deriving();
        worker.held.load(everyPart(rig));
        const wrong: Pick<WayWrong, 'control' | 'wanted' | 'powerUp' | 'steps'>[] = worker.held
          .update(nothing, id)!
          .sounds.flatMap((s) => s.shortest ?? []);
        await worker.asking.whatIfs((answer) => {
          wrong.push(...(answer?.troubles ?? []));
        });
        for (const { powerUp, steps, control, wanted } of wrong) {
          worker.bench.powerUp(powerUp);
          steps.forEach(({ event }, i) => {
            pass(900);
            const nextMs = steps[i + 1]?.afterMs;
            if (event) worker.bench.act({ step: event, ...(nextMs === undefined ? {} : { nextMs }) });
            pass(60);
            worker.bench.later();
          });
          played += 1;
          if (worker.bench.stands(control) === wanted)
            right.push(`${rigName(rig)}: ${steps.map((s) => s.text).join('; ')}`);
        }
      }
    }
    expect(right).toEqual([]);
    expect(played).toBeGreaterThanOrEqual(50);
  });
  test('live, a stomp is answered before its bytes have arrived, and two feet at once are two feet at once', () => {
    const { worker } = loaded();
    worker.bench.powerUp();
    const press = (stomp: string) => worker.bench.act({ stomp, device: 'device:swi', gesture: 'press' }, true)!;
    const first = press('B');
    expect([first.busy, first.sound?.name, first.wire.filter((w) => w.bytes)]).toEqual([true, 'Chorus crunch', []]);
    const second = press('D');
    expect([second.sound?.name, worker.bench.played()!.faulty]).toEqual(['Lead', true]);
    pass(200);
    const settled = worker.bench.later()!;
    expect(settled.busy).toBe(false);
    expect(settled.wire.filter((w) => w.bytes).map((w) => w.who)).toContain('DLY misses it while it loads');
  });
  test('a stomp whose bytes had time to settle can be kept as a test, with pedals where they came to rest', () => {
    const { worker } = loaded();
    worker.bench.powerUp();
    worker.bench.act({ stomp: 'B', device: 'device:swi', gesture: 'press' }, true);
    pass(200);
    for (const to of [80, 60, 40]) worker.bench.act({ turn: 'device:vol.amount', to }, true);
    const played = worker.bench.played()!;
    expect([played.faulty, played.steps.map((s) => s.text)]).toEqual([
      false,
      ['Stomp Chorus crunch, 1B', 'Move VOL amount to 40 %'],
    ]);
    expect(worker.bench.later()!.pedals).toEqual([
      { is: 'control', control: 'device:vol.amount', text: 'Volume pedal', about: '40 %', min: 0, max: 100, at: 40 },
    ]);
  });
  test('time passes between stomps, and never backwards', () => {
    const { worker } = loaded();
    worker.bench.powerUp();
    const first = worker.bench.act({ stomp: 'A', device: 'device:swi', gesture: 'press' })!;
    pass(30);
    const second = worker.bench.act({ stomp: 'B', device: 'device:swi', gesture: 'press' })!;
    const seconds = (text: string) => Number(text.replace(' ', ''));
    expect(seconds(second.now) - seconds(first.now)).toBeGreaterThan(0.0299);
  });
});
