import { apply } from '../change/apply.js';
import { nothing, together, type Edit } from '../change/edit.js';
import { addSound, caughtUp, setWant, usualCall } from '../edits/sounds.js';
import { anatomy, type Embedded } from '../signal/graph/anatomy.js';
import { wantTarget, type Sound } from '../rig/sound.js';
import { controlSteps, type WiringStep } from '../edits/wire.js';
import type { Device, Slot } from '../rig/device.js';
import { signalCables } from '../rig/box.js';
import { ref, type Id, type Ref } from '../rig/ids.js';
import { all, partOf, thePart, type Part, type Rig } from '../rig/rig.js';
import { passable } from '../signal/graph/passable.js';
import { wire } from '../signal/graph/wiring.js';
import type { Hookup } from '../rig/hookup.js';
import { Crew, type CastBox } from './crew.js';
import type { StartChoice, StartQuestion, StartingPoint } from './questions.js';
import { theOne } from '../known/the.js';

export interface StartPlan {
  readonly point: StartingPoint;
  /** Boxes of the kit that play a part. */
  readonly used: readonly CastBox[];
  /** Generic boxes that the kit lacks: the list of what to get. */
  readonly got: readonly CastBox[];
  readonly leads: readonly WiringStep[];
  readonly chosen: readonly { readonly question: StartQuestion; readonly choice: StartChoice }[];
  readonly notes: readonly string[];
  readonly leftOver: readonly Device[];
  /** Boxes that play no part in the first sound. */
  readonly waiting: readonly Id<'device'>[];
  readonly hears: Hookup['hears'];
}

export type StartAnswers = Readonly<Record<string, string>>;

/** The answer to a question: what was said, else what the kit says, else the usual. */
const answerTo = (rig: Rig, { id, choices, byKit }: StartQuestion, answers: StartAnswers): StartChoice => {
  const said = answers[id] ?? byKit?.(rig);
  return choices.find((c) => c.value === said) ?? choices[0];
};

/**
 * Plans a rig from a starting point with what is in the kit; nothing is added or plugged yet. `newId` gives the ids of
 * boxes that the kit lacks.
 */
export const planStart = (
  rig: Rig,
  point: StartingPoint,
  answers: StartAnswers,
  newId: (n: number) => Id<'device'>,
): StartPlan => {
  const chosen = point.questions.map((question) => ({ question, choice: answerTo(rig, question, answers) }));
  const crew = new Crew(rig, newId);
  point.wire(crew, (id) => theOne(chosen, (c) => c.question.id === id).choice.value);
  const boxes = [...crew.used, ...crew.got].map((c) => c.device);
  const playing: Rig = { ...rig, parts: { ...rig.parts, device: new Map(boxes.map((d) => [d.id, d])) } };
  return {
    point,
    used: crew.used,
    got: crew.got,
    leads: [...crew.leads, ...controlSteps(playing)],
    chosen,
    notes: crew.notes,
    leftOver: crew.leftOver(),
    waiting: crew.waiting,
    hears: crew.hears(),
  };
};

export interface StartIds {
  readonly cable: (n: number) => Id<'cable'>;
  readonly sound: Id<'sound'>;
}

/**
 * Adds what the kit lacks, pulls what is plugged in this hook-up, plugs what was planned; a rig without sounds gets a
 * first one to listen to.
 */
export const carryOutStart = (rig: Rig, hookup: Id<'hookup'>, plan: StartPlan, ids: StartIds): Edit => {
  const old = partOf(rig, hookup);
  if (!old) return nothing;
  const first = Math.max(0, ...all(rig, 'device').map((d) => d.at ?? 0)) + 1;
  const build: Edit = {
    put: [
      ...(plan.hears.length || old.hears.length ? [{ ...old, hears: plan.hears }] : []),
      ...plan.got.map(({ device }, i): Part => ({ ...device, at: first + i })),
      ...plan.leads.map(({ from, to }, i): Part => ({ kind: 'cable', id: ids.cable(i), hookup, ends: [from, to] })),
    ],
    remove: signalCables(rig, hookup).map((c) => c.id),
  };
  const built = apply(rig, build);
  if (!built.ok) return build;
  if (all(rig, 'sound').length > 0) return together(build, caughtUp(built.value.rig));
  const {
    put: [sound],
  } = addSound(built.value.rig, ids.sound, 'First sound', 'clean');
  if (sound?.kind !== 'sound') return build;
  const playing = [...plan.used, ...plan.got].map((c) => c.device);
  const call = usualCall(built.value.rig, playing);
  const { stages: onTheWay } = passable(wire(built.value.rig, old));
  const wanted = [...plan.used, ...plan.got]
    .filter(({ device }) => !plan.waiting.includes(device.id))
    .flatMap(({ device }) => firstVoice(device))
    .filter((stage) => onTheWay.has(stage));
  const voiced = wanted.reduce<Sound>((s, stage) => setWant(s, { stage, is: 'in' }).put[0], {
    ...sound,
    calls: call ? [call] : [],
  });
  return together(build, { put: [leftOpen(built.value.rig, old, voiced)], remove: [] });
};

/**
 * What only a message that turns it over reaches, and no loop takes out, is left as it is until somebody says which
 * program sets it.
 */
const leftOpen = (rig: Rig, hookup: Hookup, sound: Sound): Sound => {
  const said = new Set(sound.wants.map(wantTarget));
  const stages = [...anatomy(rig, hookup).stages.values()].filter(
    (s) => !said.has(s.ref) && s.inserts.length === 0 && isOnlyTurnedOver(rig, s),
  );
  return stages.reduce((all, { ref: stage }) => setWant(all, { stage, is: 'any' }).put[0], sound);
};

const isOnlyTurnedOver = (rig: Rig, { device, block }: Embedded): boolean => {
  const controls = new Set(block.on?.flatMap((f) => ('control' in f ? [f.control] : [])));
  const acts = thePart(rig, device)
    .actuators.filter((a) => 'midi' in a.by)
    .flatMap((a) => a.acts)
    .filter((act) => 'control' in act && controls.has(act.control));
  return acts.length > 0 && acts.every((act) => 'toggle' in act);
};

/** What of a box must be in for anything to be heard: its first channel, its preamp, its cabinet simulation. */
const firstVoice = (device: Device): readonly Ref[] =>
  device.chains.flatMap((chain) => voices(chain.slots)).map((id) => ref(device.id, id));
const voices = (slots: readonly Slot[]): readonly string[] =>
  slots.flatMap((slot) => {
    if (slot.is === 'fork') return voices(slot.arms[0]?.slots ?? []);
    return slot.is === 'block' && ['channel', 'preamp', 'cabinet simulation'].includes(slot.stage) ? [slot.id] : [];
  });
