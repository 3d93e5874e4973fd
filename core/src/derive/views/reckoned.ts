import { listed } from '../../checks/names.js';
import { pluggedBoxes, type Bearings } from '../../recall/actuate/bearings.js';
import { pluggedPedals } from '../../recall/actuate/pedals.js';
import { openCases } from '../../recall/intend/wants.js';
import type { Device } from '../../rig/device.js';
import { USUAL_DISTURBANCES } from '../../rig/hookup.js';
import { all } from '../../rig/rig.js';
import type { Derived } from '../steps/deriver.js';

/** What the proof of a hook-up reckons with, and what it leaves out, each a sentence that is true of this very rig. */
export interface Reckoned {
  readonly with: readonly string[];
  readonly without: readonly string[];
}

/** What can disturb a recall in this rig, and whether the hook-up reckons with it. */
const disturbancesHere = (bearings: Bearings, has: (is: (device: Device) => boolean) => boolean) => {
  const admits = bearings.hookup.admits ?? USUAL_DISTURBANCES;
  return [
    {
      isThere: has(isSteppedOn),
      isIn: admits.feet,
      says: 'Somebody steps on any switch of any box that has a plug in it, in any order, as often as they like; also on switches that call what no sound calls',
    },
    {
      isThere: has((d) => d.memories.some((m) => m.assignable?.length)),
      isIn: admits.moves,
      says: 'Moves are pressed, let go and left on',
    },
    {
      isThere: [...pluggedPedals(bearings)].length > 0,
      isIn: admits.moves,
      says: 'Pedals are left at any position that makes a difference',
    },
    {
      isThere: has((d) => d.controls.length > 0),
      isIn: admits.powerCycle,
      says: 'One box after another loses its power and comes on again, in every way in which it can',
    },
    {
      isThere: has((d) => d.controls.some((c) => 'min' in c.domain && c.use === 'sound')),
      isIn: admits.knobs ?? false,
      says: 'Somebody turns a knob of a box that no program holds',
    },
  ].filter((k) => k.isThere);
};

/**
 * @example reckoned(derived).with[0] // 'Each box may stand in any way in which it can come on, when the power first
 * comes on.'
 */
export const reckoned = ({
  rig,
  compilation: { bearings },
  modelled,
}: Pick<Derived, 'rig' | 'compilation' | 'modelled'>): Reckoned => {
  const plugged = pluggedBoxes(bearings.anatomy);
  const boxes = all(rig, 'device');
  const has = (is: (device: Device) => boolean): boolean => boxes.some((d) => plugged.has(d.id) && is(d));
  const kinds = disturbancesHere(bearings, has);
  return {
    with: [
      'Each box may stand in any way in which it can come on, when the power first comes on.',
      ...kinds.filter((k) => k.isIn).map((k) => `${k.says}.`),
      ...(has((d) => d.midi !== undefined)
        ? [
            'Messages arrive in the order of the wire: what comes while a box loads is missed or waits, a bank stands selected until another is, and what comes by two ways comes twice.',
          ]
        : []),
      ...(has((d) => d.memories.length > 0)
        ? ['What nobody wrote down of a slot or a program is not known, and counts as anything.']
        : []),
    ],
    without: [
      ...kinds.filter((k) => !k.isIn).map((k) => `${k.says} (not ticked).`),
      ...leftOut(bearings, boxes, plugged.size),
      ...(modelled.anyhow.size > 0 || modelled.tooMany.length > 0
        ? ['Boxes that come on in more ways than can be looked at one by one: what rests on them is not decided.']
        : []),
      'Two feet at the same moment, a foot that comes too soon, a message that is lost: each is asked for apart.',
      'A cable that falls out, a box that breaks: try those on the bench.',
      'How it sounds and how loud: only what is in, what is out and what is set.',
    ],
  };
};

const isSteppedOn = (device: Device): boolean => device.actuators.some((a) => 'foot' in a.by || 'hand' in a.by);

/** What a rig holds that no footstep of the proof touches. */
const leftOut = ({ rig, hookup }: Bearings, boxes: readonly Device[], plugged: number): readonly string[] => {
  const unplugged = boxes.length - plugged;
  const odd = boxes.filter((d) =>
    d.actuators.some(({ by }) => 'position' in by || ('midi' in by && by.midi === 'note')),
  );
  const cases = all(rig, 'sound').filter((s) => openCases(rig, s, hookup.id).length > 0);
  return [
    ...(unplugged > 0
      ? [`${unplugged === 1 ? 'One box that has' : `${unplugged} boxes that have`} no plug in this hook-up.`]
      : []),
    ...(odd.length
      ? [
          `Notes and places in a timeline that ${odd.map((d) => d.name).join(', ')} could answer to: nothing here sends them.`,
        ]
      : []),
    ...(cases.length
      ? [
          `What ${listed(cases.map((s) => s.name))} ${cases.length === 1 ? 'says' : 'say'} for one song or one of several instruments.`,
        ]
      : []),
  ];
};
