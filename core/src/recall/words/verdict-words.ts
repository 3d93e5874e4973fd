import { furthestOnTheWay } from '../../signal/graph/stops.js';
import { boxText, endText, pointText, stageText } from './part-words.js';
import { stopsOf, stopText } from './silence.js';
import { splitRef, type Id } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Compilation } from '../actuate/compile.js';
import type { Problem } from '../intend/compiled.js';
import { controlText, valueText } from './words.js';
import type { SoundVerdict, Tally, VerdictKind } from '../verdict/sound-verdict.js';
import { theFirst, theEntry } from '../../known/the.js';

/** The sign of each verdict, beside its word and never instead of it. */
export const SIGNS: Readonly<Record<VerdictKind, string>> = {
  proved: '✓',
  'left to hands': '+',
  undecided: '?',
  broken: '≠',
  'cannot sound': '×',
};

export const VERDICT_WORDS: Readonly<Record<VerdictKind, string>> = {
  proved: 'comes back',
  'left to hands': 'comes back with your foot or hand',
  undecided: 'not decided',
  broken: 'can come back wrong',
  'cannot sound': 'cannot sound',
};

interface Hands {
  readonly byFoot: readonly unknown[];
  readonly byHand: readonly unknown[];
  readonly isCalled: boolean;
}

/**
 * A verdict in words, with how much is left to do.
 * @example verdictText({ verdict: 'left to hands', byFoot: ['…', '…'], byHand: [], isCalled: true }) // 'comes back
 * with 2 by foot'
 */
export const verdictText = ({
  verdict,
  byFoot,
  byHand,
  isCalled,
}: Hands & { readonly verdict: VerdictKind }): string => {
  if (verdict !== 'left to hands') return VERDICT_WORDS[verdict];
  const left = [byFoot.length ? `${byFoot.length} by foot` : '', byHand.length ? `${byHand.length} by hand` : '']
    .filter(Boolean)
    .join(' and ');
  if (isCalled) return `comes back with ${left}`;
  return left ? `nothing calls it; ${left}` : 'nothing calls it';
};

/**
 * The headline: how many come back, and what is to be said of the others.
 * @example headline(tally) // '9 of 16 come back. 4 with your foot. 2 can come back wrong. 1 cannot sound.'
 */
export const headline = (t: Tally, hands?: Limbs): string =>
  headlineParts(t, hands)
    .map((p) => p.text)
    .join(' ');

export type Limbs = 'foot' | 'hand' | 'foot or hand';

/** The headline sentence by sentence, each with the verdict that it speaks of. */
export const headlineParts = (
  t: Tally,
  hands: Limbs = 'foot or hand',
): readonly { readonly is: VerdictKind; readonly text: string }[] => [
  { is: 'proved', text: `${t.proved} of ${t.sounds} come back.` },
  ...(['left to hands', 'broken', 'undecided', 'cannot sound'] as const)
    .filter((is) => t[is] > 0)
    .map((is) => ({ is, text: `${t[is]} ${is === 'left to hands' ? `with your ${hands}` : VERDICT_WORDS[is]}.` })),
];

/** With what the sounds that are left to hands are helped along. */
export const limbsOf = (answers: Iterable<SoundVerdict>): Limbs => {
  const left = [...answers].filter((a) => a.is === 'left to hands');
  const limbs = new Set(
    left.flatMap((a) => [
      ...(a.isCalled ? a.hands.map((h) => h.by) : (['foot', 'hand'] as const)),
      ...(a.dials.length ? (['hand'] as const) : []),
    ]),
  );
  return limbs.size === 1 ? theFirst([...limbs]) : 'foot or hand';
};

interface Derived {
  readonly rig: Rig;
  readonly compilation: Compilation;
}

/** Why a sound cannot sound: what is missing, and how far the signal comes on the way there. */
export const muteText = ({ rig, compilation }: Derived, sound: Id<'sound'>, problem: Problem): string => {
  const { trace } = theEntry(compilation.sounds, sound);
  switch (problem.is) {
    case 'unheard':
      return problem.lacks === 'an instrument'
        ? 'No instrument is plugged in.'
        : 'Nothing is plugged in at which anybody could hear it.';
    case 'unreached': {
      const far = furthestOnTheWay(trace, problem.stage);
      return `The signal does not meet ${stageText(rig, problem.stage)}.${far ? ` ${far.is === 'reached' ? 'It gets there, but from there no further than' : 'On the way there it comes as far as'} ${pointText(rig, far)}.` : ' It has no cable here.'}`;
    }
    case 'not out':
      return `${stageText(rig, problem.stage)} is in the way of the signal, and the sound wants it out.`;
    case 'silent': {
      const stops = [
        ...new Set(stopsOf(theEntry(compilation.sounds, sound), problem).map((stop) => stopText(rig, stop))),
      ];
      return `${problem.from ? boxText(rig, splitRef(problem.from).device) : 'No instrument'} is not heard at ${endText(rig, problem.at)}.${stops.length ? ` The signal stops at ${stops.join('; ')}.` : ''}`;
    }
    case 'not silent':
      return `${boxText(rig, splitRef(problem.from).device)} is heard at ${endText(rig, problem.at)}, and was to be silent there.`;
    case 'forbidden':
      return `It wants ${controlText(rig, problem.control)} ${valueText(rig, problem.control, problem.value)}, and ${valueText(rig, problem.control, problem.held)} is what this hook-up sets or takes for granted.`;
    default:
      return '';
  }
};
