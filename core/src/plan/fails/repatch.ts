import { nothing, together, type Edit } from '../../change/edit.js';
import { connect, mayJoin, offers, unplug } from '../../edits/cables.js';
import { bridged } from '../../edits/place.js';
import { inOf, outOf } from '../../edits/wire.js';
import { lazily } from '../../kept/kept.js';
import { grouped } from '../../known/grouped.js';
import { theEntry, theFirst } from '../../known/the.js';
import { turnedTo } from '../../electric/in-hand.js';
import { feeds, supplyNeedsIn, supplyOutputs } from '../../electric/supply.js';
import type { Compilation } from '../../recall/actuate/compile.js';
import { jackAt, signalCables, wiredBoxes } from '../../rig/box.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { all, cablesOf, partOf, thePart, type Rig } from '../../rig/rig.js';
import type { Cable, Hookup } from '../../rig/hookup.js';
import type { Device } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import type { Value } from '../../rig/value.js';
import { onTopOf } from '../../signal/graph/state.js';
import { wire } from '../../signal/graph/wiring.js';
import { deafAfter, deafBy, followedIn, outcomeOf, wholeOf, type Deaf, type SoundAfter } from './after.js';
import { bestOf, type Tried, type Way } from './best-way.js';
import { brokenBy, type Failure } from './failure.js';
import { following, type Broken } from './left.js';

/** One move of a hand at the plugs. */
export type Hand =
  | { readonly does: 'move'; readonly from: Ref; readonly to: Ref; readonly other: Ref }
  | { readonly does: 'pull'; readonly at: Ref; readonly other: Ref }
  | { readonly does: 'lead'; readonly from: Ref; readonly to: Ref }
  /** No plug at all: a pedal whose bypass is nothing but a switch, stomped off. */
  | { readonly does: 'stomp'; readonly device: Id<'device'> }
  /** A selector, turned to another instrument. */
  | { readonly does: 'turn'; readonly control: Ref; readonly value: Value };

/** Moves of a hand, and the edit of leads that they are. */
interface Moves {
  readonly edit: Edit;
  readonly hands: readonly Hand[];
  /** Leads that are not plugged now. */
  readonly leads: number;
}

/** A way to get most of it back with plugs and leads, and what comes back by it. */
export interface Repatch extends Moves {
  /** Every sound with it done. */
  readonly after: readonly SoundAfter[];
}

type WayOut = Moves & Way;

/** So many other boxes are tried for a dead one. */
const MOST_TRIED = 4;

/**
 * The quickest way out of a failure: the one after which most sounds are heard everywhere, then miss least, then take
 * the fewest moves of a hand. Each is tried: the signal is followed through the rig as it would then be plugged.
 *
 * @returns undefined where plugs do not help, or nothing has to be done
 */
export const quickestRepatch = (
  compilation: Compilation,
  failure: Failure,
  after: readonly SoundAfter[],
): Repatch | undefined => {
  const { rig, hookup } = compilation.bearings;
  const ids = new NewIds();
  if (after.every((a) => outcomeOf(a) === 'whole')) return undefined;
  if (failure.is === 'cable') {
    // Another lead in its place: all is as it was.
    const edit = connect(rig, hookup.id, ids.cable(), failure.from, failure.to);
    const whole = after.map((a) => ({ ...a, silentAt: [], misses: [], stays: [], isBare: false, uncalled: false }));
    return { edit, ...handsOf(rig, hookup.id, edit), after: whole };
  }
  const byHand = stompedOff(compilation, failure, after) ?? otherInHand(compilation, failure, after);
  if (byHand) return byHand;
  const deaf = deafBy(failure, compilation);
  const wayOf = (edit: Edit): WayOut => ({
    edit,
    ...handsOf(rig, hookup.id, edit),
    with: repatched(compilation, failure, edit, deaf),
  });
  let best: Tried<WayOut> | undefined;
  for (const some of waysOut(compilation, failure, after, ids)) {
    const ways = grouped(some().map(wayOf), ({ hands }) => JSON.stringify(hands));
    const alike = [...ways.values()].map(theFirst);
    best = bestOf(alike, after, best) ?? best;
    // What a hand does nearby is enough; only where sounds stay silent it is looked for further away.
    if (best?.after.every((a) => a.silentAt.length === 0)) break;
  }
  if (!best) return undefined;
  const { edit, hands, leads } = best.way;
  return { edit, hands, leads, after: best.after };
};

/** A dead pedal with a mechanical bypass, taken out by the foot: the signal goes past it (common practice). */
const stompedOff = (compilation: Compilation, failure: Failure, before: readonly SoundAfter[]): Repatch | undefined => {
  const { rig, hookup } = compilation.bearings;
  const [first] = compilation.sounds.values();
  if (failure.is !== 'box' || !first) return undefined;
  const { id, chains, controls } = thePart(rig, failure.device);
  const top = new Map<Ref, Value>(
    chains
      .flatMap((c) => blocksIn(c.slots))
      .filter((b) => b.bypass === 'true')
      .flatMap((b) => b.on ?? [])
      .flatMap((fact): readonly (readonly [Ref, Value])[] => {
        if (!('in' in fact)) return [];
        const control = controls.find((c) => c.id === fact.control);
        const off = control && 'values' in control.domain && control.domain.values.find((v) => !fact.in.includes(v));
        return off === undefined || off === false ? [] : [[ref(id, fact.control), off]];
      }),
  );
  if (top.size === 0) return undefined;
  const follow = following(rig, first.trace.wiring, brokenBy(rig, hookup, failure));
  const after: SoundAfter[] = [];
  for (const was of before) {
    const whole = wholeOf(theEntry(compilation.sounds, was.sound));
    const is = was.silentAt.length === 0 ? was : { ...was, ...follow({ ...whole, state: onTopOf(whole.state, top) }) };
    if (!isAllThatCanBe(is, failure)) return undefined;
    after.push(is);
  }
  return { edit: nothing, hands: [{ does: 'stomp', device: id }], leads: 0, after };
};

/** Another instrument of the kind that is plugged already, with the selector turned to it. */
const otherInHand = (
  compilation: Compilation,
  failure: Failure,
  before: readonly SoundAfter[],
): Repatch | undefined => {
  const { rig, hookup } = compilation.bearings;
  const [first] = compilation.sounds.values();
  if (failure.is !== 'box' || !first) return undefined;
  const { sources } = first.trace.wiring;
  const dead = sources.find((s) => s.device === failure.device);
  const broken = brokenBy(rig, hookup, failure);
  for (const source of dead ? sources : []) {
    const turned = source.end.what === dead?.end.what && source !== dead && turnedTo(rig, first.trace, source);
    if (!turned) continue;
    const top = new Map([[turned.control, turned.value]]);
    const follow = following(rig, first.trace.wiring, broken);
    const after = before.map((was): SoundAfter => {
      const whole = wholeOf(theEntry(compilation.sounds, was.sound));
      const heard = whole.heard.map((h) => (h.from === dead?.ref ? { ...h, from: source.ref } : h));
      return { ...was, ...follow({ ...whole, heard, state: onTopOf(whole.state, top) }) };
    });
    if (after.every((a) => a.silentAt.length === 0))
      return {
        edit: nothing,
        hands: [{ does: 'turn', control: turned.control, value: turned.value }],
        leads: 0,
        after,
      };
  }
  return undefined;
};

/** Nothing is missing but what the dead box itself did. */
const isAllThatCanBe = ({ silentAt, misses, stays, isBare }: SoundAfter, failure: Failure): boolean =>
  silentAt.length === 0 &&
  stays.length === 0 &&
  !isBare &&
  misses.every((stage) => failure.is === 'box' && splitRef(stage).device === failure.device);

class NewIds {
  private made = 0;
  cable = (): Id<'cable'> => `cable:rescue-${(this.made += 1)}`;
}

type Tries = () => readonly Edit[];

/** Ways out that are worth trying, the nearest first; each group is asked for only when it is needed. */
const waysOut = (
  compilation: Compilation,
  failure: Exclude<Failure, { is: 'cable' }>,
  after: readonly SoundAfter[],
  ids: NewIds,
): readonly Tries[] => {
  const { rig, hookup } = compilation.bearings;
  const safe = (edits: readonly Edit[]) => edits.filter((e) => e.put.length + e.remove.length > 0 && isSafe(rig, e));
  if (failure.is !== 'box') return [() => safe([fedElsewhere(rig, hookup.id, failure, ids)])];
  const { device } = failure;
  const cables = cablesOf(rig, hookup.id).filter((c) => c.ends.some((end) => splitRef(end).device === device));
  const heard = cables.filter((c) => c.ends.every((end) => jackAt(rig, end)?.kind === 'audio'));
  const pulled = unplug(...heard.map((c) => c.id));
  const follows = after.some((a) => a.stays.length > 0) ? ledPast(rig, hookup.id, cables, device, ids) : nothing;
  const withControl = (edits: readonly Edit[]) => safe([...edits, nothing].map((edit) => together(edit, follows)));
  return [
    () => withControl([pulled, bridged(rig, hookup.id, device, ids.cable), ...others(rig, hookup.id, device, ids)]),
    () => withControl(elsewhere(compilation, heard, device, ids, pulled)),
  ];
};

/** No lead of it joins what must not be joined, such as an instrument and a loudspeaker. */
const isSafe = (rig: Rig, edit: Edit): boolean =>
  edit.put.every((p) => p.kind !== 'cable' || mayJoin(rig, p.ends[0], p.ends[1]));

/** What a dead box passed on to others, such as MIDI, led past it. */
const ledPast = (rig: Rig, hookup: Id<'hookup'>, cables: readonly Cable[], dead: Id<'device'>, ids: NewIds): Edit => {
  const far = (c: Cable): Ref => (splitRef(c.ends[0]).device === dead ? c.ends[1] : c.ends[0]);
  const midi = cables.filter((c) => jackAt(rig, far(c))?.kind === 'midi');
  const from = midi.map(far).find((end) => jackAt(rig, end)?.poles.tip === 'out');
  const to = midi.map(far).find((end) => jackAt(rig, end)?.poles.tip === 'in');
  return from && to ? connect(rig, hookup, ids.cable(), from, to) : nothing;
};

/** Boxes of a dead output, each on a free one that suits it. */
const fedElsewhere = (
  rig: Rig,
  hookup: Id<'hookup'>,
  failure: Extract<Failure, { is: 'output' | 'supply' }>,
  ids: NewIds,
): Edit => {
  const taken = new Set(cablesOf(rig, hookup).flatMap((c) => c.ends));
  const free = supplyOutputs(rig).filter((o) => !taken.has(o.jack) && !isDead(failure, o.jack));
  const edits = supplyNeedsIn(rig, hookup)
    .filter((need) => failure.feeds.includes(need.jack))
    .flatMap((need) => {
      const at = free.findIndex(
        (o) => o.centre === need.centre && o.milliamps >= need.milliamps && o.volts.some((v) => need.volts.includes(v)),
      );
      const [output] = at < 0 ? [] : free.splice(at, 1);
      return output ? [connect(rig, hookup, ids.cable(), output.jack, need.jack)] : [];
    });
  return together(...edits);
};

const isDead = (failure: Extract<Failure, { is: 'output' | 'supply' }>, output: Ref): boolean =>
  failure.is === 'output' ? output === failure.output : splitRef(output).device === failure.device;

/** What stays broken when it is plugged so: a box that is fed elsewhere has light. */
const brokenStill = (rig: Rig, then: Rig, hookup: Hookup, failure: Exclude<Failure, { is: 'cable' }>): Broken => {
  const broken = brokenBy(rig, hookup, failure);
  if (failure.is === 'box') return broken;
  const lit = new Set(
    feeds(then, hookup).flatMap((f) =>
      f.given && !f.given.outputs.some((o) => isDead(failure, o.jack)) ? [f.need.device] : [],
    ),
  );
  return { ...broken, dark: new Set([...broken.dark].filter((id) => !lit.has(id))) };
};

/** Another instrument of the kind on the lead of a dead one. */
const others = (rig: Rig, hookup: Id<'hookup'>, dead: Id<'device'>, ids: NewIds): readonly Edit[] => {
  const own = thePart(rig, dead).ends?.find((e) => e.is === 'source');
  const lead = cablesOf(rig, hookup).find((c) => c.ends.some((end) => end === ref(dead, own?.at ?? '')));
  const to = lead?.ends.find((end) => splitRef(end).device !== dead);
  if (!own || !lead || !to) return [];
  return all(rig, 'device').flatMap((d) =>
    (d.ends ?? [])
      .filter((e) => e.is === 'source' && e.what === own.what && d.id !== dead)
      .map((e) => connect(rig, hookup, ids.cable(), ref(d.id, e.at), to)),
  );
};

/** Boxes from which leads still go, past a dead one, to where sounds are to be heard, and that itself. */
const stillLedOn = (
  { bearings: { rig, hookup }, sounds }: Compilation,
  dead: Id<'device'>,
): ReadonlySet<Id<'device'>> => {
  const leads = signalCables(rig, hookup.id).map((c) => c.ends.map((end) => splitRef(end).device));
  const whole = leads.filter((boxes) => !boxes.includes(dead));
  const heardAt = [...sounds.values()].flatMap((s) => s.heard.flatMap((h) => (h.as === 'silent' ? [] : [h.at])));
  const reached = new Set(heardAt.map((at) => splitRef(at).device));
  reached.delete(dead);
  for (const box of reached) for (const boxes of whole) if (boxes.includes(box)) boxes.forEach((b) => reached.add(b));
  return reached;
};

/**
 * What led into a dead box goes to another one that takes it: at once, or over a box that is not plugged here, such as a
 * DI. Its other leads stay, or are pulled so that loops close.
 */
const elsewhere = (
  compilation: Compilation,
  cables: readonly Cable[],
  dead: Id<'device'>,
  ids: NewIds,
  pulled: Edit,
): readonly Edit[] => {
  const { rig } = compilation.bearings;
  const hookup = compilation.bearings.hookup.id;
  const here = wiredBoxes(rig, hookup);
  // An amp that stands aside has no load: it is no way to the desk.
  const isAmp = ({ jacks }: Device): boolean => jacks.some((j) => j.level === 'speaker' && j.poles.tip === 'out');
  const free = all(rig, 'device').filter((d) => d.id !== dead && d.zone !== 'supply' && !here.has(d.id) && !isAmp(d));
  const isEnd = (jack: Ref): boolean =>
    (partOf(rig, splitRef(jack).device)?.ends ?? []).some((e) => e.is !== 'source' && e.is !== 'tuner');
  const ledOn = stillLedOn(compilation, dead);
  const offered = (from: Ref) => offers(rig, hookup, from).filter((o) => ledOn.has(splitRef(o.jack).device));
  const join = (from: Ref, to: Ref): Edit => connect(rig, hookup, ids.cable(), from, to);
  const led = cables.flatMap((c) =>
    c.ends.filter((end) => splitRef(end).device !== dead && jackAt(rig, end)?.poles.tip === 'out'),
  );
  const ways = led.flatMap((from): readonly Edit[] => [
    ...offered(from)
      .filter((o) => !o.taken)
      .slice(0, MOST_TRIED)
      .map((o) => join(from, o.jack)),
    ...free.slice(0, MOST_TRIED * 2).flatMap((box) => {
      const [into, out] = [inOf(box), outOf(box)];
      const desk = out && offered(ref(box.id, out.id)).find((o) => !o.taken && isEnd(o.jack));
      return into && out && desk && mayJoin(rig, from, ref(box.id, into.id))
        ? [together(join(from, ref(box.id, into.id)), join(ref(box.id, out.id), desk.jack))]
        : [];
    }),
  ]);
  return ways.flatMap((way) => [way, together(pulled, way)]);
};

/** What becomes of a sound with a failure and an edit of leads made; the leads are followed when it is first asked. */
const repatched = (
  compilation: Compilation,
  failure: Exclude<Failure, { is: 'cable' }>,
  edit: Edit,
  deafNow: Deaf,
): Way['with'] => {
  const { rig, hookup } = compilation.bearings;
  const now = lazily(() => {
    const then = withLeads(rig, edit);
    const broken = brokenStill(rig, then, hookup, failure);
    return {
      then,
      broken,
      deaf: isOfSignal(rig, edit) ? deafNow : deafAfter(compilation, then, failure),
      follow: following(then, wire(then, hookup), broken),
    };
  });
  return ({ sound }) => {
    const { then, broken, deaf, follow } = now();
    const compiled = theEntry(compilation.sounds, sound);
    const whole = wholeOf(compiled);
    const heard = failure.is === 'box' ? fromAnother(then, whole, failure.device, edit) : whole;
    return { sound, ...follow(heard), ...followedIn(compilation.bearings, compiled, broken, deaf) };
  };
};

/** Only leads of the signal are moved: who hears whom stays as it is. */
const isOfSignal = (rig: Rig, { put, remove }: Edit): boolean =>
  [...put, ...remove.flatMap((id) => rig.parts.cable.get(id as Id<'cable'>) ?? [])].every(
    (p) => p.kind === 'cable' && p.ends.every((end) => jackAt(rig, end)?.kind === 'audio'),
  );

/** The rig with other leads; nothing but leads is put and taken. */
const withLeads = (rig: Rig, { put, remove }: Edit): Rig => {
  const cable = new Map(rig.parts.cable);
  for (const id of remove) cable.delete(id as Id<'cable'>);
  for (const part of put) if (part.kind === 'cable') cable.set(part.id, part);
  return { ...rig, parts: { ...rig.parts, cable } };
};

/** A sound of a dead instrument is heard from the one that was plugged instead. */
const fromAnother = (
  rig: Rig,
  whole: ReturnType<typeof wholeOf>,
  dead: Id<'device'>,
  { put }: Edit,
): ReturnType<typeof wholeOf> => {
  const sources = put.flatMap((p) =>
    p.kind === 'cable'
      ? p.ends.filter((end) =>
          partOf(rig, splitRef(end).device)?.ends?.some((e) => e.is === 'source' && e.at === splitRef(end).name),
        )
      : [],
  );
  const [instead] = sources;
  return instead === undefined
    ? whole
    : { ...whole, heard: whole.heard.map((h) => (splitRef(h.from).device === dead ? { ...h, from: instead } : h)) };
};

/** An edit of leads as moves of a hand: a plug from one jack to another, a plug pulled, a lead that was not there. */
const handsOf = (rig: Rig, hookup: Id<'hookup'>, edit: Edit): Pick<Repatch, 'hands' | 'leads'> => {
  const removed = edit.remove.flatMap((id) => cablesOf(rig, hookup).find((c) => c.id === id) ?? []);
  const hands: Hand[] = [];
  let leads = 0;
  const used = new Set<Cable>();
  for (const part of edit.put) {
    if (part.kind !== 'cable') continue;
    const shared = removed.find((c) => !used.has(c) && c.ends.filter((end) => part.ends.includes(end)).length === 1);
    const stays = shared?.ends.find((end) => part.ends.includes(end));
    const from = shared?.ends.find((end) => !part.ends.includes(end));
    const to = part.ends.find((end) => end !== stays);
    if (shared && stays && from && to) {
      used.add(shared);
      hands.push({ does: 'move', from, to, other: stays });
    } else {
      leads += 1;
      hands.push({ does: 'lead', from: part.ends[0], to: part.ends[1] });
    }
  }
  const filled = new Set(edit.put.flatMap((p) => (p.kind === 'cable' ? p.ends : [])));
  const pulls = removed
    .filter(
      (c) => !used.has(c) && !edit.put.some((p) => p.kind === 'cable' && c.ends.every((end) => p.ends.includes(end))),
    )
    .map((c): Hand => {
      const at = c.ends.find((end) => filled.has(end)) ?? c.ends[0];
      return { does: 'pull', at, other: c.ends.find((end) => end !== at) ?? at };
    });
  return { hands: [...pulls, ...hands], leads };
};
