// Writes examples/recall: twelve rigs in which recall breaks, to be opened and cured: `node scripts/examples.mjs`. A
// test holds the files against them.
import { mkdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');
const require = createRequire(resolve(root, 'cli/dist/main.js'));
const { FAILURES } = await import(require.resolve('@yunta/core/testing/failures'));
const { writeRigFile } = await import(require.resolve('@yunta/core/formats/rig-file'));
const folder = resolve(root, 'examples/recall');
mkdirSync(folder, { recursive: true });
for (const { file, rig } of FAILURES) writeFileSync(resolve(folder, `${file}.json`), writeRigFile(rig));

// And examples/practice: rigs as people wire and play them.
const { PRACTICE } = await import(require.resolve('@yunta/core/testing/practice'));
const practice = resolve(root, 'examples/practice');
mkdirSync(practice, { recursive: true });
for (const { file, rig } of PRACTICE) writeFileSync(resolve(practice, `${file}.json`), writeRigFile(rig));
