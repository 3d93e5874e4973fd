import { all, thePart } from '../../rig/rig.js';
import type { Device, Memory } from '../../rig/device.js';
import { theId, type Id, type Ref } from '../../rig/ids.js';
import { mannerOf, type Manner, type Move } from '../../rig/sound.js';
import type { Value } from '../../rig/value.js';
import { valuesOf, type Compilation } from '../actuate/compile.js';
import type { Compiled } from '../intend/compiled.js';
import { guardedBy } from '../model/guards.js';
import { type Footstep } from '../model/happenings.js';
import { moveEvents } from '../model/switches.js';
import { memosIn } from '../model/memos.js';
import type { Modelled } from '../model/model.js';
import { ModelMemory } from '../model/model-memory.js';
import { apart, Cutter, Influence, type Extra } from './reach.js';
import type { RecallSystem, SystemAct, SystemEvent, SystemSound } from '../../prover/system.js';
import { wantsOn, type Asked, type Question } from './question.js';
import { surely, theEntry } from '../../known/the.js';
import { theMemory } from '../../rig/box.js';

/** A switch that programs assign, with what a foot on it does in the system. */
interface Pedal {
  readonly device: Id<'device'>;
  readonly name: string;
  /** Acts of a press; of a release, which do something only while it is held. */
  readonly press: readonly SystemAct[];
  readonly release: readonly SystemAct[] | undefined;
}

const withMoves = (
  c: Compilation,
  m: Modelled,
): { readonly system: RecallSystem; readonly steps: Map<string, Footstep> } => {
  const steps = new Map(m.steps);
  const more = moveEvents(c.bearings, m.said.domains, m.said.effects, m.said.shelf, new ModelMemory()).filter(
    ([event]) => !steps.has(event.id),
  );
  more.forEach(([event, step]) => steps.set(event.id, step));
  if (more.length === 0) return { system: m.ground, steps };
  const events = more.map(([event]) => event);
  const known = new Set(m.ground.variables.map((v) => v.id));
  return {
    system: {
      ...m.ground,
      variables: [
        ...m.ground.variables,
        ...memosIn(c.bearings, m.said.domains, events).filter((v) => !known.has(v.id)),
      ],
      events: [...m.ground.events, ...events],
    },
    steps,
  };
};

const pedalsOf = (system: RecallSystem, steps: ReadonlyMap<string, Footstep>): readonly Pedal[] => {
  const byId = new Map(system.events.map((e) => [e.id, e]));
  return [...steps].flatMap(([id, step]): readonly Pedal[] => {
    if (step.does !== 'stomp' && step.does !== 'press') return [];
    const release = byId.get(`release:${step.device}.${step.switch}`);
    return [
      {
        device: step.device,
        name: step.switch,
        press: byId.get(id)?.acts ?? [],
        release: release && guardedBy(release.when ?? [], release.acts),
      },
    ];
  });
};

const recallsOf = (m: Modelled): ReadonlyMap<string, SystemEvent> => {
  const byId = new Map(m.system.events.map((e) => [e.id, e]));
  return new Map(m.system.sounds.map((s) => [s.id, theEntry(byId, s.recall)]));
};

/** A sound is called while a momentary switch is held, then the foot comes off: is it still right? */
export const lateRelease = (c: Compilation, m: Modelled): Question => {
  const { system, steps } = withMoves(c, m);
  const recalls = recallsOf(m);
  const pedals = pedalsOf(system, steps).filter((p) => p.release);
  const written = new Map(pedals.map((p) => [p, new Set(surely(p.release).map((act) => act.variable))]));
  const judged = m.system.sounds.flatMap((sound) =>
    pedals.flatMap((pedal) => {
      const wants = wantsOn(sound, theEntry(written, pedal));
      return wants ? [{ sound, pedal, wants }] : [];
    }),
  );
  const reach = new Influence(system, new Set(judged.flatMap((j) => j.wants.map((w) => w.variable))));
  const asked = new Map<string, Asked>();
  const extras: Extra[] = [];
  const cutter = new Cutter();
  const sounds: SystemSound[] = [];
  for (const { sound, pedal, wants } of judged) {
    const id = `late:${sound.id}:${pedal.device}.${pedal.name}`;
    const recall = theEntry(recalls, sound.id);
    extras.push({
      id,
      last: true,
      acts: (inside) => [...cutter.cut(recall.acts, inside), ...cutter.cut(surely(pedal.release), inside)],
      matters: new Set(wants.map((w) => w.variable)),
    });
    steps.set(id, {
      does: 'row',
      steps: [theEntry(steps, recall.id), { does: 'release', device: pedal.device, switch: pedal.name }],
    });
    sounds.push({ id, recall: id, wants });
    const move = moveAt(c, pedal, sound.id);
    asked.set(id, { sound: theId('sound', sound.id), ...(move ? { move: move.id } : {}) });
  }
  return { about: 'late release', ground: system, systems: apart(system, extras, sounds, reach), steps, asked };
};

const moveAt = (c: Compilation, pedal: Pick<Pedal, 'device' | 'name'>, sound?: string): Move | undefined => {
  const moves = all(c.bearings.rig, 'move').filter((m) =>
    m.at.some((a) => a.device === pedal.device && a.switch === pedal.name),
  );
  return (
    moves.find((m) => sound !== undefined && (m.sounds === 'all' || m.sounds.includes(theId('sound', sound)))) ??
    moves[0]
  );
};

/** A sound is called, then a move is pressed: does it give its on list? And pressed again, or let go, its off list? */
export const firstPress = (c: Compilation, m: Modelled): Question => {
  const { rig } = c.bearings;
  const { system, steps } = withMoves(c, m);
  const recalls = recallsOf(m);
  const pedals = pedalsOf(system, steps);
  const pedalAt = (device: Device, name: string) => pedals.find((p) => p.device === device.id && p.name === name);
  const judged = [...c.sounds.values()].flatMap((compiled) =>
    compiled.stored.flatMap(({ program }) => {
      const device = thePart(rig, program.device);
      const memory = theMemory(device, program.memory);
      return all(rig, 'move')
        .filter((move) => move.sounds === 'all' || move.sounds.includes(compiled.sound))
        .flatMap((move) => {
          const pedal = move.at.flatMap((a) =>
            a.device === device.id && program.assigns.some((x) => x.switch === a.switch) && assigns(memory, a.switch)
              ? (pedalAt(device, a.switch) ?? [])
              : [],
          )[0];
          return pedal ? [{ compiled, move, pedal, lists: listsOf(c, m, compiled, move) }] : [];
        });
    }),
  );
  const reach = new Influence(
    system,
    new Set(judged.flatMap((j) => [...j.lists.on, ...j.lists.off].map((w) => w.variable))),
  );
  const asked = new Map<string, Asked>();
  const extras: Extra[] = [];
  const cutter = new Cutter();
  const sounds: SystemSound[] = [];
  for (const { compiled, move, pedal, lists } of judged) {
    const recall = theEntry(recalls, compiled.sound);
    const matters = new Set([...lists.on, ...lists.off].map((w) => w.variable));
    const release: Footstep = { does: 'release', device: pedal.device, switch: pedal.name };
    const manner = FOOT[mannerOf(move)];
    const press: Footstep = { does: manner.first, device: pedal.device, switch: pedal.name };
    const { press: down, release: up = [] } = pedal;
    const once = [recall.acts, up, down];
    const row = [theEntry(steps, recall.id), release, press];
    const presses = [
      { press: 'first', wants: lists.on, lists: once, row },
      {
        press: 'second',
        wants: lists.off,
        lists: [...once, ...(manner.again === 'pressed' ? [up, down] : [up])],
        row: [...row, manner.again === 'pressed' ? press : release],
      },
    ] as const;
    for (const one of presses) {
      if (one.wants.length === 0) continue;
      const id = `${one.press}:${compiled.sound}:${move.id}`;
      extras.push({ id, last: true, acts: (inside) => one.lists.flatMap((acts) => cutter.cut(acts, inside)), matters });
      steps.set(id, { does: 'row', steps: one.row });
      sounds.push({ id, recall: id, wants: one.wants });
      asked.set(id, { sound: compiled.sound, move: move.id, press: one.press });
    }
  }
  return { about: 'first press', ground: system, systems: apart(system, extras, sounds, reach), steps, asked };
};

/** What a foot does on the switch of a move, to get it and to take it back. */
const FOOT: Readonly<Record<Manner, { readonly first: 'stomp' | 'press'; readonly again: 'pressed' | 'let go' }>> = {
  latched: { first: 'stomp', again: 'pressed' },
  'while held': { first: 'press', again: 'let go' },
  'one way': { first: 'stomp', again: 'pressed' },
};

const assigns = (memory: Memory, name: string): boolean => (memory.assignable ?? []).some((a) => a.switch === name);

/**
 * What a move's lists are to bring about in a sound; without an off list it gives back what the sound wants. What only
 * a hand reaches is not judged.
 */
const listsOf = (
  c: Compilation,
  m: Modelled,
  compiled: Compiled,
  move: Move,
): { readonly on: SystemSound['wants']; readonly off: SystemSound['wants'] } => {
  const { domains } = m.said;
  const byHand = new Set(compiled.hand.map((h) => h.control));
  const wants = (values: readonly (readonly [Ref, Value | undefined])[]): SystemSound['wants'] => {
    const last = new Map(
      values.flatMap(([control, value]) =>
        value !== undefined && domains.of.has(control) && !byHand.has(control)
          ? [[control, domains.named(control, value)]]
          : [],
      ),
    );
    return [...last].map(([variable, value]) => ({ variable, value }));
  };
  const on = move.on.flatMap((w) => valuesOf(c.bearings, w));
  return {
    on: wants(on),
    off: wants(
      move.off.length
        ? move.off.flatMap((w) => valuesOf(c.bearings, w))
        : on.map(([control]) => [control, compiled.state.get(control)] as const),
    ),
  };
};
