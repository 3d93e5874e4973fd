import type { Random } from './random.js';

export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };

/** Values that nobody types on purpose and that find their way in all the same. */
export const HOSTILE: readonly Json[] = [
  '',
  ' ',
  'x'.repeat(121),
  'x'.repeat(70),
  'half \ud83d',
  '\udc00',
  '🎸'.repeat(61),
  'שלום',
  '\u0000',
  '__proto__',
  'constructor',
  'toString',
  '#',
  ':',
  '.',
  'device:',
  'device:none.out',
  0,
  -1,
  0.5,
  1e13,
  -1e300,
  2 ** 53,
  127,
  128,
  16_384,
  true,
  false,
  null,
  [],
  {},
  [[]],
  [null],
  { id: 'x' },
];

const isInner = (value: Json): value is Json[] | { [key: string]: Json } => typeof value === 'object' && value !== null;

/** Every list and record inside a document. */
const inners = (value: Json, found: (Json[] | { [key: string]: Json })[] = []): typeof found => {
  if (!isInner(value)) return found;
  found.push(value);
  for (const one of Object.values(value)) inners(one, found);
  return found;
};

const leaves = (value: Json, found: Json[] = []): Json[] => {
  if (!isInner(value)) found.push(value);
  else for (const one of Object.values(value)) leaves(one, found);
  return found;
};

/** A list wrapped into itself: deep enough to be too deep for whatever reads or stores it. */
const nested = (r: Random, value: Json): Json => {
  let deep = value;
  for (let i = r.int(3, 40); i > 0; i -= 1) deep = r.chance(50) ? [deep] : { arms: [{ id: 'a', slots: [deep] }] };
  return deep;
};

/**
 * The document with a few things in it exchanged, doubled, taken out, nested or made hostile. The same for the same
 * randomness.
 */
export const mutated = (r: Random, document: Json, most = 4): Json => {
  const copy = structuredClone(document);
  for (let n = r.int(1, most); n > 0; n -= 1) {
    const inside = r.pick(inners(copy).filter((i) => Object.keys(i).length > 0));
    const fields = inside as Record<string, Json>;
    const key = r.pick(Object.keys(inside));
    const set = (value: Json) => {
      fields[key] = value;
    };
    const here = fields[key]!;
    switch (r.int(0, 11)) {
      case 0:
        if (Array.isArray(inside)) inside.splice(Number(key), 1);
        else delete fields[key];
        break;
      case 1:
        if (Array.isArray(inside)) inside.push(structuredClone(here));
        break;
      case 2:
        set(r.pick(HOSTILE));
        break;
      case 3:
        set(nested(r, here));
        break;
      case 4:
        if (typeof here === 'number') set(r.pick([here + 1, here - 1, -here, here * 1000]));
        break;
      case 5:
        if (Array.isArray(inside)) inside.reverse();
        break;
      // What fits in one place is the likeliest to pass in another: most of what breaks a program looks right.
      default: {
        const alike = leaves(copy).filter((l) => typeof l === typeof here);
        if (alike.length) set(r.pick(alike));
      }
    }
  }
  return copy;
};
