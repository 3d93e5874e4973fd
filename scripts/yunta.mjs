// The one command for people. Each verb lives in scripts/house/; file verbs are handed to the command line in cli/.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root, say, fail } from './house/say.mjs';
import { installPackages } from './house/packages.mjs';

const HELP = `Yunta: design a stage rig, program it, and prove that every sound comes back.

  ./yunta start [--port N] [--no-demo]   install what is missing, start the database and the application
  ./yunta stop                           stop a running Yunta
  ./yunta test                           lint, types, all tests, the real interface in a browser
  ./yunta reset-demo                     put the demo rigs back as they were shipped; others are left alone
  ./yunta help                           this text

Rig files, without server or database (docs/formats.md):
  ./yunta prove FILE [--hookup NAME] [--json]        verdict of every sound, with footsteps
  ./yunta prove --system FILE [--json]               the same for bare recall systems
  ./yunta trace FILE --sound NAME [--hookup NAME] [--json]
  ./yunta check FILE [--hookup NAME] [--json]        all findings
  ./yunta compile FILE [--hookup NAME] [--json]      what every controller stores
  ./yunta system FILE [--hookup NAME] [--promela SOUND]
  ./yunta demo                                       writes the demo rig as a rig file to standard output`;

const [verb = 'help', ...rest] = process.argv.slice(2);
const FILE_VERBS = ['prove', 'trace', 'check', 'compile', 'system', 'demo'];

if (verb === 'help' || verb === '--help' || verb === '-h') console.log(HELP);
else if (FILE_VERBS.includes(verb)) {
  await installPackages({ quiet: true });
  const built = spawnSync(process.execPath, [join(root, 'scripts/build.mjs'), 'core', 'cli'], { stdio: ['ignore', 2, 2] });
  if (built.status !== 0) fail('The command line could not be built; the lines above say why.');
  const run = spawnSync(process.execPath, [join(root, 'cli/dist/main.js'), verb, ...rest], { stdio: 'inherit', cwd: process.env.YUNTA_CWD ?? process.cwd() });
  process.exit(run.status ?? 2);
} else if (verb === 'start') (await import('./house/start.mjs')).start(rest);
else if (verb === 'stop') (await import('./house/start.mjs')).stop();
else if (verb === 'reset-demo') (await import('./house/start.mjs')).resetDemo();
else if (verb === 'test') (await import('./house/test.mjs')).test(rest);
else {
  say(HELP);
  fail(`"${verb}" is not something that Yunta does; the list is above.`, 2);
}
