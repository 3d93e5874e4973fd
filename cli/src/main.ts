import { readWords, UserError } from './arguments.js';
import { cablesVerb } from './cables.js';
import { failsVerb } from './fails.js';
import { kitVerb } from './kit.js';
import { levelsVerb } from './levels.js';
import { loadVerb } from './load.js';
import { planVerb } from './plan.js';
import { powerVerb } from './power.js';
import { proveVerb } from './prove.js';
import { checkVerb, compileVerb, demoVerb, systemVerb, traceVerb } from './verbs.js';
import type { CommandWords } from './arguments.js';

const VERBS: Readonly<Record<string, (words: CommandWords) => number | Promise<number>>> = {
  prove: proveVerb,
  trace: traceVerb,
  check: checkVerb,
  compile: compileVerb,
  system: systemVerb,
  demo: demoVerb,
  kit: kitVerb,
  plan: planVerb,
  load: loadVerb,
  power: powerVerb,
  levels: levelsVerb,
  fails: failsVerb,
  cables: cablesVerb,
};

/** A fault of the program itself: never to be taken for a verdict. */
const FAULT = 3;

/** What a shell says of a program whose reader went away: no verdict either. */
const CLOSED_PIPE = 141;

/** @returns the exit code: 0 well, 1 something is not as it should be, 2 cannot be read, 3 a fault of Yunta */
export const main = async (argv: readonly string[]): Promise<number> => {
  const [verb = '', ...rest] = argv;
  const run = VERBS[verb];
  try {
    if (!run) throw new UserError(`"${verb}" is not one of ${Object.keys(VERBS).join(', ')}.`);
    return await run(readWords(rest));
  } catch (e) {
    if (e instanceof UserError) {
      process.stderr.write(`${e.message.replaceAll('\n', ' ')}\n`);
      return 2;
    }
    process.stderr.write(
      `A fault in Yunta: ${e instanceof Error ? e.message : String(e)}. Nothing was judged. Please keep the file: it shows the fault.\n`,
    );
    return FAULT;
  }
};

// A reader that has seen enough (`| head -1`) closes its end; what is still to say is left unsaid.
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (e: NodeJS.ErrnoException) => process.exit(e.code === 'EPIPE' ? CLOSED_PIPE : FAULT));

process.exitCode = await main(process.argv.slice(2));
