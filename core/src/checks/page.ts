import { CHECKS } from './index.js';

/** The handbook's page of findings, made from the checks so that it cannot drift. */
export const findingsPage = (): string =>
  [
    '# Findings',
    '',
    'What Yunta judges, by code. A finding has evidence, a reason and, where there is one, a remedy that was tried before it is offered. Accepted with a reason it stays quiet until its evidence changes.',
    '**danger** can hurt a person or kill a box, **broken** will not work, **doubt** will probably disappoint, **note** is worth knowing.',
    '',
    '| code | what it finds | severity | where the rule comes from |',
    '|---|---|---|---|',
    ...CHECKS.map((c) => `| \`${c.code}\` | ${c.title} | ${c.severities.join(', ')} | ${c.source} |`),
    '',
  ].join('\n');
