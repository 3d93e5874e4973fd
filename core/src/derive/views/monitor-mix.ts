import { boxText } from '../../recall/words/part-words.js';
import { HOW_MUCH, type HowMuch } from '../../rig/hookup.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, soundsInOrder } from '../../rig/rig.js';
import { trace, type Trace } from '../../signal/graph/trace.js';
import type { WiredEnd } from '../../signal/graph/wiring.js';
import type { Derived } from '../steps/deriver.js';

/** What the rig itself brings to a place where somebody of the band listens. */
export interface MonitorEnd {
  readonly device: Id<'device'>;
  readonly name: string;
  readonly brings: readonly {
    readonly source: string;
    /** Boxes on the way in some sound, in the order of the kit. */
    readonly over: readonly string[];
    /** Sounds in which it comes there, of so many. */
    readonly sounds: number;
    readonly of: number;
  }[];
}

/** One wish of one person, held against what the rig brings. */
export interface MixLine {
  readonly what: string;
  readonly much: HowMuch;
  /** How it gets there, or who has to send it. */
  readonly how: string;
  /** The rig brings it there although it is not wanted, or cannot keep it away. */
  readonly against: boolean;
}

export interface MixView {
  readonly who: string;
  readonly at?: MonitorEnd;
  readonly lines: readonly MixLine[];
  readonly songs: readonly { readonly title: string; readonly wish: string }[];
}

/** Wedges and in-ears of the rig, also those to which nothing of it leads: the house sends them everything. */
export const monitorEnds = (d: Derived): readonly MonitorEnd[] => {
  const { wiring } = d.anatomy;
  const ends = wiring.ends.filter((e) => e.end.is === 'player');
  const sources = wiring.sources.filter((s) => wiring.wired.has(s.device));
  const states = soundsInOrder(d.rig).flatMap((s) => d.compilation.sounds.get(s.id)?.state ?? []);
  const devices = [...new Set(ends.map((e) => e.device))];
  return devices.map((device) => {
    const here = ends.filter((e) => e.device === device);
    const brings = sources.flatMap((source) => {
      const ways = states.flatMap((state) => {
        const way = trace(wiring, state, { from: [source.ref], to: here.map((e) => e.ref) });
        return way.reaches.some((r) => here.includes(r.end)) ? [way] : [];
      });
      if (ways.length === 0) return [];
      return [
        {
          source: boxText(d.rig, source.device),
          over: boxesOn(d, ways, [source, ...here]),
          sounds: ways.length,
          of: states.length,
        },
      ];
    });
    return { device, name: boxText(d.rig, device), brings };
  });
};

const boxesOn = (d: Derived, ways: readonly Trace[], but: readonly WiredEnd[]): readonly string[] => {
  const passed = new Set(
    ways.flatMap(({ wiring, onPath }) => wiring.points.flatMap((p, i) => (onPath[i] ? [p.device] : []))),
  );
  for (const end of but) passed.delete(end.device);
  return all(d.rig, 'device')
    .filter((device) => passed.has(device.id))
    .map((device) => device.name);
};

/** What everybody wants to hear, and how it gets to them. */
export const monitorMixes = (d: Derived): readonly MixView[] => {
  const ends = monitorEnds(d);
  const { mixes = {} } = partOf(d.rig, d.hookup.id) ?? d.hookup;
  return Object.entries(mixes).map(([who, { at, hears }]): MixView => {
    const end = ends.find((e) => e.device === at);
    return {
      who,
      ...(end ? { at: end } : {}),
      lines: Object.entries(hears)
        .sort(([, a], [, b]) => HOW_MUCH.indexOf(a) - HOW_MUCH.indexOf(b))
        .map(([what, much]) => mixLine(end, what, much)),
      songs: all(d.rig, 'song').flatMap(({ title, wishes = {} }) =>
        wishes[who] === undefined ? [] : [{ title, wish: wishes[who] }],
      ),
    };
  });
};

const wordsIn = (text: string): readonly string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether somebody means a source by what they call it. @example isNamedBy('Single-coil guitar', 'guitar') // true */
export const isNamedBy = (source: string, what: string): boolean => {
  const [own, said] = [wordsIn(source), wordsIn(what)];
  return said.length > 0 && said.every((word) => own.includes(word));
};

const mixLine = (end: MonitorEnd | undefined, what: string, much: HowMuch): MixLine => {
  const from = end?.brings.find((b) => isNamedBy(b.source, what));
  const against = from !== undefined && much === 'not at all';
  if (!end || !from)
    return { what, much, against, how: much === 'not at all' ? 'kept out at the desk' : 'sent by the house' };
  const over = from.over.length ? ` over ${from.over.join(', ')}` : '';
  const often = from.sounds === from.of ? 'in every sound' : `in ${from.sounds} of ${from.of} sounds`;
  return { what, much, against, how: `comes by itself${over}, ${often}` };
};
