import { feeds, outputLoads, type Feed, type Given, type OutputLoad, type SupplyNeed } from '../../electric/supply.js';
import { connect } from '../../edits/cables.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf, type Rig } from '../../rig/rig.js';
import type { CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { elseByHand } from '../ways-out.js';

// What several checks of supplies ask: who is fed by what, what is free, and how a box is fed otherwise.

/** A box whose lead comes from something that feeds. */
export interface Fed extends Feed {
  readonly given: Given;
}

/** Every box that is fed in this hook-up. */
export const fedHere = ({ rig, hookup }: CheckInputs): readonly Fed[] =>
  feeds(rig, hookup).flatMap((f) => (f.given ? [{ ...f, given: f.given }] : []));

/** Every output with what hangs on it. */
export const loadsHere = ({ rig, hookup }: CheckInputs): readonly OutputLoad[] => outputLoads(rig, feeds(rig, hookup));

/** Whether an output could feed a box, with an ordinary lead or one that turns the polarity. */
export const suitsNeed = (
  { volts, milliamps, centre }: Pick<OutputLoad['output'], 'volts' | 'milliamps' | 'centre'>,
  need: SupplyNeed,
): boolean =>
  (centre === 'ac') === (need.centre === 'ac') &&
  milliamps >= need.milliamps &&
  volts.some((v) => need.volts.includes(v));

/** Outputs on which nothing hangs. */
export const freeOutputs = (inputs: CheckInputs): readonly OutputLoad['output'][] =>
  loadsHere(inputs).flatMap(({ output, feeds: here }) => (here.length === 0 ? [output] : []));

const newCable = (rig: Rig, stem: string): Id<'cable'> => {
  let made = 1;
  while (partOf(rig, `cable:${stem}-${made}`)) made += 1;
  return `cable:${stem}-${made}`;
};

/** @example outputText(rig, 'device:psu.out3') // 'Eight-output supply (out3)' */
export const outputText = (rig: Rig, jack: Ref): string =>
  `${boxName(rig, splitRef(jack).device)} (${splitRef(jack).name})`;

/** The box on another output, one that is free and fits. */
export const feedFrom = (
  inputs: CheckInputs,
  need: SupplyNeed,
  label: string,
  may: (output: OutputLoad['output']) => boolean = () => true,
): readonly Remedy[] => {
  const { rig, hookup } = inputs;
  const output = freeOutputs(inputs).find((o) => suitsNeed(o, need) && may(o));
  if (!output) return elseByHand([], label);
  const id = newCable(rig, need.device.slice('device:'.length));
  const plugged = connect(rig, hookup.id, id, output.jack, need.jack);
  const turns = (output.centre === 'positive') !== (need.centre === 'positive');
  return [
    {
      id: `feed ${output.jack}`,
      label: `Feed ${boxName(rig, need.device)} from ${outputText(rig, output.jack)}`,
      promise: 'clears',
      by: 'program',
      edit: turns
        ? { ...plugged, put: plugged.put.map((p) => (p.kind === 'cable' ? { ...p, turns: true as const } : p)) }
        : plugged,
      ...(turns ? { note: 'with a lead that turns the polarity' } : {}),
    },
  ];
};
