import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');
const filesIn = (folder: string): readonly string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : [path];
  });
const read = (path: string): string => readFileSync(path, 'utf8');

const FILES = filesIn(ROOT);
const SHEETS = FILES.filter((path) => path.endsWith('.css'));
const SOURCES = FILES.filter((path) => /\.tsx?$/.test(path) && !/\.test\.tsx?$/.test(path));
const TEXT = SOURCES.map(read).join('\n');

/** Of packages whose parts are shown. */
const isTheirs = (name: string): boolean => /^(mantine-|m_|react-flow)/.test(name);
/** Class names in the selectors of a sheet. */
const classesIn = (sheet: string): readonly string[] => {
  const selectors = read(sheet)
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(/\{[^{}]*\}/g, '{}');
  return [...selectors.matchAll(/\.([a-zA-Z_][\w-]*)/g)].flatMap(([, name]) => (name ? [name] : []));
};
/** Whether the sources say a class by its name, or by its beginning: `row-${kind}`. */
const isSaid = (name: string): boolean =>
  new RegExp(`(?<![\\w-])${name}(?![\\w-])`).test(TEXT) ||
  name.split('-').some((_, i, words) => i > 0 && TEXT.includes(`${words.slice(0, i).join('-')}-\${`));

describe('style sheets', () => {
  test('each is imported by somebody', () => {
    const imported = new Set(
      SOURCES.flatMap((path) =>
        [...read(path).matchAll(/import '(\.[^']+\.css)'/g)].map(([, sheet]) => join(dirname(path), sheet ?? '')),
      ),
    );
    expect(SHEETS.filter((sheet) => !imported.has(sheet)).map((sheet) => relative(ROOT, sheet))).toEqual([]);
  });

  test('none has a class that nobody says', () => {
    const unsaid = SHEETS.flatMap((sheet) =>
      classesIn(sheet)
        .filter((name) => !isTheirs(name) && !isSaid(name))
        .map((name) => `${relative(ROOT, sheet)}: ${name}`),
    );
    expect(unsaid).toEqual([]);
  });

  /** A drawing that is saved by itself brings its own. */
  test('every class that is said in one piece has a style', () => {
    const styled = new Set(SHEETS.flatMap(classesIn));
    const withSheet = SOURCES.filter((path) => !read(path).includes('<style>'));
    const unstyled = withSheet.flatMap((path) =>
      [...read(path).matchAll(/className="([^"]+)"/g)]
        .flatMap(([, names]) => (names ?? '').split(/\s+/))
        .filter((name) => !styled.has(name) && !isTheirs(name))
        .map((name) => `${relative(ROOT, path)}: ${name}`),
    );
    expect(unstyled).toEqual([]);
  });
});
