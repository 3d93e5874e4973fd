import { z } from 'zod';
import type { Rig } from '../src/rig/rig.js';
import { all } from '../src/rig/rig.js';
import { SHAPES } from '../src/rig/shape.js';

type Schema = { readonly [key: string]: unknown };

/**
 * Every field that a shape has, as the names on the way to it; what lies in the fields left aside is not looked into.
 */
export const fieldsOf = (kind: keyof typeof SHAPES, aside: ReadonlySet<string> = new Set()): ReadonlySet<string> => {
  const root = z.toJSONSchema(SHAPES[kind] as z.ZodType, { unrepresentable: 'any', reused: 'inline' }) as Schema;
  const found = new Set<string>();
  const walk = (schema: Schema | undefined, path: string, depth: number): void => {
    if (!schema || depth > 9) return;
    const ref = schema.$ref as string | undefined;
    if (ref)
      return walk(
        ref
          .split('/')
          .slice(1)
          .reduce<unknown>((at, key) => (at as Schema)[key], root) as Schema,
        path,
        depth + 1,
      );
    for (const list of ['anyOf', 'oneOf', 'allOf'] as const)
      (schema[list] as readonly Schema[] | undefined)?.forEach((one) => walk(one, path, depth));
    if (schema.items && typeof schema.items === 'object') walk(schema.items as Schema, path, depth);
    for (const [name, inner] of Object.entries((schema.properties ?? {}) as Schema)) {
      const there = path ? `${path}.${name}` : name;
      found.add(there);
      if (!aside.has(there)) walk(inner as Schema, there, depth + 1);
    }
  };
  walk(root, '', 0);
  return found;
};

/** The same of parts that stand in a rig: which fields are used, and with how many different values. */
export const usedFields = (parts: readonly object[]): ReadonlyMap<string, ReadonlySet<string>> => {
  const used = new Map<string, Set<string>>();
  const walk = (of: unknown, path: string): void => {
    if (Array.isArray(of)) return of.forEach((one) => walk(one, path));
    if (!of || typeof of !== 'object') return;
    for (const [name, inner] of Object.entries(of)) {
      const there = path ? `${path}.${name}` : name;
      const values = used.get(there) ?? new Set<string>();
      used.set(there, values.add(JSON.stringify(inner).slice(0, 60)));
      walk(inner, there);
    }
  };
  parts.forEach((part) => walk(part, ''));
  return used;
};

export const partsOf = (rigs: readonly Rig[], kind: keyof typeof SHAPES): readonly object[] =>
  rigs.flatMap((rig) => all(rig, kind) as readonly object[]);
