import { isLead, joined, type Joined, type Plugged } from '../../signal/joined.js';
import { theEntry, theItem } from '../../known/the.js';
import { tracksIn } from '../../rig/box.js';
import type { Device } from '../../rig/device.js';
import { ref, type Id } from '../../rig/ids.js';
import { all, thePart, type Rig } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import { pointId } from '../../signal/graph/wiring.js';
import { sideBit, trace } from '../../signal/graph/trace.js';
import type { Derived } from '../steps/deriver.js';

/** One line into the house, as its engineer reads it. */
export interface InputLine {
  readonly desk: string;
  /** The jack of the desk. */
  readonly line: string;
  /** What gives the signal there: a box by its name, and its jack where it has several. */
  readonly source: string;
  /** What is played into it, whoever holds the instrument. */
  readonly of: readonly string[];
  /** Loopers on the way, whose loops come here as well. */
  readonly loops: readonly string[];
  readonly by: 'microphone' | 'DI box' | 'line' | 'instrument';
  readonly balanced: boolean;
  /** The desk can put phantom power there, and what is plugged in is not made for it. */
  readonly phantomOff: boolean;
  readonly side: 'mono' | 'left' | 'right' | 'both added' | 'nothing';
  /** Sounds in which nothing comes here, while something does in others. */
  readonly silentIn: readonly string[];
  /** Songs in which this line is silent at times. */
  readonly songs: readonly string[];
}

const isHouse = (device: Device): boolean => device.ends?.some((e) => e.is === 'house') ?? false;

/** What really gives the signal: the box before leads, panels and multicores. */
const giver = (cables: readonly Joined[], from: Plugged): Plugged => {
  let at = from;
  for (let step = 0; step < cables.length && isLead(at.device); step += 1) {
    const inner = at.device.chains.find((c) => c.to.some((t) => t.at === at.jack.id))?.from[0]?.at;
    const before = inner === undefined ? undefined : cables.find((j) => j.to.ref === ref(at.device.id, inner));
    if (!before) return at;
    at = before.from;
  }
  return at;
};

const givesSound = (device: Device): boolean => device.ends?.some((e) => e.is === 'source') ?? false;

const stagesOf = (device: Device): readonly string[] =>
  device.chains.flatMap((c) => c.slots.flatMap((s) => (s.is === 'block' ? [s.stage] : [])));

const meansOf = ({ device, jack }: Plugged): InputLine['by'] => {
  const stages = stagesOf(device);
  if (stages.includes('microphone') || (jack.level === 'mic' && givesSound(device))) return 'microphone';
  if (stages.includes('DI')) return 'DI box';
  return jack.level === 'instrument' ? 'instrument' : 'line';
};

/** Its name, with its code where another box has the same name. */
const toldApart = (rig: Rig, device: Device): string =>
  all(rig, 'device').some((d) => d.id !== device.id && d.name === device.name)
    ? `${device.name} ${device.code}`
    : device.name;

/** @example 'Cabinet microphone at Combo amp CMB2' */
const sourceText = (rig: Rig, cables: readonly Joined[], gives: Plugged): string => {
  const { device, jack } = gives;
  const outs = device.jacks.filter((j) => j.kind === 'audio' && j.poles.tip === 'out');
  const before =
    meansOf(gives) === 'microphone' ? cables.find((j) => j.to.device.id === device.id)?.from.device : undefined;
  const name = before ? `${device.name} at ${toldApart(rig, before)}` : toldApart(rig, device);
  return outs.length > 1 ? `${name} (${jack.id})` : name;
};

interface HeardHere {
  readonly sound: Id<'sound'>;
  readonly sides: number;
  readonly sources: readonly Id<'device'>[];
  /** Loopers that what comes here has passed. */
  readonly loopers: readonly Id<'device'>[];
}

const sideOf = (heard: readonly HeardHere[]): InputLine['side'] => {
  const sides = heard.reduce((all, h) => all | h.sides, 0);
  if (sides === 0) return 'nothing';
  const [left, right] = [(sides & sideBit('left')) > 0, (sides & sideBit('right')) > 0];
  if (left && right) return 'both added';
  return left ? 'left' : right ? 'right' : 'mono';
};

/** Every line into the house in this hook-up, in the order in which the desk counts them. */
export const inputList = (d: Derived): readonly InputLine[] => {
  const cables = joined(d.rig, d.hookup);
  const { wiring } = d.anatomy;
  // Also what somebody else sings or plays comes to the house, not only the instrument in hand.
  const everybody = wiring.sources.filter((s) => wiring.wired.has(s.device)).map((s) => s.ref);
  const sounds = [...d.compilation.sounds.values()].map(({ sound, state }) => ({
    sound,
    trace: trace(wiring, state, { from: everybody }),
  }));
  const loopers = all(d.rig, 'device').filter((device) => tracksIn(device).length > 0);
  const passedBy = ({ sides }: { readonly sides: ArrayLike<number> }): readonly Id<'device'>[] =>
    loopers
      .filter(({ id }) => wiring.points.some((p, i) => p.device === id && (sides[i] ?? 0) > 0))
      .map(({ id }) => id);
  const heardAt = (point: number): readonly HeardHere[] =>
    sounds.flatMap(({ sound, trace: { spreads, onPath } }) => {
      const arriving = [...spreads].filter(([, { sides }]) => theItem(sides, point) > 0);
      const sides = arriving.reduce((bits, [, s]) => bits | theItem(s.sides, point), 0);
      if (!sides || !onPath[point]) return [];
      const sources = arriving.map(([source]) => source.device);
      return [{ sound, sides, sources, loopers: arriving.flatMap(([, spread]) => passedBy(spread)) }];
    });
  const name = (id: Id<'sound'>) => thePart(d.rig, id).name;
  return cables
    .filter((j) => isHouse(j.to.device) && j.to.jack.kind === 'audio')
    .map(({ from, to }): InputLine => {
      const gives = giver(cables, from);
      const heard = heardAt(theEntry(d.anatomy.wiring.at, pointId(to.device.id, to.jack.id)));
      const there = new Set(heard.map((h) => h.sound));
      const silent = heard.length ? sounds.map((s) => s.sound).filter((id) => !there.has(id)) : [];
      const balanced = Boolean(gives.jack.balanced) || gives.jack.connector === 'XLR';
      return {
        desk: to.device.name,
        line: to.jack.id,
        source: sourceText(d.rig, cables, gives),
        of: [...new Set(heard.flatMap((h) => h.sources))].map((id) => thePart(d.rig, id).name),
        loops: [...new Set(heard.flatMap((h) => h.loopers))].map((id) => thePart(d.rig, id).name),
        by: meansOf(gives),
        balanced,
        phantomOff: Boolean(to.jack.phantom) && !balanced,
        side: sideOf(heard),
        silentIn: silent.map(name),
        songs: all(d.rig, 'song')
          .filter((song) => callsAny(song, silent))
          .map((song) => song.title),
      };
    })
    .sort((a, b) => a.desk.localeCompare(b.desk) || a.line.localeCompare(b.line, undefined, { numeric: true }));
};

const callsAny = (song: Song, sounds: readonly Id<'sound'>[]): boolean =>
  song.cues.some((c) => 'sound' in c.call && sounds.includes(c.call.sound));
