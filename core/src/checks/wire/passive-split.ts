import { makeDevice } from '../../catalogue/make.js';
import { jackIn } from '../../rig/box.js';
import type { Device } from '../../rig/device.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName } from '../names.js';
import { bareWires } from './bare-wires.js';

export const passiveSplit: Check = {
  code: 'wire.passive-split',
  title: 'One output feeds two inputs by a plain Y',
  severities: ['doubt'],
  source: 'common practice: two inputs side by side load the source; their earths meet as well',
  *find(inputs: CheckInputs) {
    for (const { device, wires } of bareWires(inputs)) {
      const split = wires.find((w) => wires.filter((x) => x.from === w.from).length > 1);
      const jack = split && jackIn(device, split.from);
      if (!split || jack?.level === 'speaker') continue;
      yield {
        severity: 'doubt' as const,
        evidence: [device.id],
        about: split.from,
        why: `${boxName(inputs.rig, device.id)} feeds two boxes from one output without a buffer: the level drops, treble is lost on long leads, and hum can run over the two earths.`,
        remedies: () => buffered(inputs, device),
      };
    }
  },
};

/** A buffered splitter has the same jacks as the plain lead. */
const buffered = ({ rig }: CheckInputs, device: Device): readonly Remedy[] => {
  const better = {
    ...makeDevice('splitter', device.id, { code: device.code }),
    ...(device.at === undefined ? {} : { at: device.at }),
  };
  const fits = device.jacks.every((j) => better.jacks.some((k) => k.id === j.id));
  return fits
    ? [
        {
          id: 'buffer',
          label: `Use a buffered splitter instead of ${boxName(rig, device.id)}`,
          promise: 'clears',
          by: 'program',
          edit: { put: [better], remove: [] },
        },
      ]
    : [{ id: 'buffer', label: 'Use a buffered splitter', promise: 'clears', by: 'hand' }];
};
