import { grouped } from '../../known/grouped.js';
import {
  joinedOutputs,
  supplyNeedsIn,
  supplyOutputsIn,
  type SupplyNeed,
  type SupplyOutputJack,
} from '../../electric/supply.js';
import type { Ref } from '../../rig/ids.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed } from '../names.js';
import { fedHere, freeOutputs, suitsNeed } from './fed.js';

const JOINED = ['current', 'volts'] as const;

/**
 * As many boxes as can each have an output of their own: whoever finds all taken asks those who have one to take another
 * (augmenting paths; Berge 1957).
 * @returns the boxes that stay without
 */
const without = (needs: readonly SupplyNeed[], outputs: ReturnType<typeof freeOutputs>): readonly SupplyNeed[] => {
  const taken = new Map<Ref, SupplyNeed>();
  const place = (need: SupplyNeed, asked: Set<Ref>): boolean => {
    for (const output of outputs) {
      if (asked.has(output.jack) || !suitsNeed(output, need)) continue;
      asked.add(output.jack);
      const holder = taken.get(output.jack);
      if (holder && !place(holder, asked)) continue;
      taken.set(output.jack, need);
      return true;
    }
    return false;
  };
  const left = needs.filter((need) => !place(need, new Set()));
  const free = outputs.filter((o) => !taken.has(o.jack));
  return left.filter((need) => !joins(need, free));
};

/** Two or three isolated outputs of one supply that are joined for a box are taken from those that are free. */
const joins = (need: SupplyNeed, free: SupplyOutputJack[]): boolean => {
  const isolated = free.filter((o) => o.group === o.jack && o.centre === 'negative' && need.centre !== 'ac');
  for (const some of [...grouped(isolated, (o) => o.device).values()])
    for (const many of [2, 3]) {
      const taken = some.slice(0, many);
      if (taken.length < many || !JOINED.some((adds) => suitsNeed(joinedOutputs(taken, adds), need))) continue;
      for (const one of taken) free.splice(free.indexOf(one), 1);
      return true;
    }
  return false;
};

export const count: Check = {
  code: 'supply.count',
  title: 'More boxes than outputs that fit',
  severities: ['broken'],
  source: 'common practice: count outputs while boxes are chosen, not on build day',
  *find(inputs: CheckInputs) {
    const { rig, hookup } = inputs;
    const there = supplyOutputsIn(rig, hookup.id);
    if (there.length === 0) return;
    const fed = new Set(fedHere(inputs).map((f) => f.need.jack));
    const open = supplyNeedsIn(rig, hookup.id).filter((n) => !fed.has(n.jack));
    const left = without(
      open,
      freeOutputs(inputs).filter((o) => there.some((t) => t.jack === o.jack)),
    );
    if (left.length === 0) return;
    const names = listed(left.map((n) => boxName(rig, n.device)));
    const all = fed.size + open.length;
    yield {
      severity: 'broken' as const,
      evidence: [...left.map((n) => n.device), ...new Set(there.map((o) => o.device))],
      why: `${all} ${all === 1 ? 'box wants' : 'boxes want'} an output, and ${there.length} ${there.length === 1 ? 'is' : 'are'} there: ${names} ${left.length === 1 ? 'finds' : 'find'} none that fits and is free.`,
      remedies: () => [
        {
          id: 'hand',
          label: 'Look in Power: which outputs can be joined or shared, and what to buy',
          promise: 'eases' as const,
          by: 'hand' as const,
        },
      ],
    };
  },
};
