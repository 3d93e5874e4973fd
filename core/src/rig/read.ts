import { type z } from 'zod';
import { once } from '../kept/kept.js';
import { unkeepable } from './keepable.js';
import { isId, KINDS } from './ids.js';
import { ok, refuse, type Refusal, type Result } from './result.js';
import type { Part } from './rig.js';
import { SHAPES } from './shape.js';
import { theFirst } from '../known/the.js';
import { hasFields, isOneOf } from '../known/keys.js';

type Issue = z.core.$ZodIssue;

const MOST_SHOWN = 40;
const shown = (found: unknown): string => {
  const text = found === undefined ? 'nothing' : (JSON.stringify(found) ?? String(found));
  return text.length > MOST_SHOWN ? `${text.slice(0, MOST_SHOWN)}…` : text;
};

const dig = (data: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>((at, key) => (hasFields(at) ? at[key] : undefined), data);

/** @example pathText(['jacks', 0, 'kind']) // 'jacks[0].kind' */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, key) => (typeof key === 'number' ? `${text}[${key}]` : text ? `${text}.${String(key)}` : String(key)),
    '',
  );

/**
 * One of several things that an object may say: what of it is missing there, what else stands there, and whether that
 * is all.
 */
const alternativeOf = (errors: readonly Issue[], found: object) => {
  const missing = errors.flatMap((e) =>
    e.path.length === 1 && !(theFirst(e.path) in found) ? [String(e.path[0])] : [],
  );
  const extra = errors.flatMap((e) => (e.code === 'unrecognized_keys' && e.path.length === 0 ? e.keys : []));
  return {
    missing,
    extra,
    isAll: errors.every(
      (e) =>
        (e.code === 'unrecognized_keys' && e.path.length === 0) ||
        (e.path.length === 1 && !(theFirst(e.path) in found)),
    ),
  };
};

/** A union within a union is one of more things. */
const alternatives = (errors: readonly (readonly Issue[])[]): readonly (readonly Issue[])[] =>
  errors.flatMap((one) => {
    const [inner, ...others] = one;
    return inner?.code === 'invalid_union' && inner.path.length === 0 && others.length === 0
      ? alternatives(inner.errors)
      : [one];
  });

/** An object that may say one of several things and says none of them, or more than one. */
const notOne = (issue: Extract<Issue, { code: 'invalid_union' }>, found: unknown): Issue | undefined => {
  if (!found || typeof found !== 'object' || Array.isArray(found) || issue.errors.length < 2) return undefined;
  const ways = alternatives(issue.errors).map((errors) => alternativeOf(errors, found));
  const said = ways.filter((w) => w.isAll && w.missing.length === 0 && w.extra.length > 0);
  const told = (wrong: string, would: string): Issue => ({
    code: 'custom',
    path: issue.path,
    message: wrong,
    params: { would },
    input: found,
  });
  if (said.length > 1)
    return told(
      `It says several things at once: ${[...new Set(said.flatMap((w) => w.extra))].join(', ')}.`,
      'Let it say one of them.',
    );
  if (!ways.every((w) => w.isAll && w.missing.length > 0)) return undefined;
  const likely = ways.some((w) => w.extra.length === 0) ? ways.filter((w) => w.extra.length === 0) : ways;
  return told(
    `${Object.keys(found).length ? `It says ${Object.keys(found).join(' and ')}, and not what follows from it` : 'It says nothing'}.`,
    `Add ${[...new Set(likely.map((w) => w.missing.join(' and ')))].join(', or ')}.`,
  );
};

/** Of the alternatives of a union, the one that got furthest says best what was meant. */
const deepest = (issue: Issue, data: unknown): Issue => {
  if (issue.code !== 'invalid_union' || issue.errors.length === 0) return issue;
  const none = notOne(issue, dig(data, issue.path));
  if (none) return none;
  const inner = issue.errors
    .map((alternative) => alternative.map((i) => deepest({ ...i, path: [...issue.path, ...i.path] }, data)))
    .filter((alternative) => alternative.length > 0)
    .sort((a, b) => theFirst(b).path.length - theFirst(a).path.length || a.length - b.length);
  return inner[0]?.[0] ?? issue;
};

const say = (issue: Issue, found: unknown): { wrong: string; would: string } => {
  switch (issue.code) {
    case 'invalid_value':
      return {
        wrong: `${shown(found)} is not one of ${issue.values.slice(0, 20).join(', ')}${issue.values.length > 20 ? ' …' : ''}.`,
        would: 'Use one of these.',
      };
    case 'invalid_type':
      return {
        wrong: `${shown(found)} stands where ${issue.expected === 'object' ? 'an object' : `a ${issue.expected}`} belongs.`,
        would: found === undefined ? 'Add it.' : 'Replace it.',
      };
    case 'too_big':
      if (typeof found === 'string')
        return {
          wrong: `${shown(found)} has ${found.length} characters, over the limit of ${issue.maximum} characters.`,
          would: `Use at most ${issue.maximum}.`,
        };
      return {
        wrong: `${Array.isArray(found) ? `A list of ${found.length}` : shown(found)} is over the limit of ${issue.maximum}.`,
        would: `Use at most ${issue.maximum}.`,
      };
    case 'too_small':
      if (found === '') return { wrong: 'There is no text.', would: 'Type one.' };
      return {
        wrong: `${shown(found)} is under the limit of ${issue.minimum}${issue.origin === 'string' ? ' characters' : ''}.`,
        would: `Use at least ${issue.minimum}.`,
      };
    case 'unrecognized_keys':
      return { wrong: `"${issue.keys.join('", "')}" is not known here.`, would: 'Remove it, or check its spelling.' };
    case 'custom':
      if (typeof issue.params?.['would'] === 'string') return { wrong: issue.message, would: issue.params['would'] };
      return { wrong: `${shown(found)} does not fit: ${issue.message}.`, would: 'Correct it.' };
    default:
      return { wrong: `${shown(found)} does not fit: ${issue.message}.`, would: 'Correct it.' };
  }
};

/** Reads one part as it came from outside. Errors name the path inside the part, what was found and what would fit. */
export const readPart = (data: unknown, where = ''): Result<Part, readonly Refusal[]> => {
  const kind = hasFields(data) ? data.kind : undefined;
  if (!isOneOf(KINDS, kind)) {
    return refuse([
      {
        code: 'shape',
        where: pathText([where, 'kind'].filter(Boolean)),
        wrong: `${shown(kind)} is not one of ${KINDS.join(', ')}.`,
        would: 'Give each part its kind.',
      },
    ]);
  }
  const odd = unkeepable(data);
  if (odd)
    return refuse([
      { code: 'shape', ...idOf(data), where: placeIn(where, odd.path), wrong: odd.wrong, would: odd.would },
    ]);
  const parsed = SHAPES[kind].safeParse(data);
  if (parsed.success) return ok(parsed.data);
  return refuse(
    parsed.error.issues.slice(0, 20).map((raw) => {
      const issue = deepest(raw, data);
      return { code: 'shape', ...idOf(data), where: placeIn(where, issue.path), ...say(issue, dig(data, issue.path)) };
    }),
  );
};

/** What is wrong with the shape of a part; asked once for each. */
export const wrongInShape: (part: Part) => readonly Refusal[] = once((part: Part) => {
  const read = readPart(part);
  return read.ok ? [] : read.error;
});

const idOf = (data: unknown): { readonly part?: string } => {
  const id = hasFields(data) ? data.id : undefined;
  return typeof id === 'string' && id.length < 80 && isId(id) ? { part: id } : {};
};

const placeIn = (where: string, path: readonly PropertyKey[]): string => {
  const inside = pathText(path);
  return where && inside ? `${where}${inside.startsWith('[') ? '' : '.'}${inside}` : where || inside;
};
