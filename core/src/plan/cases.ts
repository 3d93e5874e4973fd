import { z } from 'zod';
import { ok, refuse, type Result } from '../rig/result.js';

/** The cases of a file of one kind, each of the form that is given. */
export const readCases = <T>(code: string, one: z.ZodType<T>, text: string): Result<readonly T[]> => {
  const would = 'The form is in docs/formats.md.';
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return refuse({ code, wrong: 'This is no JSON.', would });
  }
  const found = z.object({ cases: z.array(one).min(1) }).safeParse(read);
  if (found.success) return ok(found.data.cases);
  const [issue] = found.error.issues;
  return refuse({
    code,
    where: issue?.path.join('.') ?? '',
    wrong: `${issue?.message ?? 'It has another form'}.`,
    would,
  });
};
