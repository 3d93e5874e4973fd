import type { Act } from '../../rig/act.js';
import { type Device } from '../../rig/device.js';
import { ALWAYS, guardedOnce, isOpen, MAYBE, type Guard } from './guards.js';
import { type Loading } from './loading.js';
import { earOf, FRESH, SAME } from './memos.js';
import { slotTiming, type Missed } from '../actuate/slot-timing.js';
import type { SystemAct } from '../../prover/system.js';
import type { Effects } from './effects.js';
import { type Evening, type How, DEEPEST } from './how.js';
import { surely, theItem } from '../../known/the.js';

/** Nothing of what a message brings about is left out. */
export const AS_SAID = (acts: readonly SystemAct[]): readonly SystemAct[] => acts;

/**
 * What a stored list sends and does in one go, place by place. Messages that fall into the load gap of a box are
 * missed by it. Where that depends on whether it has to load at all,
 * a variable of the system remembers it from the message that would make it load to those that follow.
 */
export const burst = (
  effects: Effects,
  device: Device,
  acts: readonly Act[],
  under: readonly Guard[],
  how: How,
  evening: Evening,
): Loading['list'] => {
  if (how.depth > DEEPEST) return [];
  const { lost, hearing, within = AS_SAID, places = [...acts.keys()] } = evening;
  const timing = slotTiming(effects.b, device.id, acts, lost);
  const ears = new Ears(effects, under);
  const sayAt = (i: number): readonly SystemAct[] => {
    const act = theItem(acts, i);
    const own = effects.guards(device.id, act.when);
    if (!own || i === lost) return [];
    const when = own.length ? [...under, ...own] : under;
    const { missed } = theItem(timing, i);
    if (!('send' in act) || 'bpm' in act.send || (!missed.length && !hearing))
      return within(effects.act(device, act, when, undefined, how));
    const said: SystemAct[] = [];
    for (const [to, all] of effects.answers.heard(device, act, how.depth)) {
      const heard = within(all);
      if (heard.length === 0) continue;
      const asUsual: readonly Hears[] = [{ when: ALWAYS, miss: missed.find((m) => m.device === to.id) }];
      const ways = hearing?.(to)?.map((way): Hears => ({ when: way.when, miss: way.missed.get(i) })) ?? asUsual;
      for (const way of ways) for (const one of ears.hear(to, heard, way)) said.push(one);
    }
    return effects.guarded(when, said);
  };
  return ears.noted(places, places.map(sayAt));
};

/** How a box hears one message: under conditions on what was going on, and whether it may miss it. */
interface Hears {
  readonly when: readonly Guard[];
  readonly miss: Missed | undefined;
}

/** What boxes hear of a list, and what has to be noted at the messages that would make them load. */
class Ears {
  /** By place in the list, what is noted before anything that stands there. */
  private readonly notes = new Map<number, readonly SystemAct[]>();

  constructor(
    private readonly effects: Effects,
    private readonly under: readonly Guard[],
  ) {}

  hear(to: Device, heard: readonly SystemAct[], { when, miss }: Hears): readonly SystemAct[] {
    if (!miss) return isOpen(this.under) ? this.effects.guarded(when, heard) : guardedOnce(when, heard);
    if (!miss.depends) return [];
    const known = [...this.under, ...when];
    this.note(to, miss, known);
    const ear = earOf(to.id);
    const hasHeard = [miss.depends.only === 'not loaded yet' ? SAME : FRESH];
    const maybe = isOpen(known) ? { open: [MAYBE] } : {};
    return this.effects.guarded([...when, { variable: ear, in: hasHeard, ...maybe }], heard);
  }

  /** Remembers, at the message that would make a box load, whether it had that loaded already. */
  private note(to: Device, { first, depends }: Missed, known: readonly Guard[]): void {
    const { control, number } = surely(depends);
    const same = this.effects.guardThatHolds(control, number);
    this.notes.set(first, [
      ...(this.notes.get(first) ?? []),
      ...this.effects.one({ variable: earOf(to.id), set: FRESH }, known),
      ...(same ? this.effects.one({ variable: earOf(to.id), set: SAME }, [...known, ...same]) : []),
    ]);
  }

  noted(places: readonly number[], said: readonly (readonly SystemAct[])[]): Loading['list'] {
    return this.notes.size ? said.map((those, i) => [...(this.notes.get(theItem(places, i)) ?? []), ...those]) : said;
  }
}
