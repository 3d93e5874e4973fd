import { loadedTaps, type LoadedBy, type LoadedTap } from '../../electric/speakers/speakers.js';
import { USUAL_AWG } from '../../electric/speakers/power.js';
import { whichCanStand } from '../../recall/what-if/can-stand.js';
import { boxText } from '../../recall/words/part-words.js';
import { controlText, valueText } from '../../recall/words/words.js';
import type { Id, Ref } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';
import { figureInput, type FigureInput } from './figure-input.js';

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** A loudspeaker jack of an amp in one state of the switches behind it. */
export interface TapView {
  readonly key: string;
  readonly text: string;
  /** Where switches behind it stand; empty where there are none. */
  readonly while: string;
  readonly valve: boolean;
  /** All loads together, in ohms; undefined where nothing loads it, or one is not known. */
  readonly ohm?: number;
  readonly loads: readonly LoadView[];
  readonly from: readonly FigureInput[];
}

export interface LoadView {
  readonly key: string;
  readonly text: string;
  readonly ohm?: number;
  /** In percent of all power. */
  readonly percent?: number;
  readonly gets?: number;
  readonly stands?: number;
  readonly lossDb?: number;
  readonly leads: readonly LeadView[];
  readonly from: readonly FigureInput[];
}

/** A loudspeaker lead, to be written over where its effect is seen. */
export interface LeadView {
  readonly cable: Id<'cable'>;
  readonly metres?: number;
  readonly awg: number;
  readonly isSaid: boolean;
}

/** Every loudspeaker jack that an amp drives, in every state that can come about. */
export const speakersOf = ({ rig, hookup, anatomy, modelled }: Derived): readonly TapView[] => {
  const taps = loadedTaps(rig, hookup, anatomy);
  const switched = taps.filter((t) => t.standing.size > 0);
  const can = new Set(switched.length ? whichCanStand(modelled, switched) : []);
  return taps.filter((t) => t.standing.size === 0 || can.has(t)).map((tap) => tapView(rig, tap));
};

const tapView = (rig: Rig, { output: { device, jack }, at, standing, ohm, loads }: LoadedTap): TapView => ({
  key: `${at} ${[...standing].join(' ')}`,
  text: `${boxText(rig, device.id)}, ${jack.id}`,
  while: [...standing].map(([c, value]) => `${controlText(rig, c)} at ${valueText(rig, c, value)}`).join(', '),
  valve: device.figures.powerStage === 'valve',
  ...(ohm === undefined ? {} : { ohm: tenth(ohm) }),
  loads: loads.map((load) => loadView(rig, load)),
  from: [figureInput(rig, 'jack', at, 'ohm'), figureInput(rig, 'jack', at, 'watts')],
});

const loadView = (rig: Rig, { at, leads, ohm, share, gets, stands, lossDb }: LoadedBy): LoadView => ({
  key: at.ref,
  text: boxText(rig, at.device.id),
  ...(ohm === undefined ? {} : { ohm }),
  ...(share === undefined ? {} : { percent: Math.round(share * 100) }),
  ...(gets === undefined ? {} : { gets: tenth(gets) }),
  ...(stands === undefined ? {} : { stands }),
  ...(lossDb === undefined ? {} : { lossDb: Math.round(lossDb * 100) / 100 + 0 }),
  leads: leads.map((c) => ({
    cable: c.id,
    ...(c.m === undefined ? {} : { metres: c.m }),
    awg: c.awg ?? USUAL_AWG,
    isSaid: c.awg !== undefined,
  })),
  from: figuresOfLoad(rig, at.ref),
});

const figuresOfLoad = (rig: Rig, at: Ref): readonly FigureInput[] => [
  figureInput(rig, 'jack', at, 'ohm'),
  figureInput(rig, 'jack', at, 'watts'),
];
