import type { Zone } from '@yunta/core/rig/device';

export const ZONE_NAMES: Readonly<Record<Zone, string>> = {
  hands: 'Hands',
  floor: 'Floor',
  amp: 'Amps',
  outputs: 'Outputs',
  supply: 'Supply',
};
