/** A refusal that was to be expected: it says which part, what is wrong there and what would do. */
export interface Refusal {
  readonly code: string;
  /** The part that is refused, when there is one. */
  readonly part?: string;
  /** Path inside the part or document, such as `jacks[0].kind`. */
  readonly where?: string;
  readonly wrong: string;
  readonly would: string;
}

export type Result<T, E = Refusal> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });
export const refuse = <E>(error: E): { readonly ok: false; readonly error: E } => ({ ok: false, error });

/** One line for a person: what, where, what to do. */
export const sayRefusal = (r: Refusal): string => {
  const place = [r.part, r.where].filter(Boolean).join(' ');
  return `${place ? `${place}: ` : ''}${r.wrong} ${r.would}`;
};
