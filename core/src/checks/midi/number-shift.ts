import { theOne } from '../../known/the.js';
import { saysNumbers, shown } from '../../midi/numbering.js';
import type { Act } from '../../rig/act.js';
import { ref, type Id } from '../../rig/ids.js';
import { partOf, thePart } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { heardBy } from './heard-by.js';

export const numberShift: Check = {
  code: 'midi.number-shift',
  title: 'A program number that is one off',
  severities: ['doubt'],
  source: 'MIDI 1.0 Detailed Specification: the wire counts programs from 0; what a box shows is its own affair',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    for (const { sound, stored, wants } of compilation.sounds.values()) {
      for (const { program, typed } of stored) {
        if (!typed || !partOf(rig, program.id)) continue;
        for (const act of program.acts) {
          if (!('send' in act) || !('pc' in act.send)) continue;
          const sent = act.send.pc + 128 * (act.send.bank ?? 0);
          for (const { device } of heardBy(inputs.compilation.bearings, program.device, act)) {
            const { id } = device;
            const memory = device.memories.find((m) => wants.some((w) => w.control === ref(id, m.control)));
            const wanted = memory && Number(theOne(wants, (w) => w.control === ref(id, memory.control)).value);
            if (!memory || wanted === undefined || Math.abs(wanted - sent) !== 1) continue;
            yield {
              severity: 'doubt' as const,
              evidence: [id, sound, program.id],
              about: `${sent} ${wanted}`,
              why: `“${thePart(rig, sound).name}” sends ${sent} on the wire, so ${boxName(rig, id)} shows ${shown(memory.shows, sent)}; program ${shown(memory.shows, wanted)} was meant, which is ${wanted} on the wire (${device.name} ${saysNumbers(memory.shows, memory.size)}).`,
              remedies: () => correctNumber(inputs, program.id, act, wanted, shown(memory.shows, wanted)),
            };
          }
        }
      }
    }
  },
};

const correctNumber = (
  { rig }: CheckInputs,
  id: Id<'program'>,
  wrong: Act,
  wanted: number,
  display: string,
): readonly Remedy[] => {
  const part = thePart(rig, id);
  const acts = part.acts.map((act): Act =>
    act === wrong && 'send' in act && 'pc' in act.send ? { ...act, send: { ...act.send, pc: wanted & 0x7f } } : act,
  );
  return [
    {
      id: 'correct',
      label: `Send ${wanted} instead, shown ${display}`,
      note: 'type it into the controller as well',
      promise: 'clears',
      by: 'program',
      edit: { put: [{ ...part, acts }], remove: [] },
    },
  ];
};
