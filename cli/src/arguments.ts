import { surely } from '@yunta/core/known/the';

/** Words of a command: what stands alone, and options with or without a value. */
export interface CommandWords {
  readonly alone: readonly string[];
  readonly options: Readonly<Record<string, string | true>>;
}

const WITH_VALUE = new Set(['hookup', 'sound', 'promela', 'say', 'circuit']);

/** @throws UserError when an option lacks its value */
export const readWords = (words: readonly string[]): CommandWords => {
  const alone: string[] = [];
  const options: Record<string, string | true> = {};
  for (let i = 0; i < words.length; i += 1) {
    const word = surely(words[i]);
    if (!word.startsWith('--')) {
      alone.push(word);
      continue;
    }
    const name = word.slice(2);
    if (!WITH_VALUE.has(name)) options[name] = true;
    else {
      const value = words[i + 1];
      if (value === undefined) throw new UserError(`--${name} needs a value behind it.`);
      options[name] = value;
      i += 1;
    }
  }
  return { alone, options };
};

/** Something that the person at the keyboard can mend; said in one line, exit 2. */
export class UserError extends Error {}
