// The one command for people. Each verb lives in scripts/house/; file verbs are handed to the command line in cli/.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { codeOf, fail, inWords, root, say } from './house/say.mjs';
import { handOverBuilt, isRoot } from './house/owner.mjs';
import { installPackages } from './house/packages.mjs';

const HELP = `Yunta: design a stage rig, program it, and prove that every sound comes back.

  ./yunta start [--port N] [--no-demo]   install what is missing, start the database and the application
  ./yunta stop                           stop a running Yunta
  ./yunta test                           lint, types, all tests, the real interface in a browser
  ./yunta backup [FILE]                  all rigs with their history as one file, also while Yunta runs
  ./yunta restore [FILE]                 all rigs as a backup holds them; without FILE, the backups that were made here
  ./yunta bench                          measures how fast it is
  ./yunta reset-demo                     put the demo rigs back as they were shipped; others are left alone
  ./yunta help                           this text

Rig files, without server or database (docs/formats.md):
  ./yunta prove FILE [--hookup NAME] [--json]        verdict of every sound, with footsteps
  ./yunta prove --system FILE [--json]               the same for bare recall systems
  ./yunta trace FILE --sound NAME [--hookup NAME] [--json]
  ./yunta check FILE [--hookup NAME] [--json]        all findings
  ./yunta compile FILE [--hookup NAME] [--json]      what every controller stores
  ./yunta system FILE [--hookup NAME] [--promela SOUND]
  ./yunta kit "WHAT YOU HAVE"                         the boxes that a line of plain words names
  ./yunta kit --say FILE [--json]                    the same for a list of lines: [{ "say": "…" }]
  ./yunta plan slots FILE [--json]                   sounds on banks and switches, so that songs need the fewest stomps
  ./yunta plan supply FILE [--json]                  which output of a supply feeds which box
  ./yunta power FILE [--hookup NAME] [--chains] [--json]  the same of a rig, who is left, and what to buy
  ./yunta cables FILE [--hookup NAME] [--json]  every lead, what is cut of which reel, and what to buy
  ./yunta fails FILE [--hookup NAME] [--json]  for every box, lead and supply output: what still plays, and the quickest way out
  ./yunta levels FILE [--sound NAME] [--hookup NAME] [--json]  how loud sounds are, or one of them stage by stage
  ./yunta load --circuit FILE [--json]               what pickup, cable and load do to the sound
  ./yunta demo                                       writes the demo rig as a rig file to standard output`;

const [verb = 'help', ...rest] = process.argv.slice(2);
const FILE_VERBS = [
  'prove',
  'trace',
  'check',
  'compile',
  'system',
  'demo',
  'kit',
  'plan',
  'power',
  'load',
  'levels',
  'fails',
  'cables',
];

/** Verbs on rig files are the command line's; it is built first. */
const onFiles = async () => {
  await installPackages({ quiet: true });
  const built = spawnSync(process.execPath, [join(root, 'scripts/build.mjs'), 'core', 'cli'], {
    stdio: ['ignore', 2, 2],
  });
  if (isRoot()) handOverBuilt();
  if (built.status !== 0) fail('The command line could not be built; the lines above say why.', 3);
  const run = spawnSync(process.execPath, [join(root, 'cli/dist/main.js'), verb, ...rest], {
    stdio: 'inherit',
    cwd: process.env.YUNTA_CWD ?? process.cwd(),
  });
  process.exit(run.status ?? 3);
};

const VERBS = {
  start: async () => (await import('./house/start.mjs')).start(rest),
  stop: async () => (await import('./house/start.mjs')).stop(),
  'reset-demo': async () => (await import('./house/start.mjs')).resetDemo(),
  backup: async () => (await import('./house/keep.mjs')).backup(rest),
  restore: async () => (await import('./house/keep.mjs')).restore(rest),
  test: async () => (await import('./house/test.mjs')).test(rest),
  bench: async () => (await import('./house/bench.mjs')).bench(),
  ...Object.fromEntries(FILE_VERBS.map((name) => [name, onFiles])),
};

try {
  if (['help', '--help', '-h'].includes(verb)) console.log(HELP);
  else if (Object.hasOwn(VERBS, verb)) await VERBS[verb]();
  else fail(`${HELP}\n"${verb}" is not something that Yunta does; the list is above.`, 2);
} catch (e) {
  say(inWords(e));
  process.exit(codeOf(e));
}
