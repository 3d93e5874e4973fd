import { readWords, UserError } from './arguments.js';
import { proveVerb } from './prove.js';
import { checkVerb, compileVerb, demoVerb, systemVerb, traceVerb } from './verbs.js';
import type { Words } from './arguments.js';

const VERBS: Readonly<Record<string, (words: Words) => number>> = { prove: proveVerb, trace: traceVerb, check: checkVerb, compile: compileVerb, system: systemVerb, demo: demoVerb };

/** @returns the exit code: 0 well, 1 something is not as it should be, 2 cannot be read */
export const main = (argv: readonly string[]): number => {
  const [verb = '', ...rest] = argv;
  const run = VERBS[verb];
  try {
    if (!run) throw new UserError(`"${verb}" is not one of ${Object.keys(VERBS).join(', ')}.`);
    return run(readWords(rest));
  } catch (e) {
    if (!(e instanceof UserError)) throw e;
    process.stderr.write(`${e.message.replaceAll('\n', ' ')}\n`);
    return 2;
  }
};

process.exitCode = main(process.argv.slice(2));
