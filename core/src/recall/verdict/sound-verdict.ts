import type { Id } from '../../rig/ids.js';
import { handMoves, type Compilation } from '../actuate/compile.js';
import type { Compiled, HandMove, Problem } from '../intend/compiled.js';
import { once } from '../../kept/kept.js';
import type { DialMove, DialsOf } from '../../dials/dial-cards.js';
import type { Modelled } from '../model/model.js';
import type { Verdict } from '../../prover/prove.js';
import { partOf, type Rig } from '../../rig/rig.js';
import { openCases } from '../intend/wants.js';
import { theEntry } from '../../known/the.js';
import { recordOf } from '../../known/keys.js';

/** What can be said of a sound in a hook-up, the worst first; the worst that holds is told. */
export const VERDICTS = ['cannot sound', 'broken', 'undecided', 'left to hands', 'proved'] as const;
export type VerdictKind = (typeof VERDICTS)[number];

/** What a player will hear of a sound, and what has to be done for it. */
export interface SoundVerdict {
  readonly is: VerdictKind;
  /** Why it cannot sound, whatever the controls say: what the signal does not meet, or reaches against the wish. */
  readonly mute: readonly Problem[];
  /** Whether its recall leaves right what it reaches. */
  readonly proof: Verdict;
  /** What has to be done by foot or hand besides. */
  readonly hands: readonly HandMove[];
  /** Knobs that no memory holds and that a hand turns for it. */
  readonly dials: readonly DialMove[];
  /** Something calls it: a switch, a song list, a timeline. */
  readonly isCalled: boolean;
}

/** A sound with one of these cannot sound, however the controls stand. */
const MUTE: ReadonlySet<Problem['is']> = new Set([
  'unreached',
  'not out',
  'silent',
  'not silent',
  'unheard',
  'forbidden',
]);

const mutedBy = once(({ problems }: Compiled): readonly Problem[] => problems.filter((p) => MUTE.has(p.is)));

const kindOf = ({ mute, proof, hands, dials, isCalled }: Omit<SoundVerdict, 'is'>): VerdictKind => {
  if (mute.length > 0) return 'cannot sound';
  if (proof.is !== 'proved') return proof.is;
  return hands.length + dials.length > 0 || !isCalled ? 'left to hands' : 'proved';
};

/** The verdict of every sound: only one that is called, heard, complete and asks for nothing else is proved. */
export const soundVerdicts = (
  c: Compilation,
  m: Modelled,
  proofs: ReadonlyMap<string, Verdict>,
  dials: DialsOf['moves'] = new Map(),
): ReadonlyMap<Id<'sound'>, SoundVerdict> =>
  new Map(
    [...c.sounds].map(([id, compiled]) => {
      const parts = {
        mute: mutedBy(compiled),
        proof: asFarAsSaid(c, id, asFarAsKnown(m, theEntry(proofs, id))),
        hands: handMoves(c, id),
        dials: dials.get(id) ?? [],
        isCalled: compiled.stored.length > 0,
      };
      return [id, { is: kindOf(parts), ...parts }];
    }),
  );

/** A proof that rests on boxes that wake in more ways than can be looked at says nothing, for better or worse. */
const asFarAsKnown = (m: Modelled, proof: Verdict): Verdict => {
  if (m.isEndless)
    return {
      is: 'undecided',
      because:
        'Boxes that stand in a ring of MIDI cables tell each other what to do without end. Open the ring, or let one of them not pass on what it hears.',
    };
  if (m.tooMany.length > 0)
    return {
      is: 'undecided',
      because: 'What boxes do when they come on depends on more ways to come on than can be looked at one by one.',
    };
  // Footsteps are worked out only where some of them could tell too much.
  if (proof.is !== 'broken' || m.anyhow.size === 0) return proof;
  const known = proof.wrong.filter((w) => !w.example().events.some((id) => m.anyhow.has(id)));
  if (known.length === proof.wrong.length) return proof;
  if (known.length > 0) return { ...proof, wrong: known, length: Math.min(...known.map((w) => w.length)) };
  return { is: 'undecided', because: 'A box that it rests on comes on in more ways than can be looked at one by one.' };
};

/**
 * A sound that says something else for a song, or for another of the instruments that are plugged in, is not decided:
 * which case it is, is not reckoned with.
 */
const asFarAsSaid = ({ bearings: { rig, hookup } }: Compilation, id: Id<'sound'>, proof: Verdict): Verdict => {
  const because = proof.is === 'proved' ? caseLeftOpen(rig, id, hookup.id) : undefined;
  return because === undefined ? proof : { is: 'undecided', because };
};

/**
 * Why a sound is not decided although its recall is proved: it says something of its own for a case that may come to
 * pass here.
 */
export const caseLeftOpen = (rig: Rig, id: Id<'sound'>, hookup: Id<'hookup'>): string | undefined => {
  const sound = partOf(rig, id);
  const [open] = sound ? openCases(rig, sound, hookup) : [];
  if (!open) return undefined;
  const name = open.song ? partOf(rig, open.song)?.title : open.instrument && partOf(rig, open.instrument)?.name;
  return `It says something of its own ${open.song ? 'in the song' : 'with'} “${name ?? 'that is gone'}”, and which ${open.song ? 'song is played' : 'instrument is in hand'} is not reckoned with. As a sound of its own it can be proved.`;
};

/** How many sounds there are of each verdict. */
export type Tally = Readonly<Record<VerdictKind, number>> & { readonly sounds: number };

export const tally = (verdicts: ReadonlyMap<string, Pick<SoundVerdict, 'is'>>): Tally => {
  const count = (is: VerdictKind) => [...verdicts.values()].filter((v) => v.is === is).length;
  return {
    sounds: verdicts.size,
    ...recordOf(VERDICTS, count),
  };
};
