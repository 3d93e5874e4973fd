import { failsOf, withHands } from '@yunta/core/derive/views/fails';
import type { CommandWords } from './arguments.js';
import { deriveFile } from './read.js';
import { json, print } from './say.js';

/**
 * What every single failure leaves of the sounds, and the quickest way out.
 * @returns 0 none silences every sound, 1 some do
 */
export const failsVerb = (words: CommandWords): number => {
  const d = deriveFile(words);
  const fails = failsOf(d).map((f) => withHands(d, f));
  if (words.options.json)
    json({
      hookup: d.hookup.name,
      failures: fails.map(({ text, group, says, counts, sounds, way, needs, byHand }) => ({
        what: text,
        group,
        says,
        counts,
        sounds: sounds.map(({ name, is, text: fate }) => ({ sound: name, is, text: fate })),
        ...(way
          ? {
              repatch: {
                steps: way.steps,
                plugs: way.plugs,
                leads: way.leads,
                ...(way.caution ? { caution: way.caution } : {}),
                says: way.says,
                sounds: way.sounds.map(({ name, is, text: fate }) => ({ sound: name, is, text: fate })),
              },
            }
          : {}),
        ...(needs ? { needs } : {}),
        ...(byHand ? { byHand: byHand.map(({ name, hands }) => ({ sound: name, hands })) } : {}),
      })),
    });
  else
    for (const { text, says, way, needs, byHand } of fails) {
      print(`${text}: ${says}`);
      for (const step of way?.steps ?? []) print(`   ${step}`);
      if (way) print(`   Then: ${way.says}`);
      if (needs) print(`   ${needs}`);
      for (const { name, hands } of byHand ?? []) print(`   By hand, ${name}: ${hands.join(', ')}`);
    }
  return fails.some((f) => f.counts.silent > 0 && f.counts.silent === f.sounds.length) ? 1 : 0;
};
