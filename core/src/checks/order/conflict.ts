import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { changeSound } from '../../edits/sounds.js';
import { thePart } from '../../rig/rig.js';
import { together } from '../../change/edit.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';

export const conflict: Check = {
  code: 'order.conflict',
  title: 'An order that this wiring cannot give',
  severities: ['broken'],
  source: 'compile: the switcher cannot reorder, or the boxes are wired one behind the other',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap((c) =>
      c.problems.flatMap((p) => (p.is === 'order' ? [{ sound: c.sound, ...p }] : [])),
    );
    for (const group of grouped(cases, (c) => `${c.first} ${c.second}`).values()) {
      const { first, second } = group[0];
      const [a, b] = [splitRef(first).device, splitRef(second).device];
      const sounds = group.map((c) => c.sound);
      yield {
        severity: 'broken' as const,
        evidence: [a, b, ...sounds],
        about: `${first} ${second}`,
        why: `${soundNames(rig, sounds)} want ${boxName(rig, a)} before ${boxName(rig, b)}; the signal meets them the other way round, ${whyNot(inputs, first, second)}.`,
        remedies: () => [
          {
            id: 'drop-order',
            label: 'Let these sounds take the order of the wiring',
            promise: 'clears' as const,
            by: 'program' as const,
            edit: together(...sounds.map((id) => changeSound(thePart(rig, id), { order: [] }))),
          },
        ],
      };
    }
  },
};

/**
 * What keeps them from being reordered: no switcher that can, or one that does not hold them each in a loop of its
 * own.
 */
const whyNot = ({ rig, compilation }: CheckInputs, first: Ref, second: Ref): string => {
  const { loops, wiring } = compilation.bearings.anatomy;
  const orders = new Set(wiring.ordered.map((o) => splitRef(o.control).device));
  const reordering = loops.filter((l) => orders.has(l.device));
  const hold = (stage: Ref) => reordering.filter((l) => l.holds.includes(stage));
  const [a, b] = [hold(first), hold(second)];
  const shared = a.find((l) => b.includes(l));
  const boxes = (loop: { readonly device: Id<'device'> }): string => boxName(rig, loop.device);
  if (shared && a.every((l) => b.includes(l)))
    return `and both hang in ${shared.insert.id} of ${boxes(shared)}, which can reorder its loops but not what is inside one`;
  if (a[0] && b[0]) return `and ${boxes(a[0])}, which could reorder them, is set to another order here`;
  const only = a[0] ?? b[0];
  if (only)
    return `and ${boxes(only)} can reorder its loops, but ${boxName(rig, splitRef(a[0] ? second : first).device)} is in none of them`;
  const [one] = orders;
  return one && wiring.wired.has(one)
    ? `and neither of them is in a loop of ${boxName(rig, one)}, which could reorder them`
    : 'and nothing here can reorder them';
};
