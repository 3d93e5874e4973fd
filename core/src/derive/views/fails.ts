import type { Edit } from '../../change/edit.js';
import { theEntry } from '../../known/the.js';
import { afterFailure, outcomeOf, OUTCOMES, wholeOf, type Outcome, type SoundAfter } from '../../plan/fails/after.js';
import { failuresOf, keyOf, type Failure } from '../../plan/fails/failure.js';
import { quickestRepatch, type Hand, type Repatch } from '../../plan/fails/repatch.js';
import { feeds, supplyNeeds } from '../../electric/supply.js';
import { bearings } from '../../recall/actuate/bearings.js';
import { compile } from '../../recall/actuate/compile.js';
import { controlText, valueText } from '../../recall/words/words.js';
import type { Hookup } from '../../rig/hookup.js';
import { supplyText } from './power.js';
import { boxText, endText, stageText } from '../../recall/words/part-words.js';
import { boxesAlong, jackAt } from '../../rig/box.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { all, partOf, thePart, type Rig } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { withoutCalls } from './without-lists.js';

export const FAILURE_GROUPS = ['Boxes', 'Leads', 'Supply'] as const;

/** What becomes of one sound, in words. */
export interface SoundFate {
  readonly sound: Id<'sound'>;
  readonly name: string;
  readonly is: Outcome;
  readonly text: string;
  /** Stages of it that are not on its way any more. */
  readonly misses: readonly Ref[];
  /** A sound of its role that is whole, to be stomped instead. */
  readonly instead?: string;
}

/** The quickest way to get most of it back. */
export interface WayBack {
  readonly steps: readonly string[];
  /** How many plugs are moved or pulled, and how many leads more it takes. */
  readonly plugs: number;
  readonly leads: number;
  /** What a person must heed before touching anything; absent where nothing is dangerous. */
  readonly caution?: string;
  readonly says: string;
  readonly sounds: readonly SoundFate[];
  readonly edit: Edit;
}

/** One thing that can fail, what is lost by it, and the way out. */
export interface FailureView {
  readonly key: string;
  readonly group: (typeof FAILURE_GROUPS)[number];
  /** What fails. @example 'Compressor dies' */
  readonly text: string;
  readonly says: string;
  /** The jacks of a lead that breaks. @example 'SEL out → TUN in' */
  readonly lead?: string;
  /** How many sounds are left in what way. */
  readonly counts: Readonly<Record<Outcome, number>>;
  readonly sounds: readonly SoundFate[];
  readonly way?: WayBack;
  /** What is needed where plugs do not help. */
  readonly needs?: string;
  /** What foot and hand do at the boxes themselves where what calls a sound is dead, and the rest of it plays on. */
  readonly byHand?: readonly HandsOfSound[];
}

export interface HandsOfSound {
  readonly name: string;
  /** @example ['DLY program 3'] */
  readonly hands: readonly string[];
}

const jackText = (rig: Rig, jack: Ref): string => {
  const { device, name } = splitRef(jack);
  return `${partOf(rig, device)?.code ?? ''} ${name}`;
};

const failureText = (rig: Rig, failure: Failure): string => {
  switch (failure.is) {
    case 'box': {
      const isInstrument = thePart(rig, failure.device).ends?.some((e) => e.is === 'source');
      return `${boxText(rig, failure.device)} ${isInstrument ? 'fails, or a string breaks' : 'dies'}`;
    }
    case 'cable':
      return `The lead from ${jackText(rig, failure.from)} to ${jackText(rig, failure.to)} breaks`;
    case 'output':
      return `${jackText(rig, failure.output)} fails, which feeds ${failure.feeds.map((j) => boxText(rig, splitRef(j).device)).join(', ')}`;
    case 'supply':
      return `${boxText(rig, failure.device)} dies, and all that hangs on it`;
  }
};

const groupOf = ({ is }: Failure): FailureView['group'] =>
  is === 'box' ? 'Boxes' : is === 'cable' ? 'Leads' : 'Supply';

const fateText = (rig: Rig, after: SoundAfter): string => {
  const names = (ids: readonly string[]): string => [...new Set(ids)].join(', ');
  const without = names(after.misses.map((s) => stageText(rig, s)));
  const stays = names(after.stays.map((id) => boxText(rig, id)));
  switch (outcomeOf(after)) {
    case 'silent':
      return 'silent';
    case 'partly silent':
      return `silent at ${names(after.silentAt.map((r) => endText(rig, r)))}`;
    case 'not called':
      return `heard, but nothing calls it${without ? `; without ${without}` : ''}`;
    case 'less':
      return [without && `without ${without}`, stays && `${stays} does not follow: set it by hand`]
        .filter(Boolean)
        .join('; ');
    case 'whole':
      return 'as it is';
  }
};

const fatesOf = (rig: Rig, after: readonly SoundAfter[]): readonly SoundFate[] => {
  const whole = after.filter((a) => outcomeOf(a) === 'whole').flatMap((a) => partOf(rig, a.sound) ?? []);
  return after.map((a): SoundFate => {
    const sound = partOf(rig, a.sound);
    const is = outcomeOf(a);
    const instead = is === 'silent' || is === 'partly silent' ? whole.find((w) => w.role === sound?.role) : undefined;
    return {
      sound: a.sound,
      name: sound?.name ?? '',
      is,
      text: fateText(rig, a),
      misses: a.misses,
      ...(instead ? { instead: instead.name } : {}),
    };
  });
};

const countsOf = (sounds: readonly SoundFate[]): FailureView['counts'] =>
  Object.fromEntries(OUTCOMES.map((is) => [is, sounds.filter((s) => s.is === is).length])) as FailureView['counts'];

/** @example '8 of 16 silent, 8 as they are' */
const saysOf = (counts: FailureView['counts']): string => {
  const all = Object.values(counts).reduce((a, b) => a + b, 0);
  if (all === 0) return 'No sounds yet.';
  if (counts.whole === all) return 'Every sound is as it is.';
  if (counts.silent === all) return 'Every sound is silent.';
  const words: Readonly<Record<Outcome, string>> = {
    silent: 'silent',
    'partly silent': 'silent in part',
    'not called': 'heard, but not called',
    less: 'heard with something missing',
    whole: 'as they are',
  };
  return `${OUTCOMES.flatMap((is) => (counts[is] ? [`${counts[is]} of ${all} ${words[is]}`] : [])).join(', ')}.`;
};

const handText = (rig: Rig, hand: Hand): string => {
  switch (hand.does) {
    case 'pull':
      return `Pull the plug out of ${jackText(rig, hand.at)} (the lead to ${jackText(rig, hand.other)}).`;
    case 'move':
      return `Take the plug out of ${jackText(rig, hand.from)} and put it into ${jackText(rig, hand.to)}; its other end stays in ${jackText(rig, hand.other)}.`;
    case 'stomp':
      return `Stomp ${boxText(rig, hand.device)} off: its bypass is a switch, and lets the signal past it.`;
    case 'turn':
      return `Turn ${controlText(rig, hand.control)} to ${valueText(rig, hand.control, hand.value)}, and take the other instrument.`;
    case 'lead':
      return `Take a lead from ${jackText(rig, hand.from)} to ${jackText(rig, hand.to)}.`;
  }
};

const jacksOf = (hand: Hand): readonly Ref[] =>
  hand.does === 'turn' || hand.does === 'stomp'
    ? []
    : hand.does === 'pull'
      ? [hand.at, hand.other]
      : hand.does === 'move'
        ? [hand.from, hand.to, hand.other]
        : [hand.from, hand.to];

const AMP_CAUTION =
  'Switch the amp off before you touch its speaker lead, and never let a valve amp play without its load. What is dead inside belongs to a licensed technician.';
const POWER_CAUTION = 'Check volts, polarity and milliamps before you plug: they suit by what is written of both.';

const cautionOf = (rig: Rig, failure: Failure, hands: readonly Hand[]): string | undefined => {
  const jacks = hands.flatMap((h) => jacksOf(h)).flatMap((r) => jackAt(rig, r) ?? []);
  if (jacks.some((j) => j.level === 'speaker')) return AMP_CAUTION;
  return failure.is === 'output' || failure.is === 'supply' || jacks.some((j) => j.kind === 'power')
    ? POWER_CAUTION
    : undefined;
};

/** Boxes that stood aside and have to be fed before they take part. */
const toBeFed = (rig: Rig, hookup: Hookup, { put }: Edit): readonly string[] => {
  const here = boxesAlong(rig, hookup.id);
  const now = new Set(put.flatMap((p) => (p.kind === 'cable' ? p.ends.map((end) => splitRef(end).device) : [])));
  const aside = new Set([...now].filter((id) => !here.has(id)));
  if (aside.size === 0) return [];
  const fed = new Set(feeds(rig, hookup).flatMap((f) => (f.given ? [f.need.device] : [])));
  return supplyNeeds(rig)
    .filter((n) => aside.has(n.device) && !fed.has(n.device))
    .map((n) => `Feed ${boxText(rig, n.device)}: it wants ${supplyText(n)}.`);
};

/** Common practice: what a cabinet takes off the top is heard without one. */
const BARE = 'No cabinet shapes it now: ask the house to take the harsh top off.';

const wayBack = ({ rig, hookup }: Derived, failure: Failure, { hands, leads, after, edit }: Repatch): WayBack => {
  const sounds = fatesOf(rig, after);
  const caution = cautionOf(rig, failure, hands);
  return {
    steps: [
      ...hands.map((h) => handText(rig, h)),
      ...toBeFed(rig, hookup, edit),
      ...(after.some((a) => a.isBare) ? [BARE] : []),
    ],
    plugs: hands.filter((h) => h.does === 'move' || h.does === 'pull').length,
    leads,
    ...(caution ? { caution } : {}),
    says: saysOf(countsOf(sounds)),
    sounds,
    edit,
  };
};

/** What is needed where no plug helps. */
const needsOf = (rig: Rig, failure: Failure): string => {
  switch (failure.is) {
    case 'box':
      return `Nothing at hand takes its place. Carry a spare ${boxText(rig, failure.device)}, or know who lends one.`;
    case 'supply':
      return `The other supplies have no room for all of it. Carry a spare, or leads with several plugs.`;
    case 'output':
      return 'No free output suits. Carry a battery or an adaptor for it, or a lead with several plugs.';
    case 'cable':
      return 'Carry a spare lead.';
  }
};

/** One failure in a line: what is left of the sounds. */
export type FailureLine = Pick<FailureView, 'key' | 'group' | 'text' | 'lead' | 'says' | 'counts'>;

interface Told {
  readonly failure: Failure;
  readonly after: readonly SoundAfter[];
  readonly line: FailureLine;
  readonly sounds: readonly SoundFate[];
}

const told = (d: Derived, failure: Failure): Told => {
  const after = afterFailure(d.compilation, failure);
  const sounds = fatesOf(d.rig, after);
  const counts = countsOf(sounds);
  const line = {
    key: keyOf(failure),
    group: groupOf(failure),
    text: failureText(d.rig, failure),
    ...(failure.is === 'cable' ? { lead: `${jackText(d.rig, failure.from)} → ${jackText(d.rig, failure.to)}` } : {}),
    says: saysOf(counts),
    counts,
  };
  return { failure, after, line, sounds };
};

/** The same with every sound and the quickest way out. */
const looked = (d: Derived, { failure, after, line, sounds }: Told): FailureView => {
  const repatch = quickestRepatch(d.compilation, failure, after);
  const isHurt = sounds.some((s) => s.is !== 'whole');
  const way = repatch && wayBack(d, failure, repatch);
  return {
    ...line,
    sounds,
    ...(way ? { way } : isHurt ? { needs: needsOf(d.rig, failure) } : {}),
  };
};

const failuresIn = (d: Derived): readonly Failure[] => failuresOf(d.rig, d.hookup, d.anatomy);

/** Everything that can fail by itself, in the order of the signal, a line each. */
export const failureLines = (d: Derived): readonly FailureLine[] => failuresIn(d).map((f) => told(d, f).line);

/** One of them, with what is lost by it and the way out; undefined when there is none of that key. */
export const failureOf = (d: Derived, key: string): FailureView | undefined => {
  const failure = failuresIn(d).find((f) => keyOf(f) === key);
  return failure && withHands(d, looked(d, told(d, failure)));
};

/** All of them with their ways out: for paper. */
export const failsOf = (d: Derived): readonly FailureView[] => failuresIn(d).map((f) => looked(d, told(d, f)));

/** The same with what is set at the boxes themselves, sound by sound, as long as what calls them is dead. */
export const withHands = ({ rig, hookup, compilation }: Derived, view: FailureView): FailureView => {
  const dead = all(rig, 'device').find((d) => d.id === view.key)?.id;
  const uncalled = (view.way?.sounds ?? view.sounds).filter((s) => s.is === 'not called');
  const left = dead && uncalled.length > 0 && withoutCalls(rig, (call) => call.device === dead);
  if (!left) return view;
  const compiled = compile(bearings(left, hookup)).sounds;
  const byHand = uncalled.flatMap(({ sound, name, misses }): readonly HandsOfSound[] => {
    const { stages } = wholeOf(theEntry(compilation.sounds, sound));
    const still = new Set(stages.filter((s) => !misses.includes(s)).map((s) => splitRef(s).device));
    // A box that is not on the way any more is left as it stands.
    const isPast = (box: Id<'device'>): boolean => !still.has(box) && misses.some((s) => splitRef(s).device === box);
    const hands = (compiled.get(sound)?.hand ?? []).flatMap(({ control, value }) => {
      const box = splitRef(control).device;
      return box === dead || isPast(box) ? [] : [`${controlText(rig, control)} ${valueText(rig, control, value)}`];
    });
    return hands.length === 0 ? [] : [{ name, hands }];
  });
  return byHand.length === 0 ? view : { ...view, byHand };
};
