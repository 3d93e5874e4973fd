import { apply } from '@yunta/core/change/apply';
import { Deriver } from '@yunta/core/derive/steps/deriver';
import { setWant } from '@yunta/core/edits/sounds';
import { surely } from '@yunta/core/known/the';
import type { Hookup } from '@yunta/core/rig/hookup';
import { soundsInOrder, type Rig } from '@yunta/core/rig/rig';
import { GIANT, giantRig, type GiantSize } from '@yunta/core/testing/giant-rig';
import { giantModeller } from '@yunta/core/testing/giant-modeller';
import { print } from '../say.js';

const COLD = 3;
const EDITS = 9;

const middle = (times: readonly number[]): number => surely([...times].sort((a, b) => a - b)[times.length >> 1]);
const timeOf = (what: () => unknown): number => {
  const began = performance.now();
  what();
  return performance.now() - began;
};

/** One stage of one sound turned over. */
const edited = (rig: Rig, n: number): Rig => {
  const sound = surely(soundsInOrder(rig)[n % rig.parts.sound.size]);
  const want = surely(sound.wants.find((w) => 'stage' in w && !/hed|amp-|cab-/.test(w.stage)) ?? sound.wants[0]);
  const turned = 'stage' in want ? { ...want, is: want.is === 'in' ? ('out' as const) : ('in' as const) } : want;
  const applied = apply(rig, setWant(sound, turned));
  return applied.ok ? applied.value.rig : rig;
};

interface Grown {
  readonly name: string;
  readonly rig: Rig;
  readonly hookup: Hookup;
}

const measured = ({ rig, hookup }: Grown): { readonly cold: number; readonly edit: number } => {
  const cold = middle(Array.from({ length: COLD }, () => timeOf(() => new Deriver().derive(rig, hookup.id))));
  const deriver = new Deriver();
  deriver.derive(rig, hookup.id);
  let last = rig;
  const edits = Array.from({ length: EDITS }, (_, k) => (last = edited(last, k + 1)));
  return { cold, edit: middle(edits.map((next) => timeOf(() => deriver.derive(next, hookup.id)))) };
};

const times = (ms: number): string => `${ms < 10 ? ms.toFixed(1) : Math.round(ms)} ms`;

/** What each size takes, and how many times as long as the one before it. */
const series = (title: string, sizes: readonly (() => Grown)[]): void => {
  print(`\n${title}`);
  let before: { readonly cold: number; readonly edit: number } | undefined;
  for (const size of sizes) {
    const grown = size();
    const now = measured(grown);
    const factor = (k: 'cold' | 'edit') => (before ? ` (× ${(now[k] / before[k]).toFixed(1)})` : '');
    print(
      `  ${grown.name.padEnd(44)} cold ${times(now.cold).padStart(9)}${factor('cold')}, after an edit ${times(now.edit).padStart(9)}${factor('edit')}`,
    );
    before = now;
  }
};

/** Boxes besides pedals and programmable ones: guitar, wireless, tuner, switcher, head, cabinet, microphone, desk. */
const OTHERS = 8;
const ofSize = (name: string, size: GiantSize) => (): Grown => ({ name, ...giantRig(1, size) });

/** How the time grows with boxes, with sounds, and with what one modeller holds. */
export const growth = (): void => {
  series(
    'Growth with boxes (128 sounds)',
    [20, 40, 80, 160].map((boxes) => {
      const half = (boxes - OTHERS) / 2;
      return ofSize(`${boxes} boxes`, { ...GIANT, pedals: half, midi: half });
    }),
  );
  series(
    'Growth with sounds (40 boxes)',
    [16, 128, 1024].map((sounds) => ofSize(`${sounds} sounds`, { ...GIANT, sounds })),
  );
  series(
    'One modeller',
    [
      { blocks: 12, presets: 16, scenes: 1 },
      { blocks: 50, presets: 64, scenes: 4 },
      { blocks: 120, presets: 128, scenes: 4 },
    ].map((size) => (): Grown => {
      const { rig, hookup, amounts } = giantModeller(size);
      return { name: `${amounts} amounts, ${size.presets} presets of ${size.scenes} scenes`, rig, hookup };
    }),
  );
};
