import { understand, type Heard } from '@yunta/core/catalogue/kit-line/kit-line';
import { hasFields } from '@yunta/core/known/keys';
import { UserError, type CommandWords } from './arguments.js';
import { jsonIn, textOf } from './read.js';
import { json, print } from './say.js';

/** Each saying as the kit line takes it, for whoever keeps a list of how people say things. */
const answered = (say: string) => {
  const { heard, isChain } = understand(say);
  const of = <K extends Heard['is']>(is: K) => heard.filter((h): h is Extract<Heard, { is: K }> => h.is === is);
  return {
    say,
    boxes: of('taken').map(({ said, box, count, channel, name }) => ({
      is: box.key,
      count,
      ...(channel === undefined ? {} : { midi: channel }),
      name,
      text: said,
    })),
    ...(isChain ? { chain: true } : {}),
    asks: of('asked').map(({ said, why, candidates }) => ({
      text: said,
      why,
      candidates: candidates.map((c) => c.key),
    })),
    refused: of('refused').map((r) => r.said),
  };
};

const lineOf = (heard: Heard): string => {
  switch (heard.is) {
    case 'taken':
      return `${heard.count} × ${heard.box.box.name}${heard.channel ? `, MIDI channel ${heard.channel}` : ''}   “${heard.name}”`;
    case 'asked':
      return `?   “${heard.said}”: ${heard.why} ${heard.candidates.map((c) => c.box.name).join(', or ')}`;
    case 'refused':
      return `–   “${heard.said}”: ${heard.why}`;
  }
};

/**
 * What the kit line makes of what people say. `--say FILE`: a list of `{ "say": text }`, answered in its order; without
 * it the words of the command are one line. @returns 0; 1 when something was asked about or set aside
 */
export const kitVerb = ({ alone, options }: CommandWords): number => {
  const { say } = options;
  if (typeof say !== 'string') {
    const { heard } = understand(alone.join(' '));
    if (heard.length === 0)
      throw new UserError('Say what you have, such as: ./yunta kit "guitar into wah into a combo"');
    if (options.json) json([answered(alone.join(' '))]);
    else for (const h of heard) print(lineOf(h));
    return heard.every((h) => h.is === 'taken') ? 0 : 1;
  }
  const list = jsonIn(textOf(say), say);
  if (!Array.isArray(list)) throw new UserError(`${say} holds no list of { "say": text }.`);
  const sayings = list.map((one: unknown, i) => {
    if (!hasFields(one) || typeof one.say !== 'string')
      throw new UserError(`${say}: entry ${i + 1} has no "say" with a text.`);
    return one.say;
  });
  if (options.json) json(sayings.map(answered));
  else
    for (const one of sayings) {
      print(one);
      for (const h of understand(one).heard) print(`  ${lineOf(h)}`);
    }
  return 0;
};
