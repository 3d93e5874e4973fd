import type { z } from 'zod';
import { ok, refuse, type Result } from './result.js';

/**
 * A text as what it says, of the form that is given.
 * @param prepare what else is taken for that form
 */
export const readJson = <T>(
  code: string,
  shape: z.ZodType<T>,
  text: string,
  prepare: (read: unknown) => unknown = (read) => read,
): Result<T> => {
  const would = 'The form is in docs/formats.md.';
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return refuse({ code, wrong: 'This is no JSON.', would });
  }
  const found = shape.safeParse(prepare(read));
  if (found.success) return ok(found.data);
  const [issue] = found.error.issues;
  return refuse({
    code,
    where: issue?.path.join('.') ?? '',
    wrong: `${issue?.message ?? 'It has another form'}.`,
    would,
  });
};
