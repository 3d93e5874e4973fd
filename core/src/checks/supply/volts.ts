import type { Check, CheckInputs } from '../check.js';
import { boxName, listed } from '../names.js';
import { fedHere, feedFrom, loadsHere, outputText, type Fed } from './fed.js';

const current = (centre: string): string => (centre === 'ac' ? 'alternating' : 'direct');

/** What is wrong with the voltage that a box gets; undefined where nothing is. */
const wrongIn = ({ need, given }: Fed): { readonly is: 'danger' | 'broken'; readonly text: string } | undefined => {
  if ((need.centre === 'ac') !== (given.centre === 'ac'))
    return {
      is: 'danger',
      text: `gives ${current(given.centre)} current, and it takes ${current(need.centre)}`,
    };
  if (given.volts.some((v) => need.volts.includes(v))) return undefined;
  const least = Math.min(...given.volts);
  const text = `gives ${given.volts.join(' or ')} V, and it takes ${need.volts.join(' or ')} V`;
  return { is: least > Math.max(...need.volts) ? 'danger' : 'broken', text };
};

export const volts: Check = {
  code: 'supply.volts',
  title: 'A supply of the wrong voltage or current',
  severities: ['danger', 'broken'],
  source: 'common practice: the voltage and the kind of current that are printed at the jack, nothing else',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const fed of fedHere(inputs)) {
      const { need, given, cable } = fed;
      const wrong = wrongIn(fed);
      if (!wrong) continue;
      const from = given.outputs.map((o) => outputText(rig, o.jack)).join(' with ');
      yield {
        severity: wrong.is,
        evidence: [need.device, cable, ...new Set(given.outputs.map((o) => o.device))],
        about: need.jack,
        why: `${from} ${wrong.text}: ${boxName(rig, need.device)} ${wrong.is === 'danger' ? 'can be destroyed by it' : 'will not work as it should'}.`,
        remedies: () =>
          feedFrom(
            inputs,
            need,
            `Feed it from an output of ${need.volts.join(' or ')} V${need.centre === 'ac' ? ' AC' : ''}`,
          ),
      };
    }
    for (const { output, feeds, volts: setTo } of loadsHere(inputs)) {
      const boxes = feeds.map((f) => f.need.device);
      if (
        setTo !== undefined ||
        boxes.length < 2 ||
        fedHere(inputs).some((f) => boxes.includes(f.need.device) && wrongIn(f))
      )
        continue;
      yield {
        severity: 'danger' as const,
        evidence: [...boxes, output.device],
        about: output.jack,
        why: `${outputText(rig, output.jack)} can be set to one voltage only, and ${listed(boxes.map((b) => boxName(rig, b)))} want different ones: one of them can be destroyed.`,
        remedies: () => [
          { id: 'hand', label: 'Feed them from different outputs', promise: 'clears' as const, by: 'hand' as const },
        ],
      };
    }
  },
};
