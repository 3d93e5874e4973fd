import { theEntry } from '../../known/the.js';
import type { Device } from '../../rig/device.js';
import { signalCables } from '../../rig/box.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { ABOUT, all, partOf, rigName, soundsInOrder, type Rig } from '../../rig/rig.js';
import { callFits } from '../../recall/intend/wants.js';
import { wantTarget, type Sound, type Want } from '../../rig/sound.js';
import { signalOrder } from '../../signal/graph/order.js';
import { blocksIn } from '../../rig/domain.js';
import { slotText } from '../../recall/words/words.js';
import type { Derived } from '../steps/deriver.js';
import { boxUse } from './without.js';
import { inputList } from './input-list.js';

/** One box on the way, told to somebody who does not know the rig. */
export interface ToldBox {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  /** What it is for, in trade words. @example 'compressor', 'preamp, power amp' */
  readonly does: string;
  /** What is plugged before it. */
  readonly after: readonly string[];
  /** When it is heard. */
  readonly heard: string;
  /** The person's own words about it. */
  readonly why: readonly string[];
}

/** A rig told from the strings to the outputs, for a stand-in or a technician. */
export interface Telling {
  readonly name: string;
  readonly notes: string;
  readonly opening: readonly string[];
  readonly boxes: readonly ToldBox[];
  /** Boxes that stand beside the way of the signal: controllers, supplies. */
  readonly beside: readonly ToldBox[];
  readonly sounds: readonly { readonly name: string; readonly calledBy: string; readonly why: readonly string[] }[];
  readonly ends: readonly string[];
}

const listed = (names: readonly string[], most = 6): string =>
  names.length > most
    ? `${names.slice(0, most).join(', ')} and ${names.length - most} more`
    : [names.slice(0, -1).join(', '), names.at(-1) ?? ''].filter(Boolean).join(' and ');

const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

const doesText = (device: Device): string => {
  const stages = [...new Set(device.chains.flatMap((c) => blocksIn(c.slots).map((b) => b.stage)))];
  const inserts = device.chains.flatMap((c) => c.slots.filter((s) => s.is === 'insert')).length;
  const own = device.ends?.find((e) => e.is === 'source');
  if (own) return own.name.toLowerCase() === device.name.toLowerCase() ? 'where it begins' : own.name;
  const name = device.name.toLowerCase();
  return [
    ...stages.filter((stage) => !name.includes(stage.toLowerCase())),
    ...(inserts ? [counted(inserts, 'loop')] : []),
  ].join(', ');
};

const aboutBox = (device: Id<'device'>, want: Want): boolean => splitRef(wantTarget(want)).device === device;

/** What the person said about a box in the sounds: each reason once. */
const whyOf = (rig: Rig, device: Id<'device'>): readonly string[] => [
  ...new Set(soundsInOrder(rig).flatMap((s) => s.wants.flatMap((w) => (w.why && aboutBox(device, w) ? [w.why] : [])))),
];

const heardText = (d: Derived, device: Id<'device'>): string => {
  const use = boxUse(d, device);
  if (!use) return '';
  if (use.sounds.length === 0) return use.says || 'No sound uses it here.';
  const where = use.sounds.length === use.of ? 'In every sound' : `In ${listed(use.sounds)}`;
  const songs = use.songs.length === d.rig.parts.song.size ? 'every song' : listed(use.songs);
  return `${where}${use.songs.length && use.sounds.length < use.of ? `; songs: ${songs}` : ''}.`;
};

const toldBox = (d: Derived, device: Device, place: (id: Id<'device'>) => number): ToldBox => {
  const { rig } = d;
  const before = signalCables(rig, d.hookup.id).flatMap(({ ends: [a, b] }) => {
    const [x, y] = [splitRef(a).device, splitRef(b).device];
    const other = x === device.id ? y : y === device.id ? x : undefined;
    return other !== undefined && place(other) < place(device.id) ? [other] : [];
  });
  return {
    device: device.id,
    code: device.code,
    name: device.name,
    does: doesText(device),
    after: [...new Set(before)].map((id) => partOf(rig, id)?.code ?? ''),
    heard: heardText(d, device.id),
    why: whyOf(rig, device.id),
  };
};

/** What calls a sound, in words. */
export const callText = ({ rig, hookup }: Derived, sound: Sound): string => {
  const calls = sound.calls.filter((c) => callFits(rig, c, hookup.id));
  if (calls.length === 0) return 'by hand and foot';
  const boxes = [...new Set(calls.map((c) => partOf(rig, c.device)?.code ?? ''))];
  return `${boxes.join(' and ')} ${slotText(rig, { ...sound, calls })}`;
};

const openingOf = (d: Derived, order: readonly Id<'device'>[]): readonly string[] => {
  const { rig, hookup } = d;
  const proved = [...d.answers.values()].filter((a) => a.is === 'proved').length;
  const sounds = rig.parts.sound.size;
  return [
    `${rigName(rig)}, as it is wired for ${hookup.name}: ${counted(order.length, 'box', 'boxes')} from the strings to the outputs, ${counted(sounds, 'sound')}, ${counted(rig.parts.song.size, 'song')}.`,
    ...(sounds > 0
      ? [
          proved === sounds
            ? 'Every sound comes back by itself, whatever was stomped before.'
            : `${counted(proved, 'sound comes', 'sounds come')} back by ${proved === 1 ? 'itself' : 'themselves'}; for the others see the proof.`,
        ]
      : []),
  ];
};

/** The whole rig told in the order in which the signal meets it, from what is known and what the person said. */
export const telling = (d: Derived): Telling => {
  const { rig } = d;
  const order = signalOrder(d.anatomy);
  const inOrder = [...order.keys()];
  const place = (id: Id<'device'>): number => order.get(id) ?? -1;
  const onWay = inOrder.map((id) => theEntry(rig.parts.device, id));
  const { wired } = d.anatomy.wiring;
  const beside = all(rig, 'device').filter((x) => wired.has(x.id) && !order.has(x.id));
  return {
    name: rigName(rig),
    notes: rig.parts.about.get(ABOUT)?.notes ?? '',
    opening: openingOf(d, inOrder),
    boxes: onWay.map((device) => toldBox(d, device, place)),
    beside: beside.map((device) => toldBox(d, device, place)),
    sounds: soundsInOrder(rig).map((s) => ({
      name: s.name,
      calledBy: callText(d, s),
      why: [...new Set([...(s.orderWhy ? [s.orderWhy] : []), ...s.wants.flatMap((w) => (w.why ? [w.why] : []))])],
    })),
    ends: inputList(d).map((l) => `${l.desk} ${l.line}: ${l.source}, ${l.by}`),
  };
};
