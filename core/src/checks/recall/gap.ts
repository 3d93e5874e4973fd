import type { Bearings } from '../../recall/actuate/bearings.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { listeners } from '../../recall/actuate/listeners.js';
import { boxesOnPath } from '../../recall/verdict/transitions.js';
import type { Memory } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import { theEntry } from '../../known/the.js';
import { memoryIn } from '../../rig/box.js';

/** A silence that is felt, in ms (common practice). */
const FELT_MS = 20;

export const gap: Check = {
  code: 'recall.gap',
  title: 'A change that interrupts the sound',
  severities: ['doubt', 'note'],
  source:
    'common practice: a silence of more than some 20 ms is heard; how long a box is silent while it loads is the figure of the box',
  *find({ rig, compilation }: CheckInputs) {
    const sounds = [...compilation.sounds.values()];
    if (sounds.length < 2) return;
    const heardIn = new Map<Id<'device'>, number>();
    for (const s of sounds) for (const d of onPath(s)) heardIn.set(d, (heardIn.get(d) ?? 0) + 1);
    const cases = sounds.flatMap((s) =>
      loads(s, compilation.bearings)
        .filter(({ device }) => heardIn.has(device))
        .map((l) => ({ sound: s.sound, ...l })),
    );
    for (const group of grouped(cases, (c) => c.device).values()) {
      const { device, ms, isOwn } = group[0];
      const hasScenes = rig.parts.device
        .get(device)
        ?.memories.some((m) => m.inside !== undefined && m.mutesMs <= FELT_MS);
      const those = [...new Set(group.map((c) => c.sound))];
      yield {
        // Who plays a box by its own presets knows it; whoever sends to it may not.
        severity: isOwn ? ('note' as const) : ('doubt' as const),
        evidence: [device, ...those],
        why: `${boxName(rig, device)} is silent for ${ms} ms while it loads, and it stands in the path${theEntry(heardIn, device) < sounds.length ? ` of ${heardIn.get(device)} sounds` : ''}: the change to ${soundNames(rig, those)} has a hole where it was or will be heard.`,
        remedies: () => [
          {
            id: isOwn && hasScenes ? 'scenes' : 'loop',
            label:
              isOwn && hasScenes
                ? 'Give the sounds of a song scenes of one preset: a scene changes without a hole'
                : `Put ${boxName(rig, device)} into a loop that is off before and after, or into an arm beside the direct sound`,
            promise: 'eases' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

const onPath = once(boxesOnPath);

/** Boxes that the slots of a sound make load, and that are silent meanwhile. */
const loads = once((compiled: Compiled, bearings: Bearings) => {
  const found = new Map<Id<'device'>, number>();
  const note = (device: Id<'device'>, memory: Memory | undefined) => {
    if (memory && memory.mutesMs > FELT_MS) found.set(device, Math.max(found.get(device) ?? 0, memory.mutesMs));
  };
  for (const { program } of compiled.stored) {
    note(program.device, memoryIn(bearings.rig.parts.device.get(program.device), program.memory));
    for (const act of program.acts) {
      if (!('send' in act) || !('pc' in act.send)) continue;
      for (const { device } of listeners(bearings, program.device, act.at, act.send))
        note(
          device.id,
          device.memories.find((m) =>
            device.actuators.some(
              (a) => 'midi' in a.by && a.by.midi === 'pc' && a.acts.some((x) => 'load' in x && x.load === m.id),
            ),
          ),
        );
    }
  }
  const own = new Set(compiled.stored.map((s) => s.program.device));
  return [...found].map(([device, ms]) => ({ device, ms, isOwn: own.has(device) }));
});
