import { memoryIn } from '../../rig/box.js';
import type { Device } from '../../rig/device.js';
import type { Id } from '../../rig/ids.js';
import { callFits } from '../../recall/intend/wants.js';
import { all, partOf } from '../../rig/rig.js';
import type { Song } from '../../rig/show.js';
import { SHOE_MM } from '../../rig/board.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, listed } from '../names.js';
import { grouped } from '../../known/grouped.js';

/** A switch of a box that a song needs. */
interface Needed {
  readonly device: Id<'device'>;
  readonly switch: string;
}

/** Switches of slots and of moves that a song needs, by the box that they are on. */
const neededIn = ({ rig, hookup }: CheckInputs, { cues }: Song): readonly Needed[] =>
  cues.flatMap(({ call }): readonly Needed[] => {
    if ('move' in call) return partOf(rig, call.move)?.at ?? [];
    const sound = 'sound' in call ? partOf(rig, call.sound) : undefined;
    return (sound?.calls ?? [])
      .filter((c) => callFits(rig, c, hookup.id))
      .flatMap((c) => {
        const memory = memoryIn(partOf(rig, c.device), c.memory);
        const { switches } = memory ?? {};
        const name = switches?.[c.slot % switches.length];
        return name === undefined ? [] : [{ device: c.device, switch: name }];
      });
  });

const apartMm = ({ figures }: Device, a: string, b: string): number | undefined => {
  const [one, other] = [a, b].map((id) => figures.switches?.find((s) => s.id === id));
  return one && other && Math.hypot(one.x - other.x, one.y - other.y);
};

export const fatFoot: Check = {
  code: 'set.fat-foot',
  title: 'Two switches of a song stand too close for a shoe',
  severities: ['note'],
  source: `common practice: about ${SHOE_MM} mm from one switch to the next, so that a shoe hits one of them`,
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const close = all(rig, 'song').flatMap((song) =>
      [...grouped(neededIn(inputs, song), (n) => n.device)].flatMap(([id, needed]) => {
        const device = partOf(rig, id);
        const names = [...new Set(needed.map((n) => n.switch))].sort();
        return names.flatMap((a, i) =>
          names.slice(i + 1).flatMap((b) => {
            const mm = device && apartMm(device, a, b);
            return mm !== undefined && mm < SHOE_MM ? [{ device: id, pair: `${a} and ${b}`, mm, song }] : [];
          }),
        );
      }),
    );
    for (const group of grouped(close, (c) => `${c.device} ${c.pair}`).values()) {
      const [{ device, pair, mm }] = group;
      yield {
        severity: 'note' as const,
        evidence: [device, ...group.map((c) => c.song.id)],
        about: pair,
        why: `${boxName(rig, device)} has ${pair} only ${Math.round(mm)} mm apart, and both are needed in ${listed(group.map((c) => `“${c.song.title}”`))}: a shoe may hit both.`,
        remedies: () => [
          {
            id: 'slots',
            label: 'Put one of them on a switch further away: room Set, Slots',
            promise: 'eases' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};
