import type { Hookup } from '../../rig/hookup.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { keptIn, once } from '../../kept/kept.js';
import type { Program } from '../../rig/program.js';
import { programAt, thePart, type Rig } from '../../rig/rig.js';
import type { Sound } from '../../rig/sound.js';
import { allows, type ControlFact, type Value, type When } from '../../rig/value.js';
import type { Anatomy, Embedded, Loop } from '../../signal/graph/anatomy.js';
import { jackOf } from '../../signal/graph/wiring.js';
import { onTopOf, restingState, restingValue, type RigState } from '../../signal/graph/state.js';
import { passable } from '../../signal/graph/passable.js';
import { downstream, trace, type Trace } from '../../signal/graph/trace.js';
import type { Because, HearingPair, Problem, Wanted } from './compiled.js';
import { gatesToOpen, toHold, valueAgainst, valueFor } from './gates.js';
import { orderOf, saidBy, type Said } from './wants.js';
import { surely, theEntry, theItem } from '../../known/the.js';
import { blockIds } from '../../rig/domain.js';
import { controlAt, memoryChosenBy, memoryIn, signalCables } from '../../rig/box.js';
import { makesSound, memoriesThatStore } from '../../rig/device.js';
import { keysOf } from '../../known/keys.js';

/**
 * Every control value that a sound needs in a hook-up, said or not, and the state of the rig that follows from them.
 */
export interface Intention {
  readonly wants: ReadonlyMap<Ref, Wanted>;
  readonly state: RigState;
  readonly trace: Trace;
  readonly heard: readonly HearingPair[];
  readonly problems: readonly Problem[];
  readonly pedals: Said['pedals'];
}

/** What belongs to a hook-up and not to a sound: settings, assumptions, and what is in the player's hands. */
export interface Grounds {
  readonly resting: RigState;
  readonly given: ReadonlySet<Ref>;
}

export const groundsOf = (rig: Rig, hookup: Hookup): Grounds => {
  const resting = restingState(rig, hookup);
  const given = new Set<Ref>([...keysOf(hookup.settings), ...hookup.assumes.map((a) => a.control)]);
  for (const device of rig.parts.device.values())
    for (const c of device.controls) if (c.use !== 'sound') given.add(ref(device.id, c.id));
  return { resting, given };
};

/**
 * Gathers wants, the earlier winning: what is said, then stages in, then order, then stages out, then gates, then
 * programs.
 */
class Gatherer {
  readonly wants = new Map<Ref, Wanted>();
  readonly problems: Problem[] = [];

  constructor(private readonly grounds: Grounds) {}

  readonly known = (r: Ref): Value | undefined => {
    const wanted = this.wants.get(r);
    if (wanted) return wanted.value;
    return this.grounds.given.has(r) ? this.grounds.resting.get(r) : undefined;
  };

  want(control: Ref, value: Value, why: Because, within?: ControlFact): void {
    const known = this.known(control);
    if (known === undefined) this.wants.set(control, { control, value, why, ...(within ? { within } : {}) });
    else if (String(known) !== String(value) && why.by === 'said')
      this.problems.push({ is: 'forbidden', control, value, held: known });
  }

  /** Facts that several values make true: what the programs say is taken first. */
  readonly open: { readonly control: Ref; readonly fact: ControlFact; readonly why: Because }[] = [];

  /** The same for a want that many sounds have. */
  take(wanted: Wanted): void {
    if (this.known(wanted.control) === undefined) this.wants.set(wanted.control, wanted);
  }
}

/**
 * What a sound wants, worked out to the last control. Unless it is said from where it is heard, it is played with the
 * first instrument; with another one where the sound itself closes the way of the first, as by the input that it says.
 */
export const intend = (rig: Rig, anatomy: Anatomy, grounds: Grounds, sound: Sound): Intention => {
  const [first, ...others] = inHand(anatomy);
  const usual = intendWith(rig, anatomy, grounds, sound, first);
  const isSilent = ({ problems }: Intention): boolean => problems.some((p) => p.is === 'silent');
  if (others.length === 0 || !isSilent(usual)) return usual;
  // Where nothing comes through whatever is said, a lead is missing: another instrument would only hide that.
  const { parent: _, order: __, ...sayingNothing } = { ...sound, wants: [] };
  if (isSilent(intendWith(rig, anatomy, grounds, sayingNothing, first))) return usual;
  for (const other of others) {
    const played = intendWith(rig, anatomy, grounds, sound, other);
    if (!isSilent(played)) return played;
  }
  return usual;
};

const intendWith = (
  rig: Rig,
  anatomy: Anatomy,
  grounds: Grounds,
  sound: Sound,
  instrument: Ref | undefined,
): Intention => {
  const said = saidHere(rig, anatomy, sound);
  const g = new Gatherer(grounds);
  const free = new Set<Ref>();
  for (const [control, value] of said.controls) {
    if ('is' in value) g.want(control, value.is, { by: 'said' });
    else free.add(control);
  }
  const stages = [...anatomy.stages.values()];
  const named = (s: Embedded) => said.stages.get(s.ref);
  for (const stage of stages) if (named(stage) === 'in') takeIn(rig, g, stage);
  chooseAmong(
    rig,
    g,
    stages.filter((s) => (named(s) ?? 'out') === 'out'),
  );
  const order = orderOf(rig, sound);
  arrange(rig, g, anatomy, { sound, order, said });
  const wantedIn = new Set(stages.filter((s) => named(s) === 'in').map((s) => s.ref));
  const { pairs: heard, problems: unheard } = heardIn(anatomy, sound, instrument);
  const [from, to] = [[...new Set(heard.map((p) => p.from))], [...new Set(heard.map((p) => p.at))]];
  const { stages: inTheWay } = passable(anatomy.wiring, from, to);
  for (const stage of stages)
    if ((named(stage) ?? 'out') === 'out' && !stage.always && !stage.rides && inTheWay.has(stage.ref))
      takeOut(rig, g, stage, wantedIn);
  for (const loop of anatomy.loops) {
    const off = switchedOff(loop, rig, anatomy);
    if (off && !loop.holds.some((r) => wantedIn.has(r) || said.stages.get(r) === 'any')) g.take(off);
  }
  for (const pair of heard) {
    if (pair.as === 'silent' || pair.as === 'either') continue;
    const source = anatomy.wiring.sources.find((s) => s.ref === pair.from);
    const end = anatomy.wiring.ends.find((e) => e.ref === pair.at);
    const opening = source && end && gatesToOpen(rig, anatomy.wiring, source.point, end.point, g.known);
    for (const [control, value] of opening ?? []) g.want(control, value, { by: 'gate' });
  }
  expandPrograms(rig, g, free);
  for (const { control, fact, why } of g.open) {
    const value = g.known(control) === undefined ? valueFor(fact, controlAt(rig, control)) : undefined;
    if (value !== undefined) g.want(control, value, why, fact);
  }

  const state = onTopOf(grounds.resting, { get: (control) => g.wants.get(control)?.value });
  const traced = trace(anatomy.wiring, state, { from, to });
  return {
    wants: g.wants,
    state,
    trace: traced,
    heard,
    pedals: said.pedals,
    problems: [...g.problems, ...unheard, ...whatFails(traced, said, heard, order, anatomy)],
  };
};

/** What a sound says, without what it says of boxes that stay at home in this hook-up. */
const saidHere = (rig: Rig, anatomy: Anatomy, sound: Sound): Said => {
  const said = saidBy(rig, sound, anatomy.hookup);
  const home = leftAtHome(rig, anatomy);
  if (home.size === 0) return said;
  const here = <T>(wants: ReadonlyMap<Ref, T>): ReadonlyMap<Ref, T> =>
    new Map([...wants].filter(([target]) => !home.has(splitRef(target).device)));
  return { stages: here(said.stages), controls: here(said.controls), pedals: here(said.pedals) };
};

/** Boxes that have no cable in this hook-up and do have one in another: they are not part of this one. */
export const leftAtHome = (rig: Rig, { hookup, wiring }: Anatomy): ReadonlySet<Id<'device'>> =>
  keptIn(
    keptIn(atHome, rig.parts.cable, () => new Map<Id<'hookup'>, ReadonlySet<Id<'device'>>>()),
    hookup.id,
    () => {
      const [here, elsewhere] = [
        new Set([...wiring.plugged].map((jack) => splitRef(jack).device)),
        new Set<Id<'device'>>(),
      ];
      for (const cable of signalCables(rig))
        if (cable.hookup !== hookup.id) for (const end of cable.ends) elsewhere.add(splitRef(end).device);
      return new Set([...elsewhere].filter((device) => !here.has(device)));
    },
  );
const atHome = new WeakMap<Rig['parts']['cable'], Map<Id<'hookup'>, ReadonlySet<Id<'device'>>>>();

/** What a loop that holds nothing wanted is to be; nothing where that makes no difference. */
const switchedOff = once((loop: Loop, rig: Rig, anatomy: Anatomy): Wanted | undefined => {
  const fact = loop.insert.on?.[0];
  return isBare(anatomy, loop) ? undefined : fact && switchesFor(rig, loop.device, [fact], { by: 'gate' })[0]?.against;
});

/** Nothing is plugged into it, and it closes by itself: on or off is all the same. */
const isBare = ({ wiring }: Anatomy, { device, insert }: Loop): boolean =>
  insert.unpatched === 'through' &&
  ![...insert.send, ...insert.return].some((t) => wiring.plugged.has(ref(device, jackOf(t.at))));

const takeIn = (rig: Rig, g: Gatherer, stage: Embedded): void => {
  const why: Because = { by: 'stage', stage: stage.ref, is: 'in' };
  const set = (device: Embedded['device'], when: Embedded['block']['on']) => {
    const opening = new Map(toHold(rig, device, when ?? [], g.known) ?? []);
    for (const fact of when ?? []) {
      const control = 'control' in fact ? ref(device, fact.control) : undefined;
      if (!control || !('control' in fact) || !opening.has(control)) continue;
      if ('from' in fact || fact.in.length > 1) g.open.push({ control, fact, why });
      else g.want(control, theEntry(opening, control), why);
    }
  };
  for (const loop of stage.inserts) set(loop.device, loop.insert.on);
  for (const gate of stage.gates) set(gate.device, gate.when);
  set(stage.device, stage.block.on);
};

/**
 * Where several positions bring in what is wanted (one of two amps, or both), the one that brings in least that is not:
 * with none better than where it rests, that one. A position that a called program holds is the program's.
 */
const chooseAmong = (rig: Rig, g: Gatherer, out: readonly Embedded[]): void => {
  const asked = new Map<Ref, { readonly facts: ControlFact[]; readonly why: Because }>();
  for (const { control, fact, why } of g.open)
    if ('in' in fact && g.known(control) === undefined)
      keptIn(asked, control, () => ({ facts: [] as ControlFact[], why })).facts.push(fact);
  for (const [control, { facts, why }] of asked) {
    const { device: id, name } = splitRef(control);
    const device = thePart(rig, id);
    const found = controlAt(rig, control);
    if (!found || !('values' in found.domain)) continue;
    if (memoriesThatStore(device, name).some((m) => g.known(ref(id, m.control)) !== undefined)) continue;
    const letsIn = (value: Value): number =>
      out.filter((s) => {
        const own = [...s.gates, { device: s.device, when: s.block.on ?? [] }].flatMap((gate) =>
          gate.device === id ? gate.when.filter((f) => 'control' in f && f.control === name) : [],
        );
        return own.length > 0 && own.every((f) => 'control' in f && allows(f, value));
      }).length;
    const fit = found.domain.values.filter((v) => facts.every((f) => allows(f, v)));
    const rest = restingValue(found);
    const ranked = fit
      .map((value) => ({ value, lets: letsIn(value), isRest: String(value) === String(rest) }))
      .sort((a, b) => a.lets - b.lets || Number(b.isRest) - Number(a.isRest));
    if (ranked[0]) g.want(control, ranked[0].value, why);
  }
};

/** A fact that keeps something in the path, and what is wanted against it. */
interface Switch {
  readonly fact: ControlFact;
  readonly against: Wanted;
}

const switchesFor = (rig: Rig, device: Embedded['device'], when: When | undefined, why: Because): readonly Switch[] =>
  (when ?? []).flatMap((fact): readonly Switch[] => {
    if (!('control' in fact)) return [];
    const control = ref(device, fact.control);
    const value = valueAgainst(rig, control, fact);
    return value === undefined ? [] : [{ fact, against: { control, value, why } }];
  });

/** What takes a stage out of the path: by the loops around it, and its own. */
const switchesOf = once((stage: Embedded, rig: Rig) => {
  const why: Because = { by: 'stage', stage: stage.ref, is: 'out' };
  return {
    loops: stage.inserts.map((l) => switchesFor(rig, l.device, l.insert.on, why)),
    own: switchesFor(rig, stage.device, stage.block.on, why),
  };
});

/**
 * A loop that holds nothing wanted leaves the path; where the box shares its loop with something wanted, or has none,
 * it is switched off itself.
 */
const takeOut = (rig: Rig, g: Gatherer, stage: Embedded, wantedIn: ReadonlySet<Ref>): void => {
  const switches = switchesOf(stage, rig);
  const isOut = (by: readonly Switch[]): boolean =>
    by.some(({ fact, against }) => {
      g.take(against);
      return !allows(fact, surely(g.known(against.control)));
    });
  const loop = stage.inserts.findIndex((l) => !l.holds.some((r) => wantedIn.has(r)));
  if (loop >= 0 && isOut(theItem(switches.loops, loop))) return;
  if (stage.gates.some((gate) => toHold(rig, gate.device, gate.when, g.known) === undefined)) return;
  isOut(switches.own);
};

/**
 * The arrangement of a switcher or modeller for the wanted order of stages: loops and blocks keep their usual order
 * unless the sound says another.
 */
const arrange = (
  rig: Rig,
  g: Gatherer,
  anatomy: Anatomy,
  { sound, order, said }: { readonly sound: Sound; readonly order: readonly Ref[]; readonly said: Said },
): void => {
  for (const device of rig.parts.device.values()) {
    // What others call in a box that makes the sound is dialled in there, in whatever order.
    const isDialled = makesSound(device) && !sound.calls.some((c) => c.device === device.id);
    for (const chain of device.chains) {
      if (!chain.order || !anatomy.wiring.wired.has(device.id)) continue;
      const usual = chain.slots.map((s) => s.id);
      const place = new Map<string, number>();
      const carry = (slot: string, stages: readonly Ref[]): void => {
        const places = stages
          .filter((r) => said.stages.get(r) === 'in')
          .map((r) => order.indexOf(r))
          .filter((p) => p >= 0);
        if (places.length) place.set(slot, Math.min(...places));
      };
      if (order.length) {
        for (const slot of chain.slots)
          carry(
            slot.id,
            blockIds([slot]).map((id) => ref(device.id, id)),
          );
        for (const loop of anatomy.loops) if (loop.device === device.id) carry(loop.insert.id, loop.holds);
      }
      if (isDialled && place.size === 0) continue;
      const moved = usual.filter((s) => place.has(s)).sort((a, b) => theEntry(place, a) - theEntry(place, b));
      const arrangement = usual.map((s) => (place.has(s) ? surely(moved.shift()) : s)).join(' ');
      g.want(ref(device.id, chain.order), arrangement, { by: 'order' });
    }
  }
};

/**
 * What a wanted program stores is wanted with it, unless the sound says otherwise or leaves it free; what a wanted
 * scene stores, before what the program around it does.
 */
const expandPrograms = (rig: Rig, g: Gatherer, free: ReadonlySet<Ref>): void => {
  const called = [...g.wants.values()].flatMap(({ control, value, why }) => {
    const { device: id, name } = splitRef(control);
    const device = rig.parts.device.get(id);
    const memory = why.by === 'said' ? memoryChosenBy(device, name) : undefined;
    return device && memory ? [{ device, memory, value }] : [];
  });
  const isScene = ({ memory }: (typeof called)[number]): boolean => memory.inside !== undefined;
  for (const { device, memory, value } of [...called.filter(isScene), ...called.filter((c) => !isScene(c))]) {
    const outer = memoryIn(device, memory.inside);
    const program = programAt(
      rig,
      device.id,
      memory.id,
      value,
      outer && numberOf(g.known(ref(device.id, outer.control))),
    );
    if (!program) continue;
    for (const wanted of heldBy(program)) if (!free.has(wanted.control)) g.take(wanted);
  }
};

const numberOf = (value: Value | undefined): number | undefined => (value === undefined ? undefined : Number(value));

/** What is wanted with a program: all that it holds; nothing when that is not known. */
const heldBy = once((program: Program): readonly Wanted[] => {
  const why: Because = { by: 'program', number: program.number };
  return program.contents === 'unplanned'
    ? []
    : Object.entries(program.contents).map(([name, value]) => ({ control: ref(program.device, name), value, why }));
});

/** What a rig is built around, before voices, percussion and bands that come along. */
const STRINGS: ReadonlySet<string> = new Set(['guitar', 'bass', 'acoustic', 'keys']);

/**
 * Which source is to be heard where. Unless said: the first stringed instrument that is wired, else the first of any
 * kind, at the house; without a house at the loudspeakers on stage.
 */
export const wantedPairs = (anatomy: Anatomy, sound: Pick<Sound, 'hears'>): readonly HearingPair[] =>
  heardIn(anatomy, sound, inHand(anatomy)[0]).pairs;

/** The instruments that are plugged in, the usual one first: stringed ones, else the first of any kind. */
const inHand = ({ wiring: { sources, wired } }: Anatomy): readonly Ref[] => {
  const plugged = sources.filter((s) => wired.has(s.device));
  const strings = plugged.filter((s) => s.end.what !== undefined && STRINGS.has(s.end.what));
  return (strings.length ? strings : plugged.slice(0, 1)).map((s) => s.ref);
};

const heardIn = (
  anatomy: Anatomy,
  sound: Pick<Sound, 'hears'>,
  instrument: Ref | undefined,
): { readonly pairs: readonly HearingPair[]; readonly problems: readonly Problem[] } => {
  const { ends, wired } = anatomy.wiring;
  const said = [...(sound.hears ?? anatomy.hookup.hears)];
  const fromSaid = said.flatMap((h): HearingPair[] => {
    const from = h.from === 'the instrument in hand' ? instrument : h.from;
    return from ? [{ from, at: h.at, as: h.as }] : [];
  });
  if (fromSaid.length) return { pairs: fromSaid, problems: [] };
  if (!instrument) return { pairs: [], problems: [{ is: 'unheard', lacks: 'an instrument' }] };
  const there = (is: string) => ends.filter((e) => e.end.is === is && wired.has(e.device));
  const chosen = there('house').length
    ? there('house')
    : there('stage').length
      ? there('stage')
      : ends.filter((e) => e.end.is !== 'tuner' && wired.has(e.device));
  return {
    pairs: chosen.map((e) => ({ from: instrument, at: e.ref, as: 'sounds' })),
    problems: chosen.length ? [] : [{ is: 'unheard', lacks: 'an end' }],
  };
};

const whatFails = (
  t: Trace,
  said: Said,
  heard: readonly HearingPair[],
  order: readonly Ref[],
  anatomy: Anatomy,
): readonly Problem[] => {
  const problems: Problem[] = [];
  for (const [stage, is] of said.stages) {
    if (is === 'in' && t.stages.get(stage) !== 'in') problems.push({ is: 'unreached', stage });
  }
  for (const [stage, embedded] of anatomy.stages) {
    const isWantedOut =
      said.stages.get(stage) === 'out' || (!said.stages.has(stage) && !embedded.always && !embedded.rides);
    if (isWantedOut && t.stages.get(stage) === 'in') problems.push({ is: 'not out', stage });
  }
  for (const { from, at, as } of heard) {
    const reach = t.reaches.find((r) => r.source.ref === from && r.end.ref === at);
    if ((as === 'sounds' || as === 'stereo') && !reach) problems.push({ is: 'silent', from, at });
    if (as === 'silent' && reach) problems.push({ is: 'not silent', from, at });
    if (as === 'stereo' && reach && !(reach.sides.includes('left') && reach.sides.includes('right')))
      problems.push({ is: 'narrow', from, at });
  }
  const inPath = order.filter((r) => t.stages.get(r) === 'in');
  inPath.slice(1).forEach((second, i) => {
    const first = theItem(inPath, i);
    if (!follows(t, first, second)) problems.push({ is: 'order', first, second });
  });
  return problems;
};

/** Whether the signal meets one stage after another. */
const follows = (t: Trace, first: Ref, second: Ref): boolean => {
  const {
    wiring: { blocks, edges },
    active,
  } = t;
  const edgesOf = (stage: Ref) =>
    blocks.flatMap((b) => (b.stage === stage && active[b.edge] ? [theItem(edges, b.edge)] : []));
  const seen = downstream(
    t,
    edgesOf(first).map((e) => e.to),
  );
  return edgesOf(second).some((e) => seen[e.from]);
};
