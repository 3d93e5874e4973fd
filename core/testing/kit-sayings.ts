import type { Heard } from '../src/catalogue/kit-line/kit-line.js';

/** A box that a careful reader takes from a saying; none of its keys: there is no such box on the shelves. */
export interface Wanted {
  readonly is: readonly string[];
  readonly count: number;
  readonly channel?: number;
  readonly how: 'take' | 'ask' | 'missing';
}

export interface Saying {
  readonly say: string;
  readonly boxes: readonly Wanted[];
  readonly isChain: boolean;
}

/** `low-drive|high-drive x2 @3`, `?preamp-pedal`, `!`, `~`. */
const wantedIn = (text: string): readonly Wanted[] => {
  if (text === '~') return [];
  const [keys = '', ...more] = text.replace(/^[?!]/, '').split(' ');
  const channel = more.find((m) => m.startsWith('@'));
  return [
    {
      is: keys.split('|').filter(Boolean),
      count: Number(more.find((m) => m.startsWith('x'))?.slice(1) ?? 1),
      ...(channel ? { channel: Number(channel.slice(1)) } : {}),
      how: text.startsWith('?') ? 'ask' : text.startsWith('!') ? 'missing' : 'take',
    },
  ];
};

/** The sayings of `reference/kit-sayings.txt`, which says how it is written. */
export const sayingsIn = (text: string): readonly Saying[] =>
  text
    .split('\n')
    .filter((line) => line && !line.startsWith('#'))
    .map((line) => {
      const [say = '', expected = ''] = line.split(' => ');
      return {
        say: say.replaceAll('\\n', '\n').replaceAll('\\t', '\t'),
        boxes: expected.replace(/^>/, '').split(' ; ').flatMap(wantedIn),
        isChain: expected.startsWith('>'),
      };
    });

interface Entry {
  readonly say: string;
  readonly chain?: boolean;
  readonly boxes: readonly {
    readonly is: string | readonly string[] | null;
    readonly count?: number;
    readonly midi?: number;
    readonly ask?: boolean;
  }[];
}

/** The sayings of `reference/kit-line.json`, which were collected and judged apart from this program. */
export const collectedIn = (text: string): readonly Saying[] =>
  (JSON.parse(text) as readonly Entry[]).map(({ say, boxes, chain }) => ({
    say,
    isChain: chain === true,
    boxes: boxes.map((b) => ({
      is: b.is === null ? [] : typeof b.is === 'string' ? [b.is] : b.is,
      count: b.count ?? 1,
      ...(b.midi === undefined ? {} : { channel: b.midi }),
      how: b.is === null ? 'missing' : b.ask ? 'ask' : 'take',
    })),
  }));

export type Judged = 'right' | 'asked needlessly' | 'taken wrongly';

/**
 * What became of a saying. A box, a count or a channel that was not said, or one that was lost without a word, is taken
 * wrongly; something clear that was asked about or set aside is asked needlessly.
 */
export const judge = ({ boxes }: Saying, heard: readonly Heard[]): Judged => {
  const taken = heard.flatMap((h) =>
    h.is === 'taken' ? [{ key: h.box.key, count: h.count, channel: h.channel }] : [],
  );
  const open = heard.filter((h) => h.is !== 'taken');
  let needless = 0;
  for (const want of boxes) {
    const at = taken.findIndex(
      (t) => want.how === 'take' && want.is.includes(t.key) && t.count === want.count && t.channel === want.channel,
    );
    if (at >= 0) {
      taken.splice(at, 1);
      continue;
    }
    const asked = open.findIndex(
      (h) => h.is === 'refused' || want.is.length === 0 || h.candidates.some((c) => want.is.includes(c.key)),
    );
    if (asked < 0) return 'taken wrongly';
    const [found] = open.splice(asked, 1);
    if (want.how === 'take' || (found?.is === 'refused' && want.how === 'ask' && want.is.length > 0)) needless += 1;
  }
  if (taken.length > 0) return 'taken wrongly';
  return needless > 0 ? 'asked needlessly' : 'right';
};
