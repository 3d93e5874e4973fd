import type { Act } from '../../rig/act.js';
import { makesSound, type Actuator, type Device } from '../../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { USUAL_DISTURBANCES } from '../../rig/hookup.js';
import { actsAt, type Program } from '../../rig/program.js';
import { keptIn } from '../../kept/kept.js';
import { all, thePart } from '../../rig/rig.js';
import { pluggedBoxes, type Bearings } from '../actuate/bearings.js';
import { chosenByHand, type Compilation } from '../actuate/compile.js';
import { isOther, type Domains } from './domains.js';
import type { Effects, ModelTools } from './effects.js';
import type { Evening } from './how.js';
import type { Loading } from './loading.js';
import { isOpen } from './guards.js';
import { heldTags, ModelMemory } from './model-memory.js';
import { pluggedPedals } from '../actuate/pedals.js';
import { powerCycle } from './waking.js';
import { type Shelf } from './shelf.js';
import { withoutIdle } from '../../prover/idle.js';
import type { Condition, SystemAct, SystemEvent } from '../../prover/system.js';
import { callsByHalf, callId, otherCalls } from './calls.js';
import { moveEvents } from './switches.js';
import { surely, theFirst } from '../../known/the.js';
import { isAround, placeOf } from '../../rig/box.js';

/** One thing that can happen to the rig, as a player would do it and the bench can repeat it. */
export type Footstep =
  | {
      readonly does: 'recall';
      readonly sound: Id<'sound'>;
      /** The hook-up in which it is called, where it is called otherwise in another. */
      readonly in?: Id<'hookup'>;
      /** So soon after the stomp before, which need not have settled. */
      readonly afterMs?: number;
      /** The message that this controller sends in its place, counted from 0, never arrives. */
      readonly loses?: { readonly device: Id<'device'>; readonly message: number };
    }
  | {
      readonly does: 'call';
      readonly device: Id<'device'>;
      readonly memory: string;
      readonly slot: number;
      /** Nobody wrote down what it holds; here it is taken to hold these, by the system's names. */
      readonly holds?: Readonly<Record<string, string>>;
      /** Stands for any of several that nobody wrote down; this one is called where the first is loaded already. */
      readonly or?: number;
    }
  /** `stomp` is pressed and let go at once: enough where a switch only latches. */
  | {
      readonly does: 'press' | 'release' | 'stomp';
      readonly device: Id<'device'>;
      readonly switch: string;
      /** The message that it sends in this place, counted from 0, never arrives. */ readonly loses?: number;
    }
  | { readonly does: 'foot'; readonly device: Id<'device'>; readonly actuator: string }
  | { readonly does: 'power'; readonly device: Id<'device'>; readonly wakes: Readonly<Record<Ref, string>> }
  /** A pedal is moved to a position of 0 (heel) to 127 (toe), and left there. */
  | { readonly does: 'pedal'; readonly device: Id<'device'>; readonly jack: string; readonly byte: number }
  /** A knob is turned to a value by the system's name. */
  | { readonly does: 'turn'; readonly control: Ref; readonly to: string }
  /** One after the other, taken together as one thing that happens. */
  | { readonly does: 'row'; readonly steps: readonly Footstep[] };

export type Happening = readonly [SystemEvent, Footstep];

/** Everything that can happen to a rig, as far as the hook-up admits it. */
export const happenings = (
  c: Compilation,
  { domains, shelf, effects }: ModelTools,
  memory = new ModelMemory(),
): readonly Happening[] => {
  const b = c.bearings;
  const admits = b.hookup.admits ?? USUAL_DISTURBANCES;
  const found: Happening[] = [];
  for (const compiled of c.sounds.values()) {
    const chosen = chosenByHand(c, compiled.sound);
    found.push(
      memory.keep(
        `recall ${memory.tag(compiled)} ${chosen.map(({ device, memory: m, number }) => `${device.id}.${m.id} ${number}`).join()}`,
        (): Happening => [
          {
            id: `recall:${compiled.sound}`,
            acts: withoutIdle(
              oneAfterTheOther([
                ...chosen.map((x) => effects.loads.load(x.device, x.memory, x.number, [])),
                ...callActs(
                  b,
                  effects,
                  compiled.stored.map((s) => s.program),
                ),
              ]),
              (variable) => domains.of.get(variable as Ref),
            ),
          },
          { does: 'recall', sound: compiled.sound, ...calledIn(b, compiled.sound) },
        ],
      ),
    );
  }
  const halves = callsByHalf(c, shelf);
  for (const program of halves) {
    found.push(
      memory.keep(`call ${memory.tag(program)}`, (): Happening => [
        { id: callId(program.device, program.memory, program.number), acts: loadSlot(b, effects, program) },
        { does: 'call', device: program.device, memory: program.memory, slot: program.number },
      ]),
    );
  }
  if (admits.feet) found.push(...otherCalls(c, { domains, shelf, effects }, new Set(halves), memory));
  if (admits.moves)
    found.push(...moveEvents(b, domains, effects, shelf, memory), ...pedalEvents(b, domains, effects, shelf, memory));
  if (admits.feet) found.push(...memory.keep('feet', () => footEvents(b, effects)));
  if (admits.powerCycle) found.push(...powerEvents(b, domains, shelf, effects, memory));
  if (admits.knobs) found.push(...memory.keep('knobs', () => knobEvents(b, domains)));
  return found.filter(([event, step]) => event.acts.length > 0 || step.does === 'recall');
};

export const oneAfterTheOther = (lists: readonly (readonly SystemAct[])[]): readonly SystemAct[] =>
  lists.length === 1 ? theFirst(lists) : lists.flat();

/** What calling a stored slot does. */
export const loadSlot = (b: Bearings, effects: Effects, program: Program): readonly SystemAct[] => {
  const { device, memory } = placeOf(b.rig, program);
  return effects.loads.load(device, memory, program.number, []);
};

/**
 * What a sound's stomps do, one after the other. Nobody stomps the program around a scene when it is loaded already;
 * whoever does makes the two stomps apart, which is reckoned with as well.
 */
export const callActs = (
  b: Bearings,
  effects: Effects,
  programs: readonly Program[],
): readonly (readonly SystemAct[])[] =>
  programs.map((program, i) => {
    const [before, next] = [programs[i - 1], programs[i + 1]];
    const { device, memory } = placeOf(b.rig, program);
    if (next && isAround(b.rig, program, next)) return effects.loads.loadUnlessLoaded(device, memory, program.number);
    return before && isAround(b.rig, before, program)
      ? effects.loads.loadWithin(device, memory, program.number, before.number)
      : loadSlot(b, effects, program);
  });

/** The same with what each place of its list brings about, also on an evening that is not as usual. */
export const slotLoading = (b: Bearings, effects: Effects, program: Program, evening?: Evening): Loading => {
  const { device, memory } = placeOf(b.rig, program);
  return effects.loads.loading(device, memory, program.number, [], undefined, evening);
};

/** Heel, toe and half way come first: where several positions do the same, one of these stands for them. */
const POSITIONS = [0, 64, 127, ...Array.from({ length: 128 }, (_, i) => i).filter((i) => ![0, 64, 127].includes(i))];

/**
 * A pedal moved to any position that does something of its own: what follows is what the loaded program says about it.
 */
const pedalEvents = (
  b: Bearings,
  domains: Domains,
  effects: Effects,
  shelf: Shelf,
  kept: ModelMemory,
): readonly Happening[] =>
  [...pluggedPedals(b)].flatMap((input) => {
    const { device: id, name: jack } = splitRef(input);
    const device = thePart(b.rig, id);
    const sweeping = [...shelf.values()].filter((p) => p.device === id && p.sweeps?.some((s) => s.jack === jack));
    const fixed = device.actuators.filter((a) => 'expression' in a.by && a.by.expression === jack);
    if (sweeping.length + fixed.length === 0) return [];
    return kept.keep(
      `pedal ${input} ${sweeping.map((p) => `${p.memory} ${p.number} ${JSON.stringify(p.sweeps)}`).join('\n')}`,
      () => {
        const byText = new Map<string, Happening>();
        for (const byte of POSITIONS) {
          const acts = [
            ...sweeping.flatMap((p) => effects.follow(device, actsAt(p.sweeps, jack, byte), loadedIs(b, domains, p))),
            ...effects.setOffInTime(
              fixed.map((a) => [device, a] as const),
              byte,
            ),
          ];
          keptIn(byText, JSON.stringify(acts), (): Happening => [
            { id: `pedal:${input}:${byte}`, acts },
            { does: 'pedal', device: id, jack, byte },
          ]);
        }
        return [...byText.values()].sort(([, x], [, y]) => (x as { byte: number }).byte - (y as { byte: number }).byte);
      },
    );
  });

const loadedIs = (b: Bearings, domains: Domains, program: Program): readonly Condition[] => {
  const { device, memory } = placeOf(b.rig, program);
  const loaded = ref(device.id, memory.control);
  return domains.of.has(loaded) ? [{ variable: loaded, in: [domains.named(loaded, program.number)] }] : [];
};

/**
 * A foot or hand on a switch of a box that is plugged in: all that the switch sets off. Not what recalls a slot, nor
 * what programs assign: those are told by themselves.
 */
const footEvents = (b: Bearings, effects: Effects): readonly Happening[] =>
  all(b.rig, 'device')
    .filter((d) => pluggedBoxes(b.anatomy).has(d.id))
    .flatMap((device) => {
      const bySwitch = new Map<string, Actuator[]>();
      for (const a of device.actuators)
        if ('foot' in a.by || 'hand' in a.by)
          keptIn(bySwitch, 'foot' in a.by ? `${a.by.foot} ${a.by.gesture}` : `hand ${a.by.hand}`, () => []).push(a);
      return [...bySwitch.values()].flatMap((actuators): readonly Happening[] => {
        const [first] = actuators;
        const own = actuators
          .map((a) => ({ ...a, acts: a.acts.filter((act) => isOfFoot(device, act, effects)) }))
          .filter((a) => a.acts.length > 0);
        if (own.length === 0) return [];
        const step: Footstep = { does: 'foot', device: device.id, actuator: surely(first).id };
        const guards = own.length === 1 ? effects.guards(device.id, theFirst(own).when) : undefined;
        if (guards && !isOpen(guards))
          return [
            [
              {
                id: `foot:${device.id}.${surely(first).id}`,
                ...(guards.length ? { when: guards } : {}),
                acts: effects.follow(device, theFirst(own).acts, []),
              },
              step,
            ],
          ];
        return [
          [
            {
              id: `foot:${device.id}.${surely(first).id}`,
              acts: effects.setOffInTime(own.map((a) => [device, a] as const)),
            },
            step,
          ],
        ];
      });
    });

/**
 * Whether an act of a foot switch is told by the switch: what loads a slot is told as a call, what a program assigns
 * as a move, and the bank that shows changes nothing that sounds.
 */
const isOfFoot = (device: Device, act: Act, effects: Effects): boolean => {
  if ('load' in act || 'follow' in act) return false;
  return !('control' in act) || (effects.isVariable(ref(device.id, act.control)) && !isBank(device, act.control));
};

/** Somebody turns a knob of a box that no stored slot owns: it may end anywhere. */
export const knobEvents = (b: Bearings, domains: Domains): readonly Happening[] =>
  all(b.rig, 'device')
    .filter((device) => makesSound(device) || !device.memories.some((m) => m.by))
    .flatMap((device) =>
      device.controls.flatMap((control): readonly Happening[] => {
        const turned = ref(device.id, control.id);
        if (
          !('min' in control.domain) ||
          control.use !== 'sound' ||
          device.memories.some((m) => m.control === control.id)
        )
          return [];
        return (domains.of.get(turned) ?? []).filter(isOther).map((to, i): Happening => [
          { id: `knob:${turned}${i ? `:${i}` : ''}`, acts: [{ variable: turned, set: to }] },
          { does: 'turn', control: turned, to },
        ]);
      }),
    );

const isBank = (device: Device, control: string): boolean => device.memories.some((m) => m.bank?.control === control);

const powerEvents = (
  b: Bearings,
  domains: Domains,
  shelf: Shelf,
  effects: Effects,
  kept: ModelMemory,
): readonly Happening[] =>
  all(b.rig, 'device').flatMap((device) =>
    kept.keep(`power ${device.id}${heldTags(shelf, kept).get(device.id) ?? ''}`, () =>
      powerCycle(b, domains, shelf, effects, device).map(({ acts, wakes }, i): Happening => {
        return [
          { id: `power:${device.id}${i ? `:${i}` : ''}`, acts },
          { does: 'power', device: device.id, wakes },
        ];
      }),
    ),
  );

/** Where a sound is called otherwise in another hook-up, which one is meant. */
export const calledIn = ({ rig, hookup }: Bearings, sound: Id<'sound'>): { readonly in?: Id<'hookup'> } =>
  thePart(rig, sound).calls.some((c) => c.in) ? { in: hookup.id } : {};
