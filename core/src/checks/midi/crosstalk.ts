import { changeDevice } from '../../edits/devices.js';
import type { Bearings } from '../../recall/actuate/bearings.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf, thePart } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { keptIn, once } from '../../kept/kept.js';
import { heardBy } from './heard-by.js';
import { theItem, theFirst } from '../../known/the.js';
import type { Device } from '../../rig/device.js';

export const crosstalk: Check = {
  code: 'midi.crosstalk',
  title: 'A box reacts to a message meant for another',
  severities: ['broken'],
  source: 'MIDI 1.0 Detailed Specification: every receiver on the wire answers to its channel, or to all in omni mode',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap((compiled) => heardByOthers(compiled, compilation.bearings));
    for (const group of grouped(cases, (c) => c.pair).values()) {
      const { target, other } = group[0];
      const sounds = [...new Set(group.map((c) => c.sound))];
      const channel = partOf(rig, target)?.midi?.channel;
      yield {
        severity: 'broken' as const,
        evidence: [other, target, ...sounds],
        about: group[0].pair,
        why: `${boxName(rig, other)} also reacts to what is sent to ${boxName(rig, target)}${typeof channel === 'number' ? ` on channel ${channel}` : ''}, in ${soundNames(rig, sounds)}.`,
        remedies: () => ownChannel(inputs, other),
      };
    }
  },
};

const isTunedTo =
  (channel: number) =>
  ({ device }: { readonly device: Device }): boolean =>
    device.midi?.channel === channel && !device.midi.omni;

/** In one sound a box takes notice of what is meant for another. */
interface Overheard {
  readonly sound: Id<'sound'>;
  readonly target: Id<'device'>;
  readonly other: Id<'device'>;
  /** The two, whichever of them is meant. */
  readonly pair: string;
}

/** Boxes that take notice of messages of a sound that are meant for another, each pair once. */
const heardByOthers = once(({ sound, stored }: Compiled, bearings: Bearings): readonly Overheard[] => {
  const found = new Map<string, Overheard>();
  const note = (target: Id<'device'>, other: Id<'device'>): void => {
    const pair = [target, other].sort().join();
    keptIn(found, pair, () => ({ sound, target, other, pair }));
  };
  for (const { program, typed, meant } of stored) {
    for (let i = 0; i < program.acts.length; i += 1) {
      const act = theItem(program.acts, i);
      const hears = heardBy(bearings, program.device, act);
      if (hears.length === 0 || (hears.length === 1 && !typed && theFirst(hears).device.id === meant[i]?.device))
        continue;
      const ids = hears.map((h) => h.device.id);
      const own =
        'send' in act && !('bpm' in act.send) ? hears.find(isTunedTo(act.send.channel))?.device.id : undefined;
      const target =
        (typed ? (own ?? meant.find((m) => ids.includes(m.device))?.device) : meant[i]?.device) ??
        (ids.length > 1 ? theFirst(ids) : undefined);
      if (target) for (const other of ids) if (other !== target) note(target, other);
    }
  }
  return [...found.values()];
});

const ownChannel = ({ rig }: CheckInputs, id: Id<'device'>): readonly Remedy[] => {
  const device = thePart(rig, id);
  if (device.midi?.omni) {
    return [
      {
        id: 'omni-off',
        label: `Turn omni off on ${boxName(rig, device.id)}: it answers on channel ${device.midi.channel} only`,
        note: 'set it on the box as well',
        promise: 'clears',
        by: 'program',
        edit: changeDevice(device, { midi: { ...device.midi, omni: false } }),
      },
    ];
  }
  const taken = new Set(all(rig, 'device').map((d) => d.midi?.channel));
  const free = Array.from({ length: 16 }, (_, i) => i + 1).find((c) => !taken.has(c));
  if (!device.midi || free === undefined) return [];
  return [
    {
      id: 'own-channel',
      label: `Give ${boxName(rig, device.id)} channel ${free} of its own`,
      note: 'set it on the box as well',
      promise: 'clears',
      by: 'program',
      edit: changeDevice(device, { midi: { ...device.midi, channel: free, omni: false } }),
    },
  ];
};
