import type { Act } from '../../rig/act.js';
import type { Id } from '../../rig/ids.js';
import { channelOf } from '../../rig/midi-manners.js';
import { all } from '../../rig/rig.js';
import { shown } from '../../midi/numbering.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { heardBy } from './heard-by.js';
import { theOne } from '../../known/the.js';

export const range: Check = {
  code: 'midi.range',
  title: 'A number that no box on that channel knows',
  severities: ['broken'],
  source: "MIDI 1.0 Detailed Specification for channels and numbers; how far a box counts is the box's own figure",
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const program of all(rig, 'program')) {
      for (const [i, act] of program.acts.entries()) {
        const why = unknown(inputs, program.device, act);
        if (!why) continue;
        const calls = all(rig, 'sound').filter((s) =>
          s.calls.some((c) => c.device === program.device && c.memory === program.memory && c.slot === program.number),
        );
        yield {
          severity: 'broken' as const,
          evidence: [program.id, program.device, ...why.boxes, ...calls.map((s) => s.id)],
          about: String(i),
          why: `“${program.name}” on ${boxName(rig, program.device)} ${why.text}`,
          remedies: (): readonly Remedy[] => [
            {
              id: 'drop',
              label: 'Take this message out of the slot',
              note: 'take it out of the controller as well',
              promise: 'clears',
              by: 'program',
              edit: { put: [{ ...program, acts: program.acts.filter((_, k) => k !== i) }], remove: [] },
            },
          ],
        };
      }
    }
  },
};

interface Unknown {
  readonly boxes: readonly Id<'device'>[];
  readonly text: string;
}

/** What is wrong with a message that a typed slot sends; nothing when some box on its channel knows it. */
const unknown = (
  { rig, compilation: { bearings } }: CheckInputs,
  from: Id<'device'>,
  act: Act,
): Unknown | undefined => {
  if (!('send' in act) || 'bpm' in act.send) return undefined;
  const { send } = act;
  const onChannel = all(rig, 'device').filter(
    (d) => d.id !== from && (d.midi?.omni || channelOf(d, (r) => bearings.grounds.resting.get(r)) === send.channel),
  );
  if (onChannel.length === 0)
    return { boxes: [], text: `sends on channel ${send.channel}, on which no box of this rig answers.` };
  const hears = heardBy(bearings, from, act);
  if ('cc' in send)
    return hears.length || send.cc === 0 || send.cc === 32
      ? undefined
      : {
          boxes: onChannel.map((d) => d.id),
          text: `sends controller ${send.cc} on channel ${send.channel}; ${onChannel.map((d) => d.name).join(' and ')} knows no such controller, or no wire leads there.`,
        };
  const number = send.pc + 128 * (send.bank ?? 0);
  const tooFar = hears.filter(({ device }) => device.memories.some((m) => number >= m.size));
  const first = tooFar[0]?.device;
  if (!first || tooFar.length < hears.length) return undefined;
  const memory = theOne(first.memories, (m) => number >= m.size);
  return {
    boxes: [first.id],
    text: `calls program ${number} on the wire of ${first.name}, which goes up to ${memory.size - 1}, shown ${shown(memory.shows, memory.size - 1)}.`,
  };
};
