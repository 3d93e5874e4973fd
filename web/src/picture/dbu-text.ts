/** A level as it stands beside a box. @example '−8.1 dBu' */
export const dbuText = (dbu: number | undefined): string | undefined =>
  dbu === undefined ? undefined : `${String(dbu).replace('-', '−')} dBu`;
