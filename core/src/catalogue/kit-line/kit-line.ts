import Fuse from 'fuse.js';
import { CATALOGUE, generic } from '../boxes.js';
import { numberedFor } from '../numbered.js';
import type { Generic } from '../parts.js';
import { LONGEST } from '../../rig/limits.js';
import { FAMILIES } from './families.js';
import type { Family } from './family.js';
import { asMeant, type Item } from './items.js';
import { isKnownWord, phraseAt } from './phrases.js';
import { isWord, tokensOf } from './words-of.js';
import { piecesOf, type Piece } from './pieces.js';
import { listOf, SOFT } from './words.js';

/** A box that was meant beyond doubt. */
export interface Taken {
  readonly is: 'taken';
  /** The words that it was taken from. */
  readonly said: string;
  readonly box: Generic;
  readonly count: number;
  readonly channel?: number;
  /** The person's own words for it. */
  readonly name: string;
  /** It was only said to be there: the way of the signal had come to its end before. */
  readonly isApart?: true;
}

/** Something that may be several boxes, or one that the shelves do not have so: the person chooses. */
export interface Asked {
  readonly is: 'asked';
  readonly said: string;
  readonly why: string;
  /** The nearest, at most three. */
  readonly candidates: readonly Generic[];
  readonly count: number;
  readonly channel?: number;
  readonly name: string;
  readonly isApart?: true;
  /**
   * It was said before, and is taken to be the same unless somebody says otherwise: a new way begins at it, or the
   * one that was said leads there too.
   */
  readonly again?: 'begins' | 'joins';
}

/** Something that is no box here; it is set aside, and said so. */
export interface Refused {
  readonly is: 'refused';
  readonly said: string;
  readonly why: string;
}

export type Heard = Taken | Asked | Refused;

const LONGEST_LINE = 8000;
const MOST_PIECES = 200;
const MOST_OF_ONE = 20;
const NEAREST = 3;
const MOST_CHANNEL = 16;

const fuse = new Fuse(
  CATALOGUE.flatMap((box) => box.says.map((says) => ({ box, says }))),
  { keys: ['says'], includeScore: true, threshold: 0.45, ignoreLocation: true, minMatchCharLength: 3 },
);
const nearest = (said: string): readonly Generic[] =>
  [...new Set(fuse.search(said.slice(0, 60)).map((f) => f.item.box))].slice(0, NEAREST);

/**
 * The person's own words, where they say more than what the shelves call it.
 * @returns undefined when they are just one of its names: "OD", "2x12 cabs"
 */
export const ownName = ({ name, box }: Pick<Taken, 'name' | 'box'>): string | undefined => {
  const { heard } = understand(name);
  const [only] = heard;
  const words = tokensOf(name, isKnownWord).flatMap((t) =>
    isWord(t) ? (isKnownWord(t.plain) ? [t.plain] : asMeant(t.plain)) : [],
  );
  const isPlain =
    phraseAt(words, 0)?.length === words.length || box.says.some((s) => s.toLowerCase() === name.toLowerCase());
  return isPlain || heard.length !== 1 || only === undefined || words.length < 2
    ? undefined
    : `${name.charAt(0).toUpperCase()}${name.slice(1)}`;
};

type KindItem = Extract<Item, { is: 'kind' }>;
const cabs = FAMILIES.find((f) => f.counts === 'speaker');
const isCabOrCombo = (family: Family): boolean => family.boxes.some(([key]) => /^(cab-|combo|bass-combo)/.test(key));
const isAmp = (family: Family): boolean =>
  family.counts === 'channel' && family.boxes.some(([key]) => /head|amp|combo/.test(key));
const isDesk = (family: Family): boolean => family.boxes.some(([key]) => key === 'desk' || key === 'mixer-4');
const INSTRUMENTS = new Set(['single-coil', 'acoustic', 'bass', 'upright-bass', 'keyboard', 'violin']);
const isInstrument = (family: Family): boolean => family.boxes.some(([key]) => INSTRUMENTS.has(key)) && !family.asks;
const qualitiesOf = (family: Family, key: string): readonly string[] =>
  listOf(family.boxes.find(([k]) => k === key)?.[1] ?? '');

/**
 * Boxes as people say them, in a line, a list or a table: "2 x low-gain drive, stereo delay midi ch 3", "guitar into
 * wah into drive, then a two-channel head". Nothing is guessed in silence: what is unclear is asked about, and what is
 * no box of the shelves is named.
 * @returns everything that was heard, in its order (that of the signal where one was said); at most 200 things
 */
export const understand = (line: string): { readonly heard: readonly Heard[]; readonly isChain: boolean } => {
  const text = line.slice(0, LONGEST_LINE);
  const { pieces, isChain } = piecesOf(text);
  const voice = voiceOf(pieces);
  const all = pieces.slice(0, MOST_PIECES).map((piece) => hear(text, piece, voice, pieces));
  const said = isChain ? apartAfterTheEnd(pieces, all) : all;
  const heard = isChain ? askedAgain(text, pieces, said) : said.flat();
  // What nothing came of is not passed over.
  const left: readonly Heard[] =
    heard.length === 0 && /\p{L}/u.test(text)
      ? [{ is: 'refused', said: text.trim(), why: 'No box is named here.' }]
      : heard;
  return { heard: left, isChain: isChain && heard.length > 1 };
};

const boxesOf = (heard: readonly Heard[]): readonly Generic['box'][] =>
  heard.flatMap((h) => (h.is === 'taken' ? [h.box.box] : h.is === 'asked' ? h.candidates.map((c) => c.box) : []));

/** Loudspeakers, microphones before them, desks: what comes after an amp. */
const carriesOn = ({ zone, jacks }: Generic['box']): boolean =>
  zone === 'outputs' && jacks.some((j) => (j.kind === 'audio' || j.kind === 'air') && j.poles.tip === 'in');

/**
 * "Guitar into drive into combo, looper, percussion, desk": behind the last arrow the signal goes on only until it is
 * heard. What is said after that, and feeds no loudspeaker, microphone or desk, is just there.
 */
const apartAfterTheEnd = (
  pieces: readonly Piece[],
  said: readonly (readonly Heard[])[],
): readonly (readonly Heard[])[] => {
  const lastLed = pieces.findLastIndex((piece) => piece.isLed);
  if (lastLed < 0) return said;
  let hasEnded = false;
  let isApart = false;
  return said.map((heard, i) => {
    const boxes = boxesOf(heard);
    if (i > lastLed && hasEnded && !boxes.some(carriesOn)) isApart = true;
    hasEnded ||= boxes.some(({ zone }) => zone === 'amp' || zone === 'outputs');
    return isApart ? heard.map((h) => (h.is === 'refused' ? h : { ...h, isApart: true as const })) : heard;
  });
};

/**
 * "… into a load box; load box into the desk": whoever takes up a box again may mean the one that was said before, and
 * goes on from there.
 */
const askedAgain = (text: string, pieces: readonly Piece[], said: readonly (readonly Heard[])[]): readonly Heard[] => {
  const before = new Set<string>();
  const withIt = new Set<string>();
  return said.flatMap((heard, i) => {
    const [only] = heard;
    const goesOn = pieces[i + 1] !== undefined && pieces[i + 1]?.opens === false;
    const piece = pieces[i];
    const isTakenUp = piece?.opens === true && goesOn;
    const isTheSame = piece !== undefined && /^the\b/i.test(sliceOf(text, piece.own));
    // "Load box with line out …; line out into …": the jack that was said with it.
    const isItsJack =
      i > 0 &&
      goesOn &&
      piece?.items.some((it) => it.is === 'kind' && it.qualities.some((q) => q === 'line out' && withIt.has(q)));
    const isHouse = only?.is === 'taken' && (only.box.box.ends ?? []).some((e) => e.is === 'house') && i > 0;
    const isAgain =
      i > 0 && (isTakenUp || isTheSame || isItsJack || isHouse) && only?.is === 'taken' && only.count === 1;
    const isKnown = isItsJack || (isAgain && before.has(only.box.key));
    const asks = isAgain && heard.length === 1 && isKnown && !ANOTHER.test(only.name);
    for (const item of piece?.items ?? []) if (item.is === 'quality') item.qualities.forEach((q) => withIt.add(q));
    for (const h of heard) if (h.is === 'taken') before.add(h.box.key);
    if (!asks) return heard;
    const { box, count, channel, name } = only;
    const why = 'Said before. Is this another one?';
    const again = piece?.opens ? ('begins' as const) : ('joins' as const);
    return [
      { is: 'asked', said: only.said, why, candidates: [box], count, name, again, ...(channel ? { channel } : {}) },
    ];
  });
};
const ANOTHER = /\b(?:second|2nd|third|3rd|other|another)\b/i;

/** The instrument that the line speaks of tells which preamp is meant. */
const voiceOf = (pieces: readonly Piece[]): string | undefined => {
  const keys = pieces.flatMap((p) =>
    p.items.flatMap((i) => (i.is === 'kind' ? i.family.boxes.slice(0, 1).map(([key]) => key) : [])),
  );
  if (keys.includes('upright-bass') || keys.includes('acoustic') || keys.includes('violin')) return 'acoustic';
  return keys.includes('bass') ? 'bass' : undefined;
};

interface Meant {
  readonly family: Family;
  /** Named outright, not only by its family. */
  readonly key?: string;
  readonly phrase?: string;
  readonly at: { readonly from: number; readonly to: number };
}

const sliceOf = (text: string, { from, to }: { readonly from: number; readonly to: number }): string =>
  text.slice(from, to).trim();

/** What a piece says, and what was only said as what it is for. */
const hear = (text: string, piece: Piece, voice: string | undefined, all: readonly Piece[]): readonly Heard[] => [
  ...hearOne(text, piece, voice, all),
  ...piece.items.flatMap((item): readonly Heard[] =>
    item.is === 'besides'
      ? [{ is: 'refused', said: sliceOf(text, item), why: 'Said as what another is for; it is not added.' }]
      : [],
  ),
];

const hearOne = (text: string, piece: Piece, voice: string | undefined, all: readonly Piece[]): readonly Heard[] => {
  const said = sliceOf(text, piece.own);
  const refused = (why: string): readonly Heard[] => [{ is: 'refused', said, why }];
  const items = withoutDenied(piece.items);
  if (items.length === 0) return [];
  if (items.some((i) => i.is === 'missing')) return refused('There is no such box on the shelves yet.');
  const stack = items.find((i) => i.is === 'stack');
  if (stack?.is === 'stack')
    return stack.of.flatMap((one) => understand(one).heard.map((h) => ({ ...h, said: sliceOf(text, stack) })));
  const nouns = items.filter((i) => i.is === 'kind' || i.is === 'size' || i.is === 'aside');
  if (nouns[nouns.length - 1]?.is === 'aside') return refused('Not a box of the rig. Cables are plugged in Routing.');
  const kinds = kindsOf(items);
  if (kinds.length === 0) {
    const candidates = nearest(said);
    return candidates.length
      ? [{ is: 'asked', said, why: 'Not known here. Is it one of these?', candidates, count: 1, name: said }]
      : refused('Not known here. Say what kind of box it is.');
  }
  const counts = items.flatMap((i) => (i.is === 'count' && !isLabel(i, piece, kinds) ? [i.count] : []));
  // "Two desk channels" are of one desk.
  const ofChannels = kinds.some(
    (k) => isDesk(k.family) && items.some((i) => i.from >= k.at.to && CHANNELS.test(text.slice(i.from, i.to))),
  );
  const count = ofChannels ? 1 : Math.max(1, Math.min(MOST_OF_ONE, counts[0] ?? 1));
  const about = { text, piece, all, items, voice, said, count };
  if (kinds.length === 2 && kinds[0]?.family !== kinds[1]?.family) {
    const candidates = kinds.flatMap((k) => pick(k, [], []).boxes.slice(0, 1));
    return [
      {
        is: 'asked',
        said,
        why: 'Two kinds of box in one: which is it?',
        candidates,
        count: about.count,
        name: nameOf(about),
      },
    ];
  }
  const many = counts.find((n) => n > MOST_OF_ONE);
  const why =
    many === undefined
      ? unsure(text, piece, items, kinds, all)
      : `${many} of them? The line takes at most ${MOST_OF_ONE} of one.`;
  const meant = kinds.length === 2 ? kinds.slice(1) : kinds;
  return meant.flatMap((kind) => choose(kind, about, meant.length > 1, why));
};

const CHANNELS = /^channels?$/i;
const JACK = /^(?:send|sends|return|returns|input|inputs|in|jack)$/i;

/** Why it is not sure that the box is meant, or how often. */
const unsure = (
  text: string,
  piece: Piece,
  items: readonly Item[],
  kinds: readonly Meant[],
  all: readonly Piece[],
): string | undefined => {
  const saidOf = (item: Item): string => text.slice(item.from, item.to);
  const ofAll = all.some((p) => p !== piece && p.items.some((i) => i.is === 'doubt' && /same as/i.test(saidOf(i))));
  if (ofAll || items.some((i) => i.is === 'doubt')) return 'You were not sure.';
  const unknown = items.filter((i) => i.is === 'unknown');
  if (unknown.length) return `“${unknown.map(saidOf).join(' ')}” is not known here.`;
  if (items.some((i) => i.is === 'each')) return 'One for each? Say how many in all.';
  const last = items.filter((i) => i.to <= piece.own.to).at(-1);
  const isJack = last !== undefined && JACK.test(saidOf(last)) && kinds.some((k) => k.at.to <= last.from);
  return isJack && !kinds.some((k) => isDesk(k.family)) ? 'Another one, or a jack of one that was said?' : undefined;
};

/** A bare number behind the name tells one from another: "delay 2". */
const isLabel = (item: Item, { own }: Piece, kinds: readonly Meant[]): boolean =>
  item.is === 'count' &&
  !item.sure &&
  item.from < own.to &&
  kinds.some((k) => item.from >= k.at.from && k.at.from >= own.from);

/** Without what was said not to be there. */
const withoutDenied = (items: readonly Item[]): readonly Item[] => {
  const kept: Item[] = [];
  let isDenied = false;
  for (const item of items) {
    if (item.is === 'no') isDenied = true;
    else if (isDenied && (item.is === 'quality' || item.is === 'kind')) {
      if (item.qualities.length)
        kept.push({ is: 'quality', qualities: item.qualities.map((q) => `no ${q}`), from: item.from, to: item.to });
      isDenied = false;
    } else kept.push(item);
  }
  return kept;
};

/** The kinds of box that a piece names; a word that only says what for is no kind: a bass chorus is a chorus. */
const kindsOf = (items: readonly Item[]): readonly Meant[] => {
  const named = items.filter((i): i is KindItem => i.is === 'kind');
  const size = items.find((i) => i.is === 'size');
  if (named.length === 0) return size && cabs ? [{ family: cabs, at: size }] : [];
  const last = named[named.length - 1];
  if (!last) return [];
  const before = named.slice(0, -1);
  const isModifier = (kind: KindItem): boolean =>
    isInstrument(kind.family) ||
    isAmp(kind.family) ||
    kind.qualities.some((q) => last.family.boxes.some(([key]) => qualitiesOf(last.family, key).includes(q)));
  const others = before.filter((k) => !isModifier(k));
  const meant = (k: KindItem): Meant => ({
    family: k.family,
    ...(k.key ? { key: k.key } : {}),
    phrase: k.phrase,
    at: k,
  });
  if (named.length > 2 && others.length > 1) return named.map(meant);
  const alone = others.map(meant);
  // A size beside something that is neither cabinet nor combo is a cabinet of its own.
  const cab = size && cabs && !isCabOrCombo(last.family) ? [{ family: cabs, at: size }] : [];
  return [...alone, meant(last), ...cab];
};

interface About {
  readonly text: string;
  readonly piece: Piece;
  /** Everything that was said. */
  readonly all: readonly Piece[];
  readonly items: readonly Item[];
  readonly voice: string | undefined;
  readonly said: string;
  readonly count: number;
}

/** The person's own words for it, without counts and channels. */
const nameOf = ({ text, piece, items }: Pick<About, 'text' | 'piece' | 'items'>): string => {
  const out = items.filter(
    (i) =>
      ((i.is === 'count' && !isLabel(i, piece, kindsOf(items))) || i.is === 'channels') &&
      i.from >= piece.own.from &&
      i.to <= piece.own.to,
  );
  let words = '';
  let at = piece.own.from;
  for (const item of [...out].sort((a, b) => a.from - b.from)) {
    words += text.slice(at, item.from);
    at = item.to;
  }
  words = `${words}${text.slice(at, piece.own.to)}`
    .replaceAll(/\s+/g, ' ')
    .replace(
      /^[\s\-–—,:.]*(?:(?:an?|the|my|our|its|their|his|her|some|one|then|we need|i have|i run|i use|for)\s+)*/i,
      '',
    )
    .replaceAll(/[\s\-–—,:.(["']+$/g, '')
    .trim();
  const whole = piece.heading ? `${piece.heading} ${words}` : words;
  return whole.slice(0, LONGEST.name);
};

interface Picked {
  readonly boxes: readonly Generic[];
  readonly unmet: readonly string[];
  /** All that was wanted, also what the name itself says. */
  readonly wanted: readonly string[];
}

/** The boxes of a kind that have what was said, those that the plain word means first. */
const pick = (kind: Meant, said: readonly string[], denied: readonly string[]): Picked => {
  const { family, key, phrase = '' } = kind;
  // A name such as "stereo chorus" says a quality too.
  const named = key === undefined ? [] : qualitiesOf(family, key).filter((q) => ` ${phrase} `.includes(` ${q} `));
  const wanted = [...new Set([...said, ...named])];
  const all = family.boxes.map(([k]) => k);
  const base = key === undefined ? all : [key, ...all.filter((k) => k !== key)];
  const someHas = (q: string): boolean => base.some((k) => qualitiesOf(family, k).includes(q));
  const own = key === undefined ? [] : qualitiesOf(family, key);
  const deciding = wanted.filter((q) => someHas(q) && !(key !== undefined && own.length === 0));
  const unmet = wanted.filter((q) => !someHas(q) && !isSoft(q, family) && !(key !== undefined && saidBy(key, q)));
  const fits = base.filter((k) => {
    const has = qualitiesOf(family, k);
    return deciding.every((q) => has.includes(q)) && denied.every((q) => !has.includes(q));
  });
  // What was named outright stays that, unless it lacks something that was said.
  const chosen = key !== undefined && fits.includes(key) ? [key] : fits;
  const outright = chosen.filter(
    (k) => denied.length > 0 && denied.some((q) => qualitiesOf(family, k).includes(`no ${q}`)),
  );
  const order = outright.length ? [...outright, ...chosen.filter((k) => !outright.includes(k))] : chosen;
  return { boxes: order.map(generic), unmet: fits.length === 0 && deciding.length ? deciding : unmet, wanted };
};

/** A number of strings and the like changes nothing; a number of what the family is counted by does. */
const isSoft = (quality: string, family: Family): boolean => {
  const unit = /^\d+ (\w+)$/.exec(quality)?.[1] ?? /^\d+x\d+ (speaker)$/.exec(quality)?.[1];
  if (unit === undefined) return SOFT.has(quality);
  if (unit === 'speaker') return family.boxes.some(([key]) => /combo/.test(key));
  return unit !== family.counts && unit !== 'loop' && !(unit === 'string' && quality === '12 string');
};
/** A quality that is part of the box's own name. */
const saidBy = (key: string, quality: string): boolean =>
  generic(key).says.some((s) => s.toLowerCase().includes(quality));

const choose = (kind: Meant, about: About, isOneOfMany: boolean, doubt: string | undefined): readonly Heard[] => {
  const { text, items, piece } = about;
  const { family } = kind;
  const channels = items.flatMap((i) => (i.is === 'channels' ? [i] : []));
  const qualities = items.flatMap((i) =>
    i.is === 'quality' ? i.qualities : i.is === 'size' && isCabOrCombo(family) ? [i.size] : [],
  );
  const modifiers = items.flatMap((i) =>
    i.is === 'kind' && i.from !== kind.at.from && !isOneOfMany ? i.qualities : [],
  );
  const isMidiSaid =
    qualities.includes('midi') || channels.some((c) => c.midi) || (kind.phrase ?? '').split(' ').includes('midi');
  const numbers = channels.flatMap((c) => c.channels);
  const ofAmp = isAmp(family) && !isMidiSaid && numbers.length ? [`${Math.max(...numbers)} channel`] : [];
  const own = isDesk(family) || ofAmp.length ? [] : numbers.filter((n) => n <= MOST_CHANNEL);
  const wanted = [...new Set([...qualities, ...modifiers, ...ofAmp])].filter((q) => !q.startsWith('no '));
  const denied = qualities.filter((q) => q.startsWith('no ')).map((q) => q.slice(3));
  const first = pick(kind, contextual(family, wanted, about.voice), denied);
  const withMidi = first.boxes.filter((b) => b.box.midi);
  const boxes = own.length && withMidi.length ? withMidi : first.boxes;
  const lost = numbers.filter((n) => n > MOST_CHANNEL && !isDesk(family) && !ofAmp.length);
  const base = {
    said: sliceOf(text, isOneOfMany ? kind.at : piece.own),
    name: isOneOfMany ? sliceOf(text, kind.at) : nameOf(about),
    count: about.count,
  };
  const why =
    doubt ??
    (first.unmet.length ? `None on the shelves is said to have: ${first.unmet.join(', ')}.` : undefined) ??
    (boxes.length === 0 ? 'None on the shelves is quite that.' : undefined) ??
    (family.asks && boxes.length > 1 && kind.key === undefined ? 'The word means several boxes.' : undefined);
  const one = boxes[0];
  if (why !== undefined || !one) {
    const fitting = boxes.length && !first.unmet.length ? boxes : closest(family, first.unmet);
    const made = boxes.length && !first.unmet.length ? undefined : madeFor(family, first.wanted);
    const near = made ? [made, ...fitting] : fitting;
    return [
      {
        is: 'asked',
        ...base,
        why: made && !doubt ? 'Not on the shelves as such; it can be made.' : (why ?? ''),
        candidates: near.slice(0, NEAREST),
        ...(own[0] ? { channel: own[0] } : {}),
      },
    ];
  }
  const box = afterAmp(one, about);
  const taken = { is: 'taken' as const, ...base, said: sliceOf(text, kind.at), box };
  const aside = (n: readonly number[], because: string): readonly Heard[] =>
    n.length ? channels.map((c) => ({ is: 'refused' as const, said: sliceOf(text, c), why: because })) : [];
  if (own.length && !box.box.midi) return [taken, ...aside(own, `${box.box.name} listens to no MIDI.`)];
  if (lost.length) return [taken, ...aside(lost, 'MIDI channels go from 1 to 16.')];
  if (own.length > 1) return own.map((channel) => ({ ...taken, count: 1, channel }));
  return [{ ...taken, ...(own[0] ? { channel: own[0] } : {}) }];
};

/** A preamp of a bass is one for a bass. */
const contextual = (family: Family, wanted: readonly string[], voice: string | undefined): readonly string[] =>
  family.asks && voice && !wanted.length && family.boxes.some(([key]) => qualitiesOf(family, key).includes(voice))
    ? [voice]
    : wanted;

/** A box made for the number that was said. */
const madeFor = (family: Family, wanted: readonly string[]): Generic | undefined =>
  wanted
    .map((q) =>
      numberedFor(
        family.boxes.map(([key]) => key),
        q,
      ),
    )
    .find((box) => box !== undefined && !family.boxes.some(([key]) => key === box.key));

/** Those of a family whose number is nearest to the one that was said, or simply the first. */
const closest = (family: Family, unmet: readonly string[]): readonly Generic[] => {
  const number = unmet.map((q) => /^(\d+) (\w+)$/.exec(q)).find((m) => m !== null);
  const away = (key: string): number => {
    const own = qualitiesOf(family, key)
      .map((q) => /^(\d+) (\w+)$/.exec(q))
      .find((m) => m?.[2] === number?.[2]);
    return number && own ? Math.abs(Number(own[1]) - Number(number[1])) : 99;
  };
  return [...family.boxes].sort(([a], [b]) => away(a) - away(b)).map(([key]) => generic(key));
};

/** A microphone that comes with an amp, or to which the way leads from one, stands before its loudspeaker. */
const afterAmp = (box: Generic, { piece, all }: About): Generic => {
  const isLoud = (family: Family): boolean => isAmp(family) || isCabOrCombo(family);
  const before = all
    .slice(0, all.indexOf(piece))
    .flatMap((p) => p.items.flatMap((i) => (i.is === 'kind' ? [i.family] : [])));
  const isItsOwn = (piece.beside !== undefined && isLoud(piece.beside)) || (piece.isLed && before.some(isLoud));
  return box.key === 'microphone' && isItsOwn ? generic('cab-mic') : box;
};
