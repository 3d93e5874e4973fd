import { controlIn, type Block, type Device } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import { ref, splitRef, type Ref } from '../../rig/ids.js';
import { thePart, type Rig } from '../../rig/rig.js';
import { theItem } from '../../known/the.js';
import type { RigState } from '../../signal/graph/state.js';
import type { Trace } from '../../signal/graph/trace.js';
import type { Along, PassedStage } from './along.js';
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

/** The knob that says how much of the wet is mixed in: the one that makes a stage only wet, or one called so. */
const mixControl = (device: Device, block: Block): string | undefined => {
  const named = block.wetOnly?.flatMap((f) => ('control' in f ? [f.control] : []))[0];
  return named ?? device.controls.find((c) => /\b(mix|wet|blend)\b/i.test(c.name ?? c.id) && 'min' in c.domain)?.id;
};

const mixOf = (device: Device, block: Block, state: RigState): number | undefined => {
  const id = mixControl(device, block);
  const domain = id === undefined ? undefined : controlIn(device, id)?.domain;
  const value = id === undefined ? undefined : Number(state.get(ref(device.id, id)));
  if (!domain || !('min' in domain) || value === undefined || Number.isNaN(value)) return undefined;
  return (100 * (value - domain.min)) / (domain.max - domain.min);
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
