import loadHighs from 'highs';
import { mainsOf } from '@yunta/core/derive/views/mains';
import { powerOf } from '@yunta/core/derive/views/power';
import { highsSolver } from '@yunta/core/plan/solver';
import type { CommandWords } from './arguments.js';
import { deriveFile } from './read.js';
import { json, print } from './say.js';

/** Which output feeds which box of a rig. @returns 0 all are fed, 1 some stay without */
export const powerVerb = async (words: CommandWords): Promise<number> => {
  const { rig, hookup } = deriveFile(words);
  let made = 0;
  const newId = {
    cable: () => `cable:lead-${(made += 1)}` as const,
    device: () => `device:lead-${(made += 1)}` as const,
  };
  const power = powerOf(rig, hookup, highsSolver(await loadHighs()), words.options.chains === true, newId);
  if (!power) throw new Error('The solver found nothing in its time');
  const { edit: _, ...told } = power;
  if (words.options.json) json({ ...told, mains: mainsOf(rig) });
  else {
    for (const { code, outputs } of power.supplies)
      for (const { label, volts, boxes, takes, gives } of outputs)
        print(
          `${code} ${label.padEnd(8)} ${volts.padEnd(8)} ${boxes.map((b) => [b.code, ...b.adapters].join(', ')).join(' + ') || 'free'}  ${takes} of ${gives} mA`,
        );
    for (const { code, needs, why, buy } of power.left)
      print(`${code} (${needs}) stays without: ${why}. Needed: ${buy}.`);
    print(`${power.boxes} boxes need ${power.outputs.needed} outputs; ${power.outputs.there} are there.`);
  }
  return power.left.length ? 1 : 0;
};
