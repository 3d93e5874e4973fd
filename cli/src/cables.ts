import loadHighs from 'highs';
import { cutList, cutsAsked, leadsIn, planAllCuts, shoppingFor } from '@yunta/core/derive/views/leads';
import { highsSolver } from '@yunta/core/plan/solver';
import type { CommandWords } from './arguments.js';
import { deriveFile } from './read.js';
import { json, print } from './say.js';

/** Every lead of a hook-up, what is cut of what, and what to buy. @returns 0 nothing is to be bought, 1 something is */
export const cablesVerb = async (words: CommandWords): Promise<number> => {
  const d = deriveFile(words);
  const leads = leadsIn(d);
  const asked = cutsAsked(d.rig, leads);
  const cuts = cutList(leads, asked, planAllCuts(asked, highsSolver(await loadHighs())));
  const buy = shoppingFor(leads, cuts);
  if (words.options.json) json({ hookup: d.hookup.name, leads: leads.map(({ cable: _, ...lead }) => lead), cuts, buy });
  else {
    for (const { from, to, kind, plugs, m, is } of leads)
      print(
        `${kind.padEnd(10)} ${from} → ${to}, ${m === undefined ? 'no length' : `${m} m`}, ${plugs.join(' to ')}: ${is}`,
      );
    for (const { of, reels, without, offcuts, isProved } of cuts) {
      for (const { m, pieces, left } of reels)
        print(`Of ${m} m of ${of} cable: ${pieces.map((p) => `${p.m} m (${p.lead})`).join(', ')}; ${left} m are left.`);
      if (without.length) print(`No ${of} cable for ${without.map((w) => `${w.lead}, ${w.m} m`).join('; ')}.`);
      print(`${offcuts} m of ${of} cable are left over${isProved ? ', and no way to cut opens less' : ''}.`);
    }
    for (const { what, many } of buy) print(`Buy ${many} × ${what}`);
  }
  return buy.length ? 1 : 0;
};
