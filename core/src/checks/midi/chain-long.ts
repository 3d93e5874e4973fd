import type { Bearings } from '../../recall/actuate/bearings.js';
import { slotTiming } from '../../recall/actuate/slot-timing.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { splitRef } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import { surely, theFirst } from '../../known/the.js';

/** Thru hops after which common practice takes a thru box. */
const MOST_THRUS = 3;
/** How long the messages of one slot may take on the wire, in ms, before a player feels it. */
const MOST_MS = 50;

export const chainLong: Check = {
  code: 'midi.chain-long',
  title: 'Messages take long to arrive',
  severities: ['doubt'],
  source:
    'common practice: each thru rounds the edges of the signal off, after three it may fail; 50 ms between stomp and sound are felt. Bytes take 320 µs (MIDI 1.0 Detailed Specification)',
  *find({ rig, compilation }: CheckInputs) {
    for (const [from, arrivals] of compilation.bearings.control.midi) {
      const { device: controller } = splitRef(from);
      const far = arrivals.filter((a) => a.hops - 1 > MOST_THRUS && rig.parts.device.get(a.device)?.midi);
      if (far.length === 0) continue;
      const hops = Math.max(...far.map((a) => a.hops - 1));
      yield {
        severity: 'doubt' as const,
        evidence: [theFirst(far).device, controller],
        about: from,
        why: `What ${boxName(rig, controller)} sends passes ${hops} thrus before it comes to ${boxName(rig, surely(far.at(-1)).device)}. After three it may no longer arrive clean; a thru box that feeds several from one output makes the way short.`,
        remedies: () => [
          {
            id: 'star',
            label: 'Feed the boxes from a thru box instead of from one another',
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
    const slow = [...compilation.sounds.values()].flatMap((compiled) => {
      const us = wireUs(compiled, compilation.bearings);
      return us > MOST_MS * 1000 ? [{ sound: compiled.sound, us }] : [];
    });
    for (const group of grouped(slow, () => 'slow').values()) {
      const ms = Math.round(Math.max(...group.map((s) => s.us)) / 1000);
      yield {
        severity: 'doubt' as const,
        evidence: group.map((s) => s.sound),
        about: 'slow',
        why: `The messages of ${soundNames(
          rig,
          group.map((s) => s.sound),
        )} take up to ${ms} ms, with the pauses that boxes need to load. Until then the sound is not complete.`,
        remedies: () => [
          {
            id: 'programs',
            label: 'Save what is sent behind a program change in the program itself',
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

/** When the last message of a sound has arrived, in µs. */
const wireUs = once(({ stored }: Compiled, bearings: Bearings): number => {
  let last = 0;
  for (const { program } of stored)
    for (const { us } of slotTiming(bearings, program.device, program.acts)) last = Math.max(last, us);
  return last;
});
