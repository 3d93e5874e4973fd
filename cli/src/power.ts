import loadHighs from 'highs';
import { mainsOf } from '@yunta/core/derive/views/mains';
import { planPower, powerAsked, powerOf } from '@yunta/core/derive/views/power';
import { highsSolver } from '@yunta/core/plan/solver';
import type { CommandWords } from './arguments.js';
import { deriveFile } from './read.js';
import { json, print } from './say.js';

/** Which output feeds which box of a rig. @returns 0 all are fed, 1 some stay without */
export const powerVerb = async (words: CommandWords): Promise<number> => {
  const { rig, hookup } = deriveFile(words);
  const problem = powerAsked(rig, hookup, words.options.chains === true);
  const plans = planPower(problem, highsSolver(await loadHighs()));
  if (!plans) throw new Error('The solver found nothing in its time');
  const power = powerOf(rig, hookup, problem, plans);
  if (words.options.json) json({ ...power, mains: mainsOf(rig) });
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
