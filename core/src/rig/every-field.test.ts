import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { fieldsOf } from '../../testing/coverage.js';
import { figuresOf } from '../catalogue/figures.js';
import type { Device } from './device.js';
import { SHAPES } from './shape.js';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../../..');
/** Where a field is only declared, checked or written down as data, nobody reads it. */
const DECLARES =
  /\.test\.|rig\/(shape|box-shape|shape-parts|device|hookup|sound|program|act|show|device-references|invariants|references|wrong-program|renaming)\.ts$|catalogue\/(boxes|parts|figures)\.ts$|catalogue\/shelves\/|\/demo\/|rig\/versions\//;
const filesIn = (folder: string): readonly string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : /\.tsx?$/.test(name) && !DECLARES.test(path) ? [path] : [];
  });
const SOURCES = ['core/src', 'web/src', 'cli/src']
  .flatMap((part) => filesIn(join(ROOT, part)))
  .map((path) => ({ path: relative(ROOT, path), text: readFileSync(path, 'utf8') }));

/** Figures that nothing reckons with yet, with the words under which the box editor lists each. */
const NOT_USED_YET: Readonly<Record<string, string>> = {
  'device.chains.slots.crossoverHz': 'crossover',
};
/** Said by words on a screen instead: the file that says them. */
const SAID_THERE: Readonly<Record<string, readonly [file: string, words: RegExp]>> = {
  'device.actuators.by.position': ['web/src/steps/kit/box-inspector.tsx', /by\.position.*not used yet/],
  'device.actuators.by.note': ['web/src/steps/kit/box-inspector.tsx', /note \$\{by\.number\} \(not used yet\)/],
  'cable.colour': ['web/src/steps/routing/cable-tags.tsx', /colour/],
  'cable.have': ['web/src/steps/routing/cable-tags.tsx', /have/],
  'cable.label': ['web/src/steps/routing/cable-tags.tsx', /label/],
  'about.notes': ['web/src/shell/about.tsx', /about\.notes/],
};
/**
 * Names that stand for other things too, so that a word in a source proves nothing: here the place that reads the
 * field.
 */
const READ_THERE: Readonly<Record<string, readonly [file: string, words: RegExp]>> = {
  'device.ends.what': ['core/src/checks/order/tuner-mute.ts', /end\.what/],
  'device.figures.kg': ['web/src/steps/kit/box/plate.tsx', /figures\.kg/],
  'device.figures.mm': ['web/src/steps/kit/box/plate.tsx', /figures\.mm/],
  'device.chains.slots.arms.band': ['core/src/catalogue/inside.ts', /arm\.band/],
  'device.controls.domain.branches': ['core/src/catalogue/box-parts.ts', /domain\.branches/],
  'cable.m': ['web/src/steps/routing/routing.tsx', /cable\.m /],
  'song.cues.at': ['core/src/sheets/song-sheet.ts', /\bat\b/],
  'song.instrument': ['core/src/sheets/song-sheet.ts', /song\.instrument/],
};

/** Forks hold arms that hold forks: each field once. */
const folded = (path: string): string =>
  path.includes('slots.arms.slots') ? folded(path.replace('slots.arms.slots', 'slots')) : path;
const FIELDS = [
  ...new Set(
    (Object.keys(SHAPES) as (keyof typeof SHAPES)[]).flatMap((kind) =>
      [...fieldsOf(kind)].map((field) => folded(`${kind}.${field}`)),
    ),
  ),
];
const startsWith = (list: Readonly<Record<string, unknown>>, path: string): boolean =>
  Object.keys(list).some((known) => path === known || path.startsWith(`${known}.`));

const reads = (name: string): readonly string[] => {
  const word = new RegExp(String.raw`[.]${name}\b|\{[^{}]*\b${name}\b[^{}]*\}|'${name}' in`);
  return SOURCES.filter(({ text }) => word.test(text)).map((s) => s.path);
};

test('every field of a rig is read somewhere, or the screens list it as not used yet', () => {
  const ignored = FIELDS.filter((path) => {
    if (startsWith(NOT_USED_YET, path)) return false;
    const there = Object.entries({ ...SAID_THERE, ...READ_THERE }).find(
      ([known]) => path === known || path.startsWith(`${known}.`),
    )?.[1];
    if (there) return !there[1].test(SOURCES.find((s) => s.path === there[0])?.text ?? '');
    return reads(path.split('.').at(-1)!).length === 0;
  });
  expect(FIELDS.length).toBeGreaterThan(500);
  expect(ignored).toEqual([]);
});

test('what is called not used yet is listed where figures stand, with these words, and nothing else is', () => {
  const box: Device = {
    kind: 'device',
    id: 'device:one',
    code: 'ONE',
    name: 'One',
    zone: 'floor',
    controls: [],
    actuators: [],
    memories: [],
    figures: {},
    jacks: [{ id: 'in', kind: 'audio', connector: '6.35 TS', poles: { tip: 'in' } }],
    ends: [{ at: 'in', is: 'source', name: 'Strings' }],
    chains: [
      {
        id: 'path',
        from: [{ at: 'in' }],
        to: [],
        slots: [
          { is: 'block', id: 'delay', stage: 'delay' },
          { is: 'insert', id: 'loop', send: [], return: [], unpatched: 'through' },
          { is: 'fork', id: 'split', arms: [{ id: 'one', slots: [] }] },
        ],
      },
    ],
  };
  const listed = figuresOf(box);
  expect([...new Set(listed.filter((f) => f.usedFor === undefined).map((f) => f.what))].sort()).toEqual(
    [...new Set(Object.values(NOT_USED_YET))].sort(),
  );
});

test('what is called not used yet is not used', () => {
  expect(Object.keys(NOT_USED_YET).flatMap((path) => reads(path.split('.').at(-1)!))).toEqual([]);
});
