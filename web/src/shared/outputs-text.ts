import type { Power } from '@yunta/core/derive/views/power';

/** @example '7 boxes need 9 outputs; 8 are there' */
export const countText = ({ boxes, outputs }: Power): string => {
  const asked = `${boxes} ${boxes === 1 ? 'box needs' : 'boxes need'} ${outputs.needed} ${outputs.needed === 1 ? 'output' : 'outputs'}`;
  if (outputs.there === 0) return `${asked}; no supply is in the kit yet`;
  return `${asked}; ${outputs.there} ${outputs.there === 1 ? 'is' : 'are'} there`;
};
