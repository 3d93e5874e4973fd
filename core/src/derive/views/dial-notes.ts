import { boxText } from '../../recall/words/part-words.js';
import { daysOf, standsOn, type Dialled } from '../../dials/dial-cards.js';
import { dialLine, turnOf } from '../../dials/knob-words.js';
import { unclearStands } from '../../edits/dial-cards.js';
import { makesSound, type Device } from '../../rig/device.js';
import type { DialCard, DialCase } from '../../rig/dial-card.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, soundsInOrder, type Rig } from '../../rig/rig.js';

/** A box as a notebook has it: one line that holds always, and one for each case in which it stands otherwise. */
export interface DialNote {
  readonly device: Dialled;
  readonly code: string;
  readonly name: string;
  /** Hands play it: it has pickups and a volume, not a gain. */
  readonly isInstrument: boolean;
  /** The card that holds always comes first, written or not. */
  readonly cards: readonly DialNoteCard[];
  /** Knobs that its programs hold, as the box calls them: what is written of these is not sent to it. */
  readonly held: readonly string[];
}

export interface DialNoteCard {
  readonly id?: Id<'dialCard'>;
  readonly in: DialCase;
  /** @example 'in Lead', or nothing where it holds always */
  readonly where: string;
  readonly line: string;
  readonly knobs: readonly { readonly knob: string; readonly at: string; readonly turn: number | undefined }[];
  /** The day on which it was written last. */
  readonly day?: string;
  readonly unclear: readonly string[];
}

/** @example caseWords(rig, { sound: 'sound:lead' }) // 'in Lead' */
export const caseWords = (rig: Rig, { sound, song, instrument, hookup }: DialCase): string =>
  [
    ...(sound ? [`in ${partOf(rig, sound)?.name ?? ''}`] : []),
    ...(song ? [`in the song ${partOf(rig, song)?.title ?? ''}`] : []),
    ...(instrument ? [`with ${boxText(rig, instrument)}`] : []),
    ...(hookup ? [`in the hook-up ${partOf(rig, hookup)?.name ?? ''}`] : []),
  ].join(', ');

const cardNote = (rig: Rig, card: DialCard, day?: string): DialNoteCard => {
  const stands = standsOn(card, day);
  const knobs = Object.entries(stands).map(([knob, at]) => ({ knob, at, turn: turnOf(at) }));
  const last = daysOf(card).at(-1);
  return {
    id: card.id,
    in: card.in ?? {},
    where: caseWords(rig, card.in ?? {}),
    line: dialLine(knobs),
    knobs,
    ...(last === undefined ? {} : { day: last }),
    unclear: unclearStands(stands),
  };
};

const EMPTY: DialNoteCard = { in: {}, where: '', line: '', knobs: [], unclear: [] };

const heldBy = (device: Device): readonly string[] => {
  const stored = new Set(device.memories.flatMap((m) => m.stores));
  return device.controls
    .filter((c) => stored.has(c.id) && 'min' in c.domain)
    .map((c) => (c.name ?? c.id).toLowerCase());
};

/**
 * Where knobs stand, box by box: what is in hand first, then instruments and boxes that make the sound in the order of
 * the kit, and what else has a card.
 * @param day as it was on that day; the latest when it is left out
 */
export const dialNotes = (rig: Rig, day?: string): readonly DialNote[] => {
  const written = all(rig, 'dialCard');
  const order = new Map(soundsInOrder(rig).map((s, i) => [s.id, i]));
  const cardsOf = (device: Dialled): readonly DialNoteCard[] => {
    const own = written.filter((c) => c.device === device);
    const base = own.find((c) => !c.in);
    const others = own
      .filter((c) => c.in)
      .sort((a, b) => (order.get(a.in?.sound ?? 'sound:') ?? -1) - (order.get(b.in?.sound ?? 'sound:') ?? -1));
    return [base ? cardNote(rig, base, day) : EMPTY, ...others.map((c) => cardNote(rig, c, day))];
  };
  const has = new Set(written.map((c) => c.device));
  const isInstrument = (d: Device): boolean => d.zone === 'hands' && (d.ends ?? []).some((e) => e.is === 'source');
  const boxes = all(rig, 'device').filter((d) => has.has(d.id) || makesSound(d) || isInstrument(d));
  return [
    {
      device: undefined,
      code: '',
      name: 'Whichever instrument is in hand',
      isInstrument: true,
      cards: cardsOf(undefined),
      held: [],
    },
    ...boxes.map((d) => ({
      device: d.id,
      code: d.code,
      name: d.name,
      isInstrument: isInstrument(d),
      cards: cardsOf(d.id),
      held: heldBy(d),
    })),
  ];
};
