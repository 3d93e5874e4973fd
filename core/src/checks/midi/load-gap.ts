import type { Act } from '../../rig/act.js';
import type { Bearings } from '../../recall/actuate/bearings.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { slotTiming } from '../../recall/actuate/slot-timing.js';
import { partOf, thePart } from '../../rig/rig.js';
import type { Program } from '../../rig/program.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import { theItem } from '../../known/the.js';
import { memoryIn } from '../../rig/box.js';

export const loadGap: Check = {
  code: 'midi.load-gap',
  title: 'A message that comes while its box is loading',
  severities: ['doubt'],
  source: 'common practice: many boxes hear nothing while they load a program; how long is the figure of the box',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap((compiled) =>
      lostIn(compiled, compilation.bearings).map((l) => ({ sound: compiled.sound, ...l })),
    );
    for (const group of grouped(cases, (c) => `${c.device} ${c.from}`).values()) {
      const { device, from } = group[0];
      const sounds = [...new Set(group.map((c) => c.sound))];
      const gapMs = Math.max(0, ...thePart(rig, device).memories.map((m) => m.gapMs));
      yield {
        severity: 'doubt' as const,
        evidence: [device, from, ...sounds],
        why: `${boxName(rig, from)} sends ${boxName(rig, device)} something right behind a program change in ${soundNames(rig, sounds)}. ${boxName(rig, device)} loads for ${gapMs} ms and does not hear what comes meanwhile.`,
        remedies: () =>
          pauses(
            inputs,
            group.map((c) => c.program),
            gapMs,
          ),
      };
    }
  },
};

/** Messages of a sound that the box they are meant for misses, whatever it had loaded. */
const lostIn = once((compiled: Compiled, bearings: Bearings) =>
  compiled.stored.flatMap(({ program, typed, meant }) =>
    slotTiming(bearings, program.device, program.acts).flatMap(({ missed }, i) =>
      missed
        .filter((m) => typed || m.device === meant[i]?.device)
        .map((m) => ({ device: m.device, from: program.device, program })),
    ),
  ),
);

/** A pause in the typed slots, where the controller can hold one. */
const pauses = (
  { rig, compilation: { bearings } }: CheckInputs,
  programs: readonly Program[],
  gapMs: number,
): readonly Remedy[] => {
  const typed = [...new Set(programs)].filter((p) => partOf(rig, p.id));
  const can =
    typed.length > 0 && typed.every((p) => memoryIn(partOf(rig, p.device), p.memory)?.limits?.waits !== false);
  if (!can)
    return [
      {
        id: 'hold',
        label: 'Save the values in the programs of the box instead of sending them',
        promise: 'clears',
        by: 'hand',
      },
    ];
  const waiting = (p: Program): Program => {
    let acts: readonly Act[] = p.acts;
    for (let i = 0; i < acts.length; i += 1) {
      const act = theItem(acts, i);
      if ('send' in act && theItem(slotTiming(bearings, p.device, acts), i).missed.length)
        acts = acts.map((a, k) => (k === i ? { ...act, afterMs: (act.afterMs ?? 0) + gapMs } : a));
    }
    return { ...p, acts };
  };
  return [
    {
      id: 'wait',
      label: `Pause ${gapMs} ms before what would be missed`,
      note: 'type the pause into the controller as well',
      promise: 'clears',
      by: 'program',
      edit: { put: typed.map(waiting), remove: [] },
    },
  ];
};
