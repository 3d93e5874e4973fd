import { Bench } from '../bench/bench.js';
import { foundAt, realValue } from '../recall/footsteps.js';
import type { Compilation } from '../recall/compile.js';
import type { Footstep, Modelled } from '../recall/model.js';
import type { SystemState } from '../recall/system.js';
import type { Ref } from '../rig/ids.js';
import { partOf } from '../rig/rig.js';

/** What playing needs of what was derived. */
export interface Playable {
  readonly compilation: Compilation;
  readonly modelled: Modelled;
}

/** The rig on the bench with the power just on. @param powerUp values by the system's names; what it leaves out is at rest */
export const setUpBench = ({ compilation: c, modelled }: Playable, powerUp: SystemState, listens = true): Bench =>
  new Bench({ rig: c.bearings.rig, hookup: c.bearings.hookup, programs: modelled.programs, found: foundAt(c.bearings, modelled, powerUp) }, listens);

/** Does on the bench what a player does; everything has settled when it returns. */
export const takeStep = ({ compilation: c, modelled }: Playable, bench: Bench, step: Footstep): void => {
  switch (step.does) {
    case 'recall': return partOf(c.bearings.rig, step.sound)?.calls.forEach((call) => bench.call(call.device, call.memory, call.slot));
    case 'call': return bench.call(step.device, step.memory, step.slot);
    case 'press': return bench.stomp(step.device, step.switch);
    case 'release': return bench.stomp(step.device, step.switch, 'release');
    case 'stomp':
      bench.stomp(step.device, step.switch);
      return bench.stomp(step.device, step.switch, 'release');
    case 'foot': return bench.actuate(step.device, step.actuator);
    case 'power': return bench.powerCycle(step.device, (control) => {
      const r = `${step.device}.${control}` as Ref;
      const name = step.wakes[r];
      return name === undefined ? undefined : realValue(c.bearings, modelled, r, name);
    });
  }
};

/** The wants of a sound that the bench does not show right now. */
export const wrongOnBench = ({ modelled }: Playable, bench: Bench, sound: string): readonly Ref[] =>
  (modelled.system.sounds.find((s) => s.id === sound)?.wants ?? []).filter((w) => String(bench.value(w.variable as Ref)) !== w.value).map((w) => w.variable as Ref);
