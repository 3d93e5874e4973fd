const random = (): string => crypto.randomUUID().replaceAll('-', '').slice(0, 16);

/** Id of a new change set. */
export const newId = (): string => `c-${random()}`;

/** Id of a new part of a kind, such as `sound:…`. */
export const newPartId = <K extends string>(kind: K): `${K}:${string}` => `${kind}:${random()}`;

/** This page, also after a reload; another tab is another page. */
export const pageId = (): string => {
  const known = sessionStorage.getItem('yunta-page');
  if (known) return known;
  const made = random();
  sessionStorage.setItem('yunta-page', made);
  return made;
};
