import type { Block, Device } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { theItem } from '../../known/the.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { Along, PassedStage } from './along.js';
import { mixOf } from './mix.js';
import { noiseAt } from './noise.js';

/** Repeats that a gate behind them must let through. */
export interface GatedWet {
  readonly stage: Ref;
  /** How much of it is mixed in, in percent; undefined where its box has no such knob. */
  readonly percent: number | undefined;
  /** Level of the wet sound at the gate, in dBu; undefined where the mix is not known. */
  readonly dbu: number | undefined;
}

/** Between what levels the threshold of a gate has its place. */
export interface GateRoom {
  readonly gate: Ref;
  /** Noise that comes to it in a pause, in dBu: the threshold lies above. */
  readonly noise: number;
  /** What plays there on average, in dBu: the threshold lies below. */
  readonly sound: number;
  readonly wet: readonly GatedWet[];
}

/** What a wet part is more after its mix is turned, in dB: 20·log10(to/from). @example mixStep(10, 15) // 3.52 */
export const mixStep = (from: number, to: number): number => 20 * Math.log10(to / from);

const blockOf = (rig: Rig, stage: Ref): { readonly device: Device; readonly block: Block | undefined } => {
  const { device: id, name } = splitRef(stage);
  const device = thePart(rig, id);
  return { device, block: device.chains.flatMap((c) => blocksIn(c.slots)).find((b) => b.id === name) };
};

/** Every gate that a sound passes, with what its threshold has to part. Repeats count where they come before it. */
export const gateRooms = (rig: Rig, t: Trace, along: Along): readonly GateRoom[] =>
  along.stages.flatMap((gate, i): readonly GateRoom[] => {
    if (blockOf(rig, gate.stage).block?.stage !== 'gate') return [];
    const before = theItem(t.wiring.from, theItem(gate.edges, 0));
    return [
      {
        gate: gate.stage,
        noise: noiseAt(rig, t, along, before).paused,
        sound: gate.into.average,
        wet: along.stages.slice(0, i).flatMap((s) => wetAt(rig, t, s, gate)),
      },
    ];
  });

const wetAt = (rig: Rig, t: Trace, { stage }: PassedStage, gate: PassedStage): readonly GatedWet[] => {
  const { device, block } = blockOf(rig, stage);
  if (block?.stage !== 'delay' && block?.stage !== 'reverb') return [];
  const percent = mixOf(device, block, t.state);
  return [{ stage, percent, dbu: percent ? gate.into.average + 20 * Math.log10(percent / 100) : undefined }];
};
