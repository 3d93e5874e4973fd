import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { withParts } from '../../testing/after.js';
import { FAILURES, type Failure } from '../../testing/failures.js';
import { SMALL } from '../../testing/small-rig.js';
import { apply } from '../change/apply.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { handMoves } from '../recall/actuate/compile.js';
import type { Footstep } from '../recall/model/happenings.js';
import type { SystemState } from '../prover/system.js';
import { whatIf } from '../recall/what-if/what-if.js';
import { partOf, type Rig } from '../rig/rig.js';
import { deriveOnce, type Derived } from './steps/deriver.js';
import { setUpBench, takeStep } from './play/play.js';
import { tried } from './views/tried.js';

const textOf = ({ file }: Failure) => readFileSync(join(__dirname, '../../../examples/recall', `${file}.json`), 'utf8');
const read = (failure: Failure): Rig => {
  const found = readRigFile(textOf(failure));
  if (!found.ok) throw new Error(JSON.stringify(found.error[0]));
  return found.value;
};
const derive = (rig: Rig): Derived => deriveOnce(rig, SMALL)!;

/** The shortest way to the wrong end, and what was wanted there. */
const wayOf = (
  d: Derived,
  { sound, control }: Failure,
): { readonly powerUp: SystemState; readonly steps: readonly Footstep[]; readonly wanted: string } => {
  const verdict = d.verdicts.get(sound)!;
  const direct = verdict.is === 'broken' ? verdict.wrong.find((w) => w.variable === control) : undefined;
  if (direct) {
    const { powerUp, events } = direct.example();
    return { powerUp, steps: events.map((e) => d.modelled.steps.get(e)!), wanted: direct.wanted };
  }
  const late = whatIf('late release', d.compilation, d.modelled, d.verdicts);
  const trouble = late.troubles.find((t) => t.sound === sound);
  if (trouble) {
    const want = trouble.wants.find((w) => w.variable === control)!;
    const { powerUp, events } = want.example();
    return { powerUp, steps: events.map((e) => late.question.steps.get(e)!), wanted: want.wanted };
  }
  const byHand = handMoves(d.compilation, sound).find((m) => m.control === control);
  /** The stomp alone, with nothing done by hand. */
  const stomps = partOf(d.rig, sound)!.calls.map(({ device, memory, slot }): Footstep => ({
    does: 'call',
    device,
    memory,
    slot,
  }));
  const steps = [...[...d.modelled.steps.values()].filter((s) => s.does === 'foot' && s.actuator === 'tap'), ...stomps];
  return {
    powerUp: {},
    steps,
    wanted: String(byHand?.value ?? d.compilation.sounds.get(sound)!.wants.find((w) => w.control === control)!.value),
  };
};

const endsAt = (d: Derived, { control }: Failure, powerUp: SystemState, steps: readonly Footstep[]): string => {
  const bench = setUpBench(d, powerUp, false);
  steps.forEach((step) => takeStep(d, bench, step));
  return String(bench.value(control));
};

test('there are twelve, each another way', () => {
  expect(FAILURES).toHaveLength(12);
  expect(new Set(FAILURES.map((f) => f.title)).size).toBe(12);
});

describe.each(FAILURES.map((f) => [f.title, f] as const))('%s', (_, failure) => {
  const broken = derive(read(failure));
  const finding = () =>
    broken.judgement.findings.find((f) => f.code === failure.code && f.evidence.includes(failure.sound))!;
  const cured = () => {
    const way = tried(broken, finding()).find((t) => t.remedy.label === failure.cure);
    if (way?.remedy.by !== 'program')
      throw new Error(
        `no way out is called ${failure.cure}: ${tried(broken, finding())
          .map((t) => t.remedy.label)
          .join('; ')}`,
      );
    const applied = apply(broken.rig, way.remedy.edit);
    if (!applied.ok) throw new Error(JSON.stringify(applied.error[0]));
    return derive(applied.value.rig);
  };

  test('stands in its file as it is made here', () => expect(textOf(failure)).toBe(writeRigFile(failure.rig)));
  test('is found', () => {
    expect(broken.judgement.faults).toEqual([]);
    expect(finding()).toBeDefined();
  });
  test('ends wrong on the bench, played step by step', () => {
    const { powerUp, steps, wanted } = wayOf(broken, failure);
    expect(steps.at(-1)!.does).toMatch(/recall|row|call/);
    expect(endsAt(broken, failure, powerUp, steps)).not.toBe(wanted);
  });
  test('its way out is tried, and with it the sound is proved and the same steps end right', () => {
    const { powerUp, steps, wanted } = wayOf(broken, failure);
    const after = cured();
    expect(
      after.judgement.findings.filter((f) => f.code === failure.code && f.evidence.includes(failure.sound)),
    ).toEqual([]);
    expect(after.verdicts.get(failure.sound)).toEqual({ is: 'proved' });
    expect(after.modelled.system.sounds.find((s) => s.id === failure.sound)!.wants).toContainEqual({
      variable: failure.control,
      value: wanted,
    });
    expect(whatIf('late release', after.compilation, after.modelled, after.verdicts).troubles).toEqual([]);
    expect(endsAt(after, failure, powerUp, steps)).toBe(wanted);
  });
});

test('a switch let go late is no finding where moves are not reckoned with, and no check fails for it', () => {
  const { rig } = FAILURES.find((f) => f.file === '04-let-go-late')!;
  const codes = (moves: boolean) => {
    const { findings, faults } = derive(
      withParts(rig, { ...partOf(rig, SMALL)!, admits: { moves, feet: true, powerCycle: true } }),
    ).judgement;
    expect(faults).toEqual([]);
    return findings.map((f) => f.code);
  };
  expect(codes(true)).toContain('recall.move-left-on');
  expect(codes(false)).not.toContain('recall.move-left-on');
});
