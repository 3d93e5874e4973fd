import { frontsIn } from '@yunta/core/derive/views/front-view';
import { levelsOf } from '@yunta/core/derive/views/levels';
import { soundLevels } from '@yunta/core/derive/views/sound-levels';
import { speakersOf } from '@yunta/core/derive/views/speakers-view';
import type { CommandWords } from './arguments.js';
import { deriveFile, soundNamed } from './read.js';
import { json, print } from './say.js';

const signed = (db: number): string => (db > 0 ? `+${db}` : String(db));

/**
 * How loud sounds are beside each other, or one sound stage by stage.
 * @returns 0 all lie where they are wanted, 1 some do not
 */
export const levelsVerb = (words: CommandWords): number => {
  const d = deriveFile(words);
  const levels = levelsOf(d);
  if (words.options.sound === undefined) {
    if (words.options.json) json({ ...levels, speakers: speakersOf(d) });
    else
      for (const { name, db, off, change } of levels.sounds)
        print(
          `${signed(db).padStart(6)} dB  ${name}${off === 0 ? '' : `: ${signed(off)} dB off${change ? `; ${change.text}` : ''}`}`,
        );
    return levels.off ? 1 : 0;
  }
  const { id, name } = soundNamed(d, words.options.sound);
  const ways = soundLevels(d, id);
  const line = levels.sounds.find((s) => s.id === id);
  if (words.options.json) json({ sound: name, ...(line ? { beside: line } : {}), ways, fronts: frontsIn(d, id) });
  else
    for (const { source, steps, outputs } of ways) {
      print(`${name}, from ${source}`);
      for (const { label, average, peak, gain } of steps)
        print(
          `  ${String(average).padStart(6)} dBu, strongest ${String(peak).padStart(6)}  ${label}${gain === undefined ? '' : ` (${signed(gain)} dB)`}`,
        );
      for (const { text, average, noise, ms } of outputs)
        print(`  = ${text}: ${average} dBu, noise ${noise} dBu, ${ms} ms late`);
    }
  return line && line.off !== 0 ? 1 : 0;
};
