import { once } from '../../kept/kept.js';
import type { Device, Jack } from '../../rig/device.js';
import type { Rig } from '../../rig/rig.js';
import type { Anatomy } from '../../signal/graph/anatomy.js';
import { passable } from '../../signal/graph/passable.js';

export interface SpeakerOutput {
  readonly device: Device;
  readonly jack: Jack;
}

/**
 * Speaker jacks of power stages that a signal can come to in this hook-up, and that no loudspeaker inside the box
 * relieves.
 */
export const speakerOutputs = once(({ wiring }: Anatomy, rig: Rig): readonly SpeakerOutput[] => {
  const { from: fed } = passable(wiring);
  return [...rig.parts.device.values()].flatMap((device) =>
    device.jacks.flatMap((jack) => {
      const point = wiring.at.get(`${device.id}.${jack.id}`);
      const isOutput =
        jack.kind === 'audio' &&
        jack.level === 'speaker' &&
        jack.poles.tip === 'out' &&
        device.figures.powerStage !== undefined;
      return isOutput && wiring.wired.has(device.id) && point !== undefined && fed[point] === 1
        ? [{ device, jack }]
        : [];
    }),
  );
});
