const PERSON = 'yunta-person';

/** Who sits at this keyboard, as they told it once; empty until then. */
export const personHere = (): string => globalThis.localStorage?.getItem(PERSON)?.trim() ?? '';

export const rememberPerson = (name: string): void => localStorage.setItem(PERSON, name);
