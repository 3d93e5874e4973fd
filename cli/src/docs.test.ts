import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');
const PAGES = [
  'README.md',
  ...readdirSync(join(ROOT, 'docs')).flatMap((f) => (f.endsWith('.md') ? [`docs/${f}`] : [])),
];
/** Where a path may begin that a page names. */
const BEGINS = ['', 'core/src', 'core', 'web/src', 'server/src', 'cli/src', 'e2e/src', 'docs'];

/** Every path in a page: with a folder, and with an ending or a slash at its end. Choices of one, `{a,b}`, are all meant. */
const pathsIn = (text: string): readonly string[] =>
  [...text.matchAll(/`([\w./{},-]+)`/g)]
    .flatMap(([, path]) => (path && /\/.*\.\w+$|\/$/.test(path) ? [path] : []))
    .flatMap((path) => {
      const choice = /^(.*)\{(.+)\}(.*)$/.exec(path);
      return choice ? (choice[2] ?? '').split(',').map((one) => `${choice[1]}${one}${choice[3]}`) : [path];
    });

/** A path is there; so is `room/file.what`, when that file says what. */
const isThere = (path: string): boolean =>
  BEGINS.some((begin) => existsSync(join(ROOT, begin, path))) ||
  BEGINS.some((begin) => {
    const [, file, what] = /^(.*)\.(\w+)$/.exec(path) ?? [];
    const source = join(ROOT, begin, `${file}.ts`);
    return what !== undefined && existsSync(source) && new RegExp(`\\b${what}\\b`).test(readFileSync(source, 'utf8'));
  });

test('every file and folder that the handbook names is there', () => {
  const lost = PAGES.flatMap((page) =>
    pathsIn(readFileSync(join(ROOT, page), 'utf8'))
      .filter((path) => !path.startsWith('/') && !isThere(path))
      .map((path) => `${page}: ${path}`),
  );
  expect(lost).toEqual([]);
});

test('every link between pages leads somewhere', () => {
  const lost = PAGES.flatMap((page) =>
    [...readFileSync(join(ROOT, page), 'utf8').matchAll(/\]\((?!https?:|#)([^)#]+)/g)]
      .filter(([, link]) => !existsSync(join(ROOT, dirname(page), link ?? '')))
      .map(([, link]) => `${page}: ${link}`),
  );
  expect(lost).toEqual([]);
});
