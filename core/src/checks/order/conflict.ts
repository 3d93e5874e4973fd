import { splitRef } from '../../rig/ids.js';
import { changeSound } from '../../edits/sounds.js';
import { partOf } from '../../rig/rig.js';
import { together } from '../../change/edit.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, grouped, soundNames } from '../names.js';

export const conflict: Check = {
  code: 'order.conflict',
  title: 'An order that this wiring cannot give',
  severities: ['broken'],
  source: 'compile: the switcher cannot reorder, or the boxes are wired one behind the other',
  *find({ rig, compilation }: CheckInputs) {
    const cases = [...compilation.sounds.values()].flatMap((c) => c.problems.flatMap((p) => (p.is === 'order' ? [{ sound: c.sound, ...p }] : [])));
    for (const group of grouped(cases, (c) => `${c.first} ${c.second}`).values()) {
      const { first, second } = group[0]!;
      const [a, b] = [splitRef(first).device, splitRef(second).device];
      const sounds = group.map((c) => c.sound);
      yield {
        severity: 'broken' as const,
        evidence: [a, b, ...sounds],
        about: `${first} ${second}`,
        why: `${soundNames(rig, sounds)} want ${boxName(rig, a)} before ${boxName(rig, b)}; the signal meets them the other way round, and nothing here can reorder them.`,
        remedies: () => [{
          id: 'drop-order', label: 'Let these sounds take the order of the wiring', promise: 'clears' as const, by: 'program' as const,
          edit: together(...sounds.map((id) => changeSound(partOf(rig, id)!, { order: [] }))),
        }],
      };
    }
  },
};
