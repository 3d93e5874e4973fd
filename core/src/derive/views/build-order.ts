import { boxText } from '../../recall/words/part-words.js';
import { signalOrder } from '../../signal/graph/order.js';
import { feeds } from '../../electric/supply.js';
import { wiredBoxes } from '../../rig/box.js';
import type { Device } from '../../rig/device.js';
import { all, soundsInOrder } from '../../rig/rig.js';
import { laidOut } from '../../board/laid-out.js';
import type { Derived } from '../steps/deriver.js';
import { leadsIn } from './leads.js';

export const BUILD_LAYERS = [
  'Prepare',
  'Rough wiring',
  'Power on, one box at a time, and listen',
  'Wire neatly',
  'Test again',
  'Tie down',
] as const;

/** One step of building a rig, in its order; it is ticked by its words. */
export interface BuildStep {
  readonly group: (typeof BUILD_LAYERS)[number];
  readonly text: string;
  /** How it is done, or what should be heard. */
  readonly should: string;
}

const step = (group: BuildStep['group'], text: string, should: string): BuildStep => ({ group, text, should });

const prepare = (d: Derived): readonly BuildStep[] => {
  const { boards, boxes } = laidOut(d.rig, d.hookup, d.place);
  return [...boards.keys()].flatMap((name) => {
    const here = boxes.filter((b) => b.board === name).length;
    return here
      ? [
          step(
            'Prepare',
            `${name}: feet off ${here === 1 ? 'its box' : `its ${here} boxes`}, surfaces clean`,
            'Keep feet and screws in a bag with a name on it. A screw that is longer than before reaches the circuit. Leave battery lids, vents and labels uncovered.',
          ),
        ]
      : [];
  });
};

const rough = (d: Derived): readonly BuildStep[] =>
  leadsIn(d).map(({ from, to, kind, m }) =>
    step(
      'Rough wiring',
      `${from} → ${to}`,
      kind === 'mains'
        ? 'A bought, tested lead, with everything off. Mains work belongs to licensed hands.'
        : `${kind}${m === undefined ? '' : `, ${m} m`}; loose, nothing tied yet`,
    ),
  );

const isValve = ({ figures }: Device): boolean => figures.powerStage === 'valve';
const HEARD = 'off: sound passes as loud as before; on: its level is right; no noise, hum or click that was not there';

/** Each box that is fed, along the signal, so that whoever makes a noise is the last that was switched on. */
const powerOn = (d: Derived): readonly BuildStep[] => {
  const { rig, hookup, anatomy } = d;
  const order = signalOrder(anatomy);
  const place = (id: Device['id']): number => order.get(id) ?? order.size;
  const fed = feeds(rig, hookup);
  const wired = wiredBoxes(rig, hookup.id);
  const boxes = all(rig, 'device').filter((device) => wired.has(device.id));
  const listened = boxes
    .filter((device) => fed.some((f) => f.need.device === device.id && f.given))
    .sort((a, b) => place(a.id) - place(b.id));
  const group = 'Power on, one box at a time, and listen';
  return [
    ...boxes
      .filter(isValve)
      .map((amp) =>
        step(
          group,
          `${boxText(rig, amp.id)}: loudspeaker or load plugged, still on standby`,
          'A valve amp never runs without its load. Volume down before it comes on.',
        ),
      ),
    ...listened.map((device) => {
      const need = fed.find((f) => f.need.device === device.id)?.need;
      const asks = need ? `${need.volts.join(' or ')} V, ${need.milliamps} mA. ` : '';
      return step(group, boxText(rig, device.id), `${asks}${HEARD}`);
    }),
  ];
};

/**
 * How a rig is built, layer by layer (common practice): prepare, wire roughly, power on one box at a time and listen,
 * wire neatly, test again, tie down.
 */
export const buildOrder = (d: Derived): readonly BuildStep[] => {
  const sounds = soundsInOrder(d.rig).length;
  return [
    ...prepare(d),
    ...rough(d),
    ...powerOn(d),
    step(
      'Wire neatly',
      'Leads along the board’s ways, supply leads apart from audio',
      'Cross at right angles where they must meet.',
    ),
    step('Wire neatly', 'Labels on both ends of every lead', 'They are printed under Labels.'),
    ...(sounds ? [step('Test again', `Every sound once: ${sounds} of them`, 'As the line check says.')] : []),
    step('Test again', 'Move every plug gently while it sounds', 'No crackle, no dropout.'),
    step(
      'Tie down',
      'Ties loose at the plugs, none around a supply box',
      'A hand must still reach every plug on a dark stage.',
    ),
    step('Tie down', 'Turn the board over, hold it and shake it', 'Nothing moves, nothing rattles.'),
  ];
};
