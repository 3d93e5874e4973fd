import { withMaybe } from '../../known/maybe.js';
import type { Id } from '../../rig/ids.js';
import { all, type Rig } from '../../rig/rig.js';

/** Something that is plugged into the mains. */
export interface MainsPlug {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  /** What it takes, where somebody wrote it down. */
  readonly watts?: number;
}

/** Something that runs on a battery of its own. */
export interface OnBattery {
  readonly device: Id<'device'>;
  readonly code: string;
  readonly name: string;
  /** How long one filling lasts; unknown where nobody said what it takes. */
  readonly hours?: number;
}

/** What the rig wants of the wall, and what has to be charged. */
export interface Mains {
  readonly plugs: readonly MainsPlug[];
  /** Sockets that the rig brings along, such as those of a strip. */
  readonly sockets: number;
  /** Plugs that go into the wall when as many as can go into those sockets. */
  readonly atWall: number;
  readonly watts: number;
  /** How many say nothing of what they take. */
  readonly unsaid: number;
  readonly batteries: readonly OnBattery[];
}

/** Mains plugs, sockets and batteries of the kit. A strip that hangs on another one counts as one plug like any other. */
export const mainsOf = (rig: Rig): Mains => {
  const devices = all(rig, 'device');
  const jacks = devices.flatMap((device) =>
    device.jacks.filter((j) => j.kind === 'mains').map((jack) => ({ device, jack })),
  );
  const sockets = jacks.filter(({ jack }) => jack.poles.tip === 'out').length;
  const plugs = devices
    .filter((d) => d.jacks.some((j) => j.kind === 'mains' && j.poles.tip === 'in'))
    .map(({ id, code, name, figures }) =>
      withMaybe<MainsPlug, 'watts'>({ device: id, code, name }, 'watts', figures.watts),
    );
  return {
    plugs,
    sockets,
    // Each plug in a socket of the rig is one less at the wall, but one at least goes there.
    atWall: Math.max(plugs.length === 0 ? 0 : 1, plugs.length - sockets),
    watts: plugs.reduce((sum, p) => sum + (p.watts ?? 0), 0),
    unsaid: plugs.filter((p) => p.watts === undefined).length,
    batteries: devices.flatMap(({ id, code, name, figures: { battery } }) => {
      if (!battery) return [];
      const hours = battery.milliamps === undefined ? undefined : battery.mAh / battery.milliamps;
      return [withMaybe<OnBattery, 'hours'>({ device: id, code, name }, 'hours', hours)];
    }),
  };
};
