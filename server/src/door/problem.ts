import { sayRefusal, type Refusal } from '@yunta/core/rig/result';
import type { Clash } from '@yunta/core/change/rebase';

/**
 * What goes back when a request is refused: RFC 9457 problem details, with reasons and both values where two people
 * disagree.
 */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly title: string,
    readonly detail: string,
    readonly more: {
      readonly refusals?: readonly Refusal[];
      readonly clashes?: readonly Clash[];
      readonly revision?: number;
    } = {},
  ) {
    super(detail);
  }

  body(instance: string): Record<string, unknown> {
    return {
      type: `urn:yunta:${this.type}`,
      title: this.title,
      status: this.status,
      detail: this.detail,
      instance,
      ...this.more,
    };
  }
}

export const notFound = (what: string): Problem =>
  new Problem(404, 'not-found', 'Not found', `${what} It may have been removed, or the address is mistyped.`);

export const refusedFor = (refusals: readonly Refusal[], revision?: number): Problem =>
  new Problem(422, 'refused', 'The change cannot be made', refusals.slice(0, 3).map(sayRefusal).join(' '), {
    refusals,
    ...(revision === undefined ? {} : { revision }),
  });

export const clashing = (clashes: readonly Clash[], revision: number): Problem =>
  new Problem(
    409,
    'clash',
    'Somebody else changed the same thing',
    `${clashes.map((c) => `${c.part}${c.field ? ` ${c.field}` : ''}`).join(', ')}: choose one of the values, then send the change again.`,
    { clashes, revision },
  );
