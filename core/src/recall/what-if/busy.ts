import type { Act } from '../../rig/act.js';
import type { Device, Memory } from '../../rig/device.js';
import { ref, type Id, type Ref } from '../../rig/ids.js';
import type { Program } from '../../rig/program.js';
import type { Bearings } from '../actuate/bearings.js';
import { arrivals, missedBy, reaching } from '../actuate/slot-timing.js';
import type { Condition, SystemAct } from '../../prover/system.js';
import { surely, theEntry, theItem } from '../../known/the.js';

/** Remembers for how long a box is still loading after the stomp before. It is no control of the box. */
export const busyOf = (device: Id<'device'>): string => `busy:${device}`;
export const SETTLED = 'settled';
/** Remembers whether a box has begun to load in the stomp that is going on. */
export const loadsOf = (device: Id<'device'>): string => `loads:${device}`;
export const [NO, YES] = ['no', 'yes'];

export const isDeaf = (device: Device, memory: Memory): boolean => device.midi?.messages === 'lost' && memory.gapMs > 0;

/** How long a box is busy after a stomp, in ms, and until when the wire is that the stomp was sent on. */
export interface BusyTime {
  readonly name: string;
  readonly ms: number;
  readonly wire?: Ref;
  readonly wireMs: number;
}

/** Whether a message has to wait on its wire until the box hears again, however soon it is sent. */
export const isQueuedPast = (time: BusyTime, wire: Ref, us: number): boolean =>
  time.wire === wire && time.wireMs * 1000 + us >= time.ms * 1000;

export const isSentOn = (time: BusyTime, from: Id<'device'>, acts: readonly Act[]): boolean =>
  acts.some((act) => 'send' in act && ref(from, act.at) === time.wire);

/** More of them are taken together: the longest, with the wire free the soonest. */
const MOST_TIMES = 8;

const listsOf = (program: Program): readonly (readonly Act[])[] => [
  program.acts,
  ...program.assigns.flatMap((a) => [a.on, a.off]),
];

/** For how long the boxes that miss messages while they load are busy after each slot that may have been called. */
export class BusyTimes {
  private readonly times = new Map<Id<'device'>, readonly BusyTime[]>();
  private readonly bySlot = new Map<Program, ReadonlyMap<Id<'device'>, BusyTime>>();
  private readonly known = new Map<string, readonly SystemAct[]>();
  private readonly conditions = new Map<string, readonly Condition[]>();

  constructor(
    private readonly b: Bearings,
    programs: readonly Program[],
    deaf: readonly Device[],
  ) {
    const gaps = new Map(
      deaf.map((d) => [d.id, Math.max(...d.memories.filter((x) => isDeaf(d, x)).map((x) => x.gapMs))]),
    );
    const found = new Map(deaf.map((d) => [d.id, new Map<string, BusyTime>()]));
    const longest = new Map(gaps);
    for (const program of programs) {
      for (const acts of listsOf(program)) {
        const own = this.after(acts, program, gaps);
        if (acts === program.acts) this.bySlot.set(program, own);
        for (const [id, time] of own) {
          if (acts === program.acts) theEntry(found, id).set(time.name, time);
          longest.set(id, Math.max(theEntry(longest, id), time.ms));
        }
      }
    }
    for (const [id, times] of found) {
      const ms = theEntry(longest, id);
      this.times.set(id, [...inFew([...times.values()]), { name: `${ms}`, ms, wireMs: 0 }]);
    }
  }

  private after(
    acts: readonly Act[],
    { device: from }: Program,
    gaps: ReadonlyMap<Id<'device'>, number>,
  ): ReadonlyMap<Id<'device'>, BusyTime> {
    const until = new Map<Id<'device'>, BusyTime>();
    if (!acts.some((act) => 'send' in act && 'pc' in act.send)) return until;
    const us = arrivals(acts);
    for (const [device, messages] of reaching(this.b, from, acts)) {
      const gap = gaps.get(device.id);
      if (gap === undefined) continue;
      const missed = missedBy(device, messages);
      const last = messages.findLast(
        ({ place, message }) => 'pc' in message && (!missed.has(place) || theEntry(missed, place).depends),
      );
      const act = last && theItem(acts, last.place);
      if (!act || !('send' in act)) continue;
      const [ms, wireMs] = [
        last.us / 1000 + gap,
        Math.max(...acts.map((a, i) => ('send' in a && a.at === act.at ? theItem(us, i) : 0))) / 1000,
      ];
      const wire = ref(from, act.at);
      until.set(device.id, { name: `${ms} ${wire} ${wireMs}`, ms, wire, wireMs });
    }
    return until;
  }

  /** Every time that can keep this box busy; empty when it always hears. */
  of(device: Id<'device'>): readonly BusyTime[] {
    return this.times.get(device) ?? [];
  }

  /** The box is busy for one of these times; the very same conditions each time. */
  when(device: Id<'device'>, names: readonly string[]): readonly Condition[] {
    const key = `${device} ${names.join()}`;
    const known = this.conditions.get(key) ?? [{ variable: busyOf(device), in: names }];
    this.conditions.set(key, known);
    return known;
  }

  /** After a slot was called, or whatever else was done: what began to load goes on loading. */
  goOn(called?: Program): readonly SystemAct[] {
    const acts = [...this.times].map(([device, times]) => {
      const own = called && this.bySlot.get(called)?.get(device);
      const time =
        own &&
        (times.find((t) => t.name === own.name) ??
          times.find((t) => t.ms >= own.ms && t.wire === own.wire && t.wireMs <= own.wireMs));
      return [device, (time ?? surely(times.at(-1))).name] as const;
    });
    const key = acts.map(([, to]) => to).join();
    const known =
      this.known.get(key) ??
      acts.flatMap(([device, to]): readonly SystemAct[] => [
        { variable: busyOf(device), when: [{ variable: loadsOf(device), in: [YES] }], set: to },
        { variable: loadsOf(device), set: NO },
      ]);
    this.known.set(key, known);
    return known;
  }
}

const inFew = (times: readonly BusyTime[]): readonly BusyTime[] => {
  if (times.length <= MOST_TIMES) return times;
  return [...new Set(times.map((t) => t.wire))].map((wire) => {
    const alike = times.filter((t) => t.wire === wire);
    const [ms, wireMs] = [Math.max(...alike.map((t) => t.ms)), Math.min(...alike.map((t) => t.wireMs))];
    return { name: `${ms} ${wire} ${wireMs}`, ms, wire, wireMs };
  });
};
