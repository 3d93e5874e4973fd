import { cutTo } from '@yunta/core/rig/limits';
import { createParamDecorator, type ExecutionContext } from '@nestjs/common';

/** The one local person until there are accounts. */
export const LOCAL_PERSON = { id: 'local', name: 'This machine' } as const;

export interface Asker {
  readonly id: string;
  readonly name: string;
  /** Who sits at the keyboard, as they said themselves; the journal names them. */
  readonly atKeyboard?: string;
}

/** In UTF-16 units, as the journal keeps it. */
const LONGEST_PERSON = 64;

/** The header by which a page says who sits before it, so written that it may hold any letter. */
const PERSON_HEADER = 'x-yunta-person';

const personIn = (header: unknown): string | undefined => {
  if (typeof header !== 'string') return undefined;
  try {
    return cutTo(decodeURIComponent(header).toWellFormed().trim(), LONGEST_PERSON) || undefined;
  } catch {
    return undefined;
  }
};

/** Who is asking. The one place that knows; when accounts come, it reads the session here and nothing else changes. */
export const whoAsks = (request: { readonly headers?: Readonly<Record<string, unknown>> }): Asker => {
  const atKeyboard = personIn(request.headers?.[PERSON_HEADER]);
  return atKeyboard ? { ...LOCAL_PERSON, atKeyboard } : LOCAL_PERSON;
};

export const Who = createParamDecorator((_: unknown, context: ExecutionContext): Asker =>
  whoAsks(context.switchToHttp().getRequest()),
);
