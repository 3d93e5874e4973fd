import { grouped } from '../../known/grouped.js';
import { boxText, endText, stageText } from '../../recall/words/part-words.js';
import { grantedText } from '../../recall/words/words.js';
import { wholeOf } from '../../plan/fails/after.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { inputList } from './input-list.js';
import { callText } from './telling.js';

export const CHECK_GROUPS = ['As it is taped', 'Lines into the house', 'Sounds'] as const;

/** One line to be ticked before the gig. */
export interface CheckLine {
  readonly group: (typeof CHECK_GROUPS)[number];
  /** What is looked at; it is ticked by these words. */
  readonly text: string;
  /** How it must be, or what should be heard. */
  readonly should: string;
}

/** Boxes with what sounds of them. @example ['Fuzz', 'Combo amp (preamp, power, cabinet)'] */
const stagesByBox = (rig: Rig, stages: readonly Ref[]): readonly string[] =>
  [...grouped(stages, (s) => splitRef(s).device)].map(([device, some]) => {
    const [only] = some;
    return some.length === 1 && only
      ? stageText(rig, only)
      : `${boxText(rig, device)} (${some.map((s) => splitRef(s).name).join(', ')})`;
  });

/**
 * The line check of a hook-up: what the proof takes for granted, then every line into the house, then every sound with
 * what should be heard of it and where.
 */
export const lineCheck = (d: Derived): readonly CheckLine[] => [
  ...d.modelled.granted.map((g): CheckLine => ({
    group: 'As it is taped',
    text: grantedText(d.rig, g),
    should: g.why,
  })),
  ...inputList(d).map((l): CheckLine => ({
    group: 'Lines into the house',
    text: `${l.desk} ${l.line}: ${l.source}`,
    should: [l.by, l.side, ...(l.phantomOff ? ['phantom power off'] : [])].join(', '),
  })),
  ...soundsInOrder(d.rig).flatMap((sound): readonly CheckLine[] => {
    const compiled = d.compilation.sounds.get(sound.id);
    if (!compiled) return [];
    const stages = stagesByBox(d.rig, wholeOf(compiled).stages);
    const ends = [
      ...new Set(compiled.heard.flatMap((h) => (h.as === 'sounds' || h.as === 'stereo' ? [endText(d.rig, h.at)] : []))),
    ];
    return [
      {
        group: 'Sounds',
        text: `${sound.name}, ${callText(d, sound)}`,
        should: `${stages.join(', ') || 'no stage'}${ends.length ? `; heard at ${ends.join(' and ')}` : '; heard nowhere'}`,
      },
    ];
  }),
];
