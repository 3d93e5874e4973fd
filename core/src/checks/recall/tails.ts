import type { Compiled } from '../../recall/compiled.js';
import { ref, splitRef, type Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { Anatomy } from '../../signal/anatomy.js';
import { whenHolds } from '../../signal/state.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, grouped, soundNames } from '../names.js';

export const tails: Check = {
  code: 'recall.tails',
  title: 'Repeats that are cut, or that ring on',
  severities: ['doubt'],
  source: 'common practice: a box rings on if its bypass keeps its output open, and in a loop only if the loop keeps the return open; a box that loads a program is silent',
  *find({ rig, compilation }: CheckInputs) {
    const sounds = [...compilation.sounds.values()];
    const cases = sounds.flatMap((leaving) => {
      const wish = partOf(rig, leaving.sound)?.leaving;
      if (!wish) return [];
      return timeStages(leaving).flatMap((stage) => sounds.filter((next) => next !== leaving && next.trace.stages.get(stage) !== 'in').flatMap((next) => {
        const rings = ringsOn(rig, compilation.bearings.anatomy, leaving, next, stage);
        return rings === (wish === 'ring') ? [] : [{ wish, stage, leaving: leaving.sound, next: next.sound }];
      }));
    });
    for (const group of grouped(cases, (c) => `${c.stage} ${c.wish}`).values()) {
      const { stage, wish } = group[0]!;
      const { device } = splitRef(stage);
      const leaving = [...new Set(group.map((c) => c.leaving))];
      const next = [...new Set(group.map((c) => c.next))];
      yield {
        severity: 'doubt' as const,
        evidence: [device, ...leaving],
        about: wish,
        why: wish === 'ring'
          ? `${soundNames(rig, leaving)} ${leaving.length === 1 ? 'is' : 'are'} to ring out, but ${boxName(rig, device)} is cut off on the way to ${soundNames(rig, next)}.`
          : `${soundNames(rig, leaving)} ${leaving.length === 1 ? 'is' : 'are'} to stop at once, but ${boxName(rig, device)} rings on in ${soundNames(rig, next)}.`,
        remedies: () => [wish === 'ring'
          ? { id: 'ring', label: `Switch ${boxName(rig, device)} itself with its tails on, behind the loops, or use a loop that keeps its return open`, promise: 'clears' as const, by: 'hand' as const }
          : { id: 'cut', label: `Put ${boxName(rig, device)} into a loop that closes, or switch its tails off`, promise: 'clears' as const, by: 'hand' as const }],
      };
    }
  },
};

const timeStages = ({ trace }: Compiled): readonly Ref[] =>
  trace.wiring.blocks.filter((b) => (b.block.stage === 'delay' || b.block.stage === 'reverb') && trace.stages.get(b.stage) === 'in').map((b) => b.stage);

/** Whether repeats that were made in one sound are still heard in the next, in which their stage is not in. */
const ringsOn = (rig: Rig, anatomy: Anatomy, leaving: Compiled, next: Compiled, stage: Ref): boolean => {
  const embedded = anatomy.stages.get(stage);
  if (!embedded) return false;
  const { block, device: id, inserts } = embedded;
  const isShut = inserts.some(({ device, insert }) => {
    const open = !insert.on || whenHolds(device, insert.on, next.state);
    return !open && !(insert.off === 'send' || (typeof insert.off === 'object' && whenHolds(device, insert.off.sendOnlyWhen, next.state)));
  });
  const loads = partOf(rig, id)!.memories.some((m) => m.mutesMs > 0 && String(leaving.state.get(ref(id, m.control))) !== String(next.state.get(ref(id, m.control))));
  if (isShut || loads) return false;
  const isOn = !block.on || whenHolds(id, block.on, next.state);
  return isOn || (typeof block.tails === 'object' ? whenHolds(id, block.tails, next.state) : block.tails === true);
};
