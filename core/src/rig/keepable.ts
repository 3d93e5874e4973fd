import { hasFields } from '../known/keys.js';
import { DEEPEST, LARGEST_NUMBER } from './limits.js';

/** What keeps a piece of data from being kept at all, whatever it means. */
export interface Unkeepable {
  readonly path: readonly PropertyKey[];
  readonly wrong: string;
  readonly would: string;
}

/**
 * Names that every object of JavaScript answers to: a control or jack of that name would be taken to be there when it
 * is not.
 */
const TAKEN = new Set([...Object.getOwnPropertyNames(Object.prototype), 'prototype']);

export const isTakenName = (name: string): boolean => TAKEN.has(name);

/** A text that was cut in the middle of a character (a lone surrogate) can be neither sent nor stored as it is. */
const TORN = {
  wrong: 'The text ends in half a character, or holds one: it was cut in the middle of an emoji or a rare letter.',
  would: 'Type that character again.',
};

/**
 * The first thing in plain data that no server, database or file could give back as it was: half a character, a number
 * that is none, a value of no kind that JSON has, a name that stands for something else, too many lists inside lists.
 */
export const unkeepable = (data: unknown, path: readonly PropertyKey[] = []): Unkeepable | undefined => {
  switch (typeof data) {
    case 'string':
      return data.isWellFormed() ? undefined : { path, ...TORN };
    case 'number':
      return Math.abs(data) <= LARGEST_NUMBER
        ? undefined
        : {
            path,
            wrong: `${data} is not a number that can be kept.`,
            would: `Use one between −${LARGEST_NUMBER} and ${LARGEST_NUMBER}.`,
          };
    case 'boolean':
    case 'undefined':
      return undefined;
    case 'object':
      return hasFields(data) ? insideOf(data, path) : undefined;
    default:
      return {
        path,
        wrong: `A ${typeof data} stands where a value belongs.`,
        would: 'Use a text, a number or a list.',
      };
  }
};

const insideOf = (
  data: Readonly<Record<PropertyKey, unknown>>,
  path: readonly PropertyKey[],
): Unkeepable | undefined => {
  if (path.length >= DEEPEST)
    return {
      path,
      wrong: `More than ${DEEPEST} lists stand inside one another here.`,
      would: 'Nest fewer: put part of it into a box of its own.',
    };
  const isList = Array.isArray(data);
  for (const key of Object.keys(data)) {
    if (!isList && (TAKEN.has(key) || !key.isWellFormed()))
      return {
        path: [...path, key],
        ...(TAKEN.has(key) ? { wrong: `"${key}" cannot be a name here.`, would: 'Choose another.' } : TORN),
      };
    const found = unkeepable(data[key], [...path, isList ? Number(key) : key]);
    if (found) return found;
  }
  return undefined;
};
