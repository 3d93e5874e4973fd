import { controlText, valueText } from '../../recall/words/words.js';
import { differences } from '../../recall/verdict/transitions.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import type { Item } from '../../signal/drawing/picture.js';
import type { StageState } from '../../signal/graph/trace.js';
import type { Derived } from '../steps/deriver.js';
import { soundRun, soundTrace } from './view.js';
import { theItem } from '../../known/the.js';

export interface RunSide {
  readonly derived: Derived;
  readonly sound: Id<'sound'>;
}

/** Two runs, place by place; an item without a counterpart stands alone. */
export interface Aligned {
  readonly a: readonly (Item | undefined)[];
  readonly b: readonly (Item | undefined)[];
}

export interface SideBySide extends Aligned {
  /** Boxes that sound in one and not in the other. */
  readonly differ: readonly Id<'device'>[];
  readonly changes: readonly { readonly text: string; readonly a: string; readonly b: string }[];
}

const keyOf = (item: Item): string => {
  switch (item.is) {
    case 'box':
      return `box ${item.device}`;
    case 'loop':
      return `loop ${item.device} ${item.insert}`;
    case 'split':
      return `split ${item.arms.length}`;
    case 'end':
      return `end ${item.end}`;
  }
};

/** Lines two runs up: what both have stands in the same place (longest common subsequence). */
export const align = (a: readonly Item[], b: readonly Item[]): Aligned => {
  const [ka, kb] = [a.map(keyOf), b.map(keyOf)];
  const longest = Array.from({ length: a.length + 1 }, () => new Array<number>(b.length + 1).fill(0));
  for (let i = a.length - 1; i >= 0; i -= 1)
    for (let j = b.length - 1; j >= 0; j -= 1)
      theItem(longest, i)[j] =
        ka[i] === kb[j]
          ? theItem(theItem(longest, i + 1), j + 1) + 1
          : Math.max(theItem(theItem(longest, i + 1), j), theItem(theItem(longest, i), j + 1));
  const rows: [Item | undefined, Item | undefined][] = [];
  let [i, j] = [0, 0];
  while (i < a.length || j < b.length) {
    if (i < a.length && j < b.length && ka[i] === kb[j]) rows.push([a[i++], b[j++]]);
    else if (
      j >= b.length ||
      (i < a.length && theItem(theItem(longest, i + 1), j) >= theItem(theItem(longest, i), j + 1))
    )
      rows.push([a[i++], undefined]);
    else rows.push([undefined, b[j++]]);
  }
  return { a: rows.map((r) => r[0]), b: rows.map((r) => r[1]) };
};

const SAID: Readonly<Record<StageState, string>> = { in: 'in', bypassed: 'bypassed', outside: 'out' };

/** Two sounds in one hook-up, or one sound in two: the runs lined up, and what differs in words. */
export const sideBySide = (left: RunSide, right: RunSide): SideBySide => {
  const [a, b] = [soundTrace(left.derived, left.sound), soundTrace(right.derived, right.sound)];
  const { rig } = left.derived;
  const stageText = (r: Ref): string => {
    const { device, name } = splitRef(r);
    const box = partOf(rig, device);
    const several =
      [...a.stages.keys(), ...b.stages.keys()].filter((s) => splitRef(s).device === device && s !== r).length > 0;
    return `${box?.code ?? device}${several ? ` ${name}` : ''}`;
  };
  const sounding = (state: StageState | undefined): boolean => state === 'in';
  const stages = [...new Set([...a.stages.keys(), ...b.stages.keys()])].filter(
    (r) => sounding(a.stages.get(r)) !== sounding(b.stages.get(r)),
  );
  const said = (state: StageState | undefined): string => (state ? SAID[state] : 'not wired');
  const controls =
    left.derived === right.derived
      ? differences(left.derived.compilation, left.sound, right.sound).filter(
          (c) =>
            !stages.some((s) => splitRef(s).device === splitRef(c.control).device && ['on', 'off'].includes(c.to)) &&
            !/\.(loop\d+|slot)$/.test(c.control),
        )
      : [];
  return {
    ...align(soundRun(left.derived, left.sound), soundRun(right.derived, right.sound)),
    differ: [...new Set(stages.map((r) => splitRef(r).device))],
    changes: [
      ...stages.map((r) => ({ text: stageText(r), a: said(a.stages.get(r)), b: said(b.stages.get(r)) })),
      ...controls.map((c) => ({
        text: controlText(rig, c.control),
        a: valueText(rig, c.control, c.from),
        b: valueText(rig, c.control, c.to),
      })),
    ],
  };
};
