import { keysOf } from '../known/keys.js';
import { splitRef, type AnyId, type Id } from './ids.js';
import type { Hookup } from './hookup.js';
import type { Part } from './rig.js';
import type { SetList } from './show.js';
import { wantTarget, type Want } from './sound.js';

/** Every part that this one cannot be without. */
export const refersTo = (part: Part): readonly AnyId[] => {
  const known = references.get(part);
  if (known) return known;
  const found = [...new Set(listReferences(part))];
  references.set(part, found);
  return found;
};
export const references = new WeakMap<Part, readonly AnyId[]>();

export const deviceOf = (r: string): Id<'device'> => splitRef(r).device;
const wantRefs = (wants: readonly Want[]): AnyId[] =>
  wants.flatMap((w) => [
    deviceOf(wantTarget(w)),
    ...(w.in ? Object.values(w.in) : []),
    ...('pedal' in w ? [deviceOf(w.pedal)] : []),
  ]);

const listReferences = (part: Part): readonly AnyId[] => {
  switch (part.kind) {
    case 'program':
      return [part.device];
    case 'hookup':
      return inHookup(part);
    case 'cable':
      return [part.hookup, ...part.ends.map(deviceOf)];
    case 'sound':
      return [
        ...(part.parent ? [part.parent] : []),
        ...(part.level ? [part.level.than] : []),
        ...wantRefs(part.wants),
        ...heardRefs(part.hears ?? []),
        ...(part.order ?? []).map(deviceOf),
        ...part.calls.flatMap((c) => [c.device, ...(c.in ? Object.values(c.in) : [])]),
        ...(part.measured ?? []).flatMap((m) => [m.hookup, ...(m.hole ? [m.hole.after] : [])]),
      ];
    case 'move':
      return [
        ...(part.sounds === 'all' ? [] : part.sounds),
        ...part.at.map((a) => a.device),
        ...wantRefs(part.on),
        ...wantRefs(part.off),
      ];
    case 'song':
      return [
        ...(part.instrument ? [part.instrument] : []),
        ...part.cues.flatMap((c): AnyId[] =>
          'sound' in c.call
            ? [c.call.sound]
            : 'move' in c.call
              ? [c.call.move]
              : 'track' in c.call
                ? [deviceOf(c.call.track)]
                : [],
        ),
      ];
    case 'engagement':
      return [...(part.hookup ? [part.hookup] : []), ...(part.banks ?? []).map((b) => b.device)];
    case 'setList':
      return inSetList(part);
    case 'standingTest':
    case 'acceptance':
      return [part.hookup];
    case 'tick':
      return [part.device];
    case 'dialCard':
      return [...(part.device ? [part.device] : []), ...Object.values(part.in ?? {})];
    case 'packCase':
      return Object.values(part.holds).flatMap((thing) => thing.device ?? []);
    case 'packing':
    case 'about':
    case 'device':
    case 'logEntry':
    case 'house':
    case 'photo':
      return [];
  }
};
const inHookup = ({ settings, assumes, hears, place = {}, mixes = {} }: Hookup): AnyId[] => [
  ...Object.keys(settings).map(deviceOf),
  ...assumes.map((a) => deviceOf(a.control)),
  ...heardRefs(hears),
  ...keysOf(place),
  ...Object.values(mixes).flatMap((mix) => mix.at ?? []),
];
const inSetList = ({ engagement, songs, reserve = [], before = [] }: SetList): AnyId[] => [
  ...(engagement ? [engagement] : []),
  ...songs,
  ...reserve,
  ...before.map((b) => b.song),
];
const heardRefs = (hears: readonly { from: string; at: string }[]): AnyId[] =>
  hears.flatMap((h) => [deviceOf(h.at), ...(h.from.startsWith('device:') ? [deviceOf(h.from)] : [])]);
