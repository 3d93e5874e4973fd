import { createParamDecorator, type ExecutionContext } from '@nestjs/common';

/** The one local person until there are accounts. */
export const LOCAL_PERSON = { id: 'local', name: 'This machine' } as const;

export interface Asker {
  readonly id: string;
  readonly name: string;
}

/** Who is asking. The one place that knows; when accounts come, it reads the session here and nothing else changes. */
export const whoAsks = (_request: unknown): Asker => LOCAL_PERSON;

export const Who = createParamDecorator((_: unknown, context: ExecutionContext): Asker =>
  whoAsks(context.switchToHttp().getRequest()),
);
