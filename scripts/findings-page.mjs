// Writes docs/findings.md from the checks themselves: `node scripts/findings-page.mjs`. A test holds the page against
// them.
import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');
const { findingsPage } = await import(resolve(root, 'core/dist/checks/page.js'));
writeFileSync(resolve(root, 'docs/findings.md'), findingsPage());
