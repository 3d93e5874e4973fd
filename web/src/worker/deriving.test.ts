import { BALLROOM_ID, islandRun } from '@yunta/core/demo/island-run';
import { setWant } from '@yunta/core/edits/sounds';
import { DEMO_RIGS } from '@yunta/core/demo/rigs';
import type { WrongView } from '@yunta/core/derive/view';
import { ABOUT, all, everyPart, partOf, rigName } from '@yunta/core/rig/rig';
import { FAILURES } from '@yunta/core/testing/failures';
import type { WhatIfView } from '@yunta/core/derive/what-ifs';
import { giantRig } from '@yunta/core/testing/giant-rig';
import { Deriving } from './deriving.js';

const nothing = { put: [], remove: [] } as const;
const loaded = () => {
  const worker = new Deriving();
  worker.load(everyPart(islandRun()));
  return { worker, view: worker.update(nothing, BALLROOM_ID)! };
};

describe('what the worker answers', () => {
  test('every answer is plain data', async () => {
    const { worker, view } = loaded();
    const finding = view.findings[0]!;
    for (const answer of [
      view,
      worker.run('sound:01'),
      worker.run(),
      worker.stored('sound:01'),
      worker.remedies(finding.fingerprint),
      await worker.board(),
      worker.changes('sound:01', 'sound:02'),
      worker.powerUp(),
      worker.mishaps(),
      worker.calls(),
      worker.standings(),
    ]) {
      expect(structuredClone(answer)).toEqual(answer);
    }
  });
  test('the board of a very full rig is worked out in pieces, and given up when something else is derived', async () => {
    const { rig, hookup } = giantRig();
    const worker = new Deriving();
    worker.load(everyPart(rig));
    worker.update(nothing, hookup.id);
    const whole = await worker.board();
    expect(whole).toHaveLength(128 * 127);
    const pending = worker.board();
    worker.update({ put: [{ ...partOf(rig, whole[0]!.from)!, name: 'Another' }], remove: [] }, hookup.id);
    expect(await pending).toEqual([]);
  });
  test('an edit brings the copy up to date; the same edit back brings the old answer', () => {
    const { worker, view } = loaded();
    const sound = partOf(islandRun(), 'sound:03')!;
    const cured = worker.update(setWant(sound, { control: 'device:dly.program', is: 6 }), BALLROOM_ID)!;
    expect([view.tally.proved, cured.tally.proved]).toEqual([14, 15]);
    expect(worker.update({ put: [sound], remove: [] }, BALLROOM_ID)!.tally.proved).toBe(14);
  });
  test('a hook-up that is not there gives nothing, and then a right one gives all again', async () => {
    const { worker } = loaded();
    expect(worker.update(nothing, 'hookup:none')).toBeUndefined();
    expect([worker.run('sound:01'), await worker.board(), worker.remedies('x'), worker.powerUp()]).toEqual([
      [],
      [],
      [],
      undefined,
    ]);
    expect(worker.update(nothing, BALLROOM_ID)!.tally.sounds).toBe(16);
  });
  test('a counterexample played step by step ends wrong in the control that it names', () => {
    const { worker, view } = loaded();
    const [wrong] = view.sounds.find((s) => s.id === 'sound:03')!.wrong;
    worker.powerUp(wrong!.powerUp);
    const shown = wrong!.steps.flatMap((s) => (s.event ? [worker.act({ step: s.event })!] : []));
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
      await worker.whatIfs((answer, done) => {
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
    worker.powerUp(hasty!.powerUp);
    hasty!.steps.forEach((s, i) => {
      if (s.event)
        worker.act({
          step: s.event,
          ...(hasty!.steps[i + 1]?.afterMs === undefined ? {} : { nextMs: hasty!.steps[i + 1]!.afterMs! }),
        });
    });
    expect(worker.stands(hasty!.control)).not.toBe(hasty!.wanted);
    expect(worker.played()!.faulty).toBe(true);
  });
  test('a round of questions stops when it is told to, when another begins and when something else was derived', async () => {
    const { worker } = loaded();
    const tell = () => undefined;
    const first = worker.whatIfs(tell);
    worker.stopAsking();
    expect(await first).toBe(false);
    const [second, third] = [worker.whatIfs(tell), worker.whatIfs(tell)];
    expect([await second, await third]).toEqual([false, true]);
    worker.update(setWant(partOf(islandRun(), 'sound:03')!, { control: 'device:dly.program', is: 6 }), BALLROOM_ID);
    const fourth = worker.whatIfs(tell);
    worker.update({ put: [partOf(islandRun(), 'sound:03')!], remove: [] }, BALLROOM_ID);
    expect(await fourth).toBe(false);
  });
  test('a note or a tick leaves the bench and the answers as they are; what changes a sound sets the bench up anew', async () => {
    const { worker } = loaded();
    await worker.whatIfs(() => undefined);
    worker.powerUp();
    const before = worker.act({ stomp: 'B', device: 'device:swi', gesture: 'press' })!;
    const about = partOf(islandRun(), ABOUT)!;
    worker.update({ put: [{ ...about, notes: 'The rack goes to the left.' }], remove: [] }, BALLROOM_ID);
    const after = worker.goOn()!;
    expect([after.sound, worker.played()!.steps.length]).toEqual([before.sound, 1]);
    const parts: number[] = [];
    expect(await worker.whatIfs((_, done) => parts.push(done))).toBe(true);
    expect(parts).toHaveLength(5);
    worker.update(setWant(partOf(islandRun(), 'sound:03')!, { control: 'device:dly.program', is: 6 }), BALLROOM_ID);
    expect(worker.goOn()).toBeUndefined();
    worker.powerUp();
    expect(worker.goOn()?.sound).toEqual(worker.later()!.sound);
  });
  test('plugs side by side can be exchanged on the bench, and the run follows', () => {
    const { worker } = loaded();
    const swap = worker.faults().find((f) => f.fault.fault === 'swap')!;
    expect(swap.text).toMatch(/the plugs in .+ and .+ are exchanged$/);
    worker.powerUp();
    expect(worker.act(swap.fault)!.wire.filter((w) => w.reads.startsWith('plugged wrong'))).toHaveLength(2);
    expect(worker.played()!.faulty).toBe(true);
  });
  test('letting go of a switch that does not mind leaves what the press did to be seen', async () => {
    const { worker } = loaded();
    worker.powerUp();
    worker.act({ stomp: 'B', device: 'device:swi', gesture: 'press' });
    expect(worker.act({ stomp: 'B', device: 'device:swi', gesture: 'release' })!.audio).toEqual([
      '8 dB louder, by gains that are partly assumed.',
    ]);
    worker.act({ stomp: 'E', device: 'device:swi', gesture: 'press' });
    expect(worker.act({ stomp: 'E', device: 'device:swi', gesture: 'release' })!.audio).toEqual([
      expect.stringMatching(/dB softer/),
    ]);
  });
  test('what can happen to the boxes is told in words', () => {
    const { worker } = loaded();
    expect(worker.mishaps().map((m) => m.text)).toEqual(
      expect.arrayContaining(['Stereo delay loses its power and wakes again', 'Step on Stereo reverb itself (switch)']),
    );
  });
  test('each hook-up is judged, and the one that is shown stays as it was', () => {
    const { worker, view } = loaded();
    expect(worker.standings().map((s) => [s.hookup, s.tally.proved, s.tally.sounds, s.pressing])).toEqual([
      ['hookup:ballroom', 14, 16, 4],
      ['hookup:ferry-deck', 14, 16, 4],
    ]);
    expect(worker.update(nothing, BALLROOM_ID)!.findings).toEqual(view.findings);
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
    await worker.whatIfs((answer) => {
      if (answer?.about === 'hasty feet') [hasty] = answer.troubles;
    });
    const [, first, second] = hasty!.steps;
    const begin = () => {
      worker.powerUp(hasty!.powerUp);
      return worker.act({ step: first!.event!, nextMs: second!.afterMs! })!;
    };
    const hurried = begin();
    pass(150);
    expect(worker.later()).toEqual(hurried);
    expect(hurried.busy).toBe(false);
    worker.act({ step: second!.event! });
    expect(worker.stands(hasty!.control)).not.toBe(hasty!.wanted);
    begin();
    expect(worker.playFreely()!.busy).toBe(true);
    pass(150);
    expect(worker.later()!.busy).toBe(false);
    worker.act({ step: second!.event! });
    expect(worker.stands(hasty!.control)).toBe(hasty!.wanted);
    begin();
    const anew = worker.powerUp()!;
    pass(150);
    expect(worker.later()!.now).not.toBe(anew.now);
  });
  test('all that the proof tells of the demo rigs and of twelve ways of breaking can be played, a footstep every 900 ms, and ends wrong as told', async () => {
    const right: string[] = [];
    let played = 0;
    for (const rig of [...DEMO_RIGS.map(({ make }) => make()), ...FAILURES.map((f) => f.rig)]) {
      for (const { id } of all(rig, 'hookup')) {
        const worker = new Deriving();
        worker.load(everyPart(rig));
        const wrong: Pick<WrongView, 'control' | 'wanted' | 'powerUp' | 'steps'>[] = worker
          .update(nothing, id)!
          .sounds.flatMap((s) => s.wrong);
        await worker.whatIfs((answer) => {
          wrong.push(...(answer?.troubles ?? []));
        });
        for (const { powerUp, steps, control, wanted } of wrong) {
          worker.powerUp(powerUp);
          steps.forEach(({ event }, i) => {
            pass(900);
            const nextMs = steps[i + 1]?.afterMs;
            if (event) worker.act({ step: event, ...(nextMs === undefined ? {} : { nextMs }) });
            pass(60);
            worker.later();
          });
          played += 1;
          if (worker.stands(control) === wanted) right.push(`${rigName(rig)}: ${steps.map((s) => s.text).join('; ')}`);
        }
      }
    }
    expect(right).toEqual([]);
    expect(played).toBeGreaterThanOrEqual(60);
  });
  test('live, a stomp is answered before its bytes have arrived, and two feet at once are two feet at once', () => {
    const { worker } = loaded();
    worker.powerUp();
    const press = (stomp: string) => worker.act({ stomp, device: 'device:swi', gesture: 'press' }, true)!;
    const first = press('B');
    expect([first.busy, first.sound?.name, first.wire.filter((w) => w.bytes)]).toEqual([true, 'Chorus crunch', []]);
    const second = press('D');
    expect([second.sound?.name, worker.played()!.faulty]).toEqual(['Lead', true]);
    pass(200);
    const settled = worker.later()!;
    expect(settled.busy).toBe(false);
    expect(settled.wire.filter((w) => w.bytes).map((w) => w.who)).toContain('DLY misses it while it loads');
  });
  test('a stomp whose bytes had time to settle can be kept as a test, with pedals where they came to rest', () => {
    const { worker } = loaded();
    worker.powerUp();
    worker.act({ stomp: 'B', device: 'device:swi', gesture: 'press' }, true);
    pass(200);
    for (const to of [80, 60, 40]) worker.act({ turn: 'device:vol.amount', to }, true);
    const played = worker.played()!;
    expect([played.faulty, played.steps.map((s) => s.text)]).toEqual([
      false,
      ['Stomp Chorus crunch, 1B', 'Move VOL amount to 40 %'],
    ]);
    expect(worker.later()!.pedals).toEqual([
      { is: 'control', control: 'device:vol.amount', text: 'Volume pedal', about: '40 %', min: 0, max: 100, at: 40 },
    ]);
  });
  test('time passes between stomps, and never backwards', () => {
    const { worker } = loaded();
    worker.powerUp();
    const first = worker.act({ stomp: 'A', device: 'device:swi', gesture: 'press' })!;
    pass(30);
    const second = worker.act({ stomp: 'B', device: 'device:swi', gesture: 'press' })!;
    const seconds = (text: string) => Number(text.replace(' ', ''));
    expect(seconds(second.now) - seconds(first.now)).toBeGreaterThan(0.0299);
  });
});
