// Writes docs/rig-file.schema.json from the shapes by which rig files are read. A test holds the file against them.
import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');
const { rigFileSchema } = await import(resolve(root, 'core/dist/formats/rig-file.js'));
writeFileSync(resolve(root, 'docs/rig-file.schema.json'), `${JSON.stringify(rigFileSchema(), null, 1)}\n`);
