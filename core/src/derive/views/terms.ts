import type { End } from '../../rig/device.js';
import type { HeardWish } from '../../rig/hookup.js';
import { ref, type Ref } from '../../rig/ids.js';
import { all, partOf } from '../../rig/rig.js';
import type { Control } from '../../rig/device.js';
import type { Value } from '../../rig/value.js';
import { wantedPairs } from '../../recall/intend/intend.js';
import { trace } from '../../signal/graph/trace.js';
import type { WiredEnd } from '../../signal/graph/wiring.js';
import type { Derived } from '../steps/deriver.js';
import { surely } from '../../known/the.js';

/** What a hook-up asks of all its sounds, and what they do: who is heard where, and what is set once. Plain data. */
export interface Terms {
  readonly sources: readonly Place[];
  readonly ends: readonly (Place & { readonly is: End['is'] })[];
  readonly listening: readonly Listening[];
  /** Nobody said it; it is taken for granted. */
  readonly usual: boolean;
  /** What stands, said or taken for granted. */
  readonly standing: readonly HeardWish[];
  readonly settings: readonly Setting[];
}

interface Place {
  readonly ref: Ref;
  readonly name: string;
}

export interface Listening {
  readonly from: Ref;
  readonly at: Ref;
  /** Absent: nothing is asked of this pair. */
  readonly as?: HeardWish['as'];
  /** Sounds in which it is heard, in which it is heard with two sides, and how many there are. */
  readonly heard: number;
  readonly wide: number;
  readonly of: number;
}

export interface Setting {
  readonly control: Ref;
  readonly box: string;
  readonly name: string;
  readonly domain: Control['domain'];
  readonly value: Value;
  /** Said in this hook-up; otherwise as the box wakes. */
  readonly said: boolean;
}

export const termsOf = (d: Derived): Terms => {
  const { wiring } = d.anatomy;
  const wiredOnly = (places: readonly WiredEnd[]) => places.filter((p) => wiring.wired.has(p.device));
  const [sources, ends] = [wiredOnly(wiring.sources), wiredOnly(wiring.ends).filter((e) => e.end.is !== 'tuner')];
  const sounds = [...d.compilation.sounds.values()];
  const reaches = sounds.map((s) => trace(wiring, s.state).reaches);
  const standing = wantedPairs(d.anatomy, {});
  const name = (p: WiredEnd) => `${partOf(d.rig, p.device)?.code ?? ''} ${p.end.name}`.trim();
  return {
    sources: sources.map((s) => ({ ref: s.ref, name: name(s) })),
    ends: ends.map((e) => ({ ref: e.ref, name: name(e), is: e.end.is })),
    listening: sources.flatMap((s) =>
      ends.map((e): Listening => {
        const asked = standing.find((p) => p.from === s.ref && p.at === e.ref)?.as;
        const met = reaches.flatMap((r) => r.find((x) => x.source.ref === s.ref && x.end.ref === e.ref) ?? []);
        return {
          from: s.ref,
          at: e.ref,
          ...(asked ? { as: asked } : {}),
          heard: met.length,
          wide: met.filter((m) => m.sides.includes('left') && m.sides.includes('right')).length,
          of: sounds.length,
        };
      }),
    ),
    usual: d.hookup.hears.length === 0,
    standing: standing.map(({ from, at, as }) => ({ from, at, as })),
    settings: all(d.rig, 'device')
      .filter((device) => wiring.wired.has(device.id))
      .flatMap((device) =>
        device.controls
          .filter((c) => c.use === 'setting')
          .map((c): Setting => {
            const control = ref(device.id, c.id);
            return {
              control,
              box: device.name,
              name: c.name ?? c.id,
              domain: c.domain,
              value: surely(d.grounds.resting.get(control)),
              said: control in d.hookup.settings,
            };
          }),
      ),
  };
};
