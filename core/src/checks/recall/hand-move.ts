import { handMoves } from '../../recall/compile.js';
import { handsInSongs } from '../../recall/hands.js';
import { controlText, valueText } from '../../recall/words.js';
import { splitRef, type Ref } from '../../rig/ids.js';
import { partOf } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { outOfReach } from '../midi/unreached.js';
import { callAProgram } from './cures.js';
import { boxName, grouped, listed, soundNames } from '../names.js';

export const handMove: Check = {
  code: 'recall.hand-move',
  title: 'Something has to be moved by hand or foot',
  severities: ['doubt'],
  source: 'compile: no message, relay or contact of a called controller reaches it, and sounds want it differently',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const forLackOfAWire = new Set(outOfReach(inputs).map((c) => c.control));
    const moves = [...compilation.sounds.keys()].flatMap((sound) => handMoves(compilation, sound).filter((m) => !forLackOfAWire.has(m.control)).map((move) => ({ sound, ...move })));
    for (const group of grouped(moves, (m) => m.control).values()) {
      const { control, by } = group[0]!;
      const { device } = splitRef(control);
      const values = [...grouped(group, (m) => String(m.value))].map(([value, those]) => `${valueText(rig, control, value)} in ${soundNames(rig, those.map((m) => m.sound))}`);
      yield {
        severity: 'doubt' as const,
        evidence: [device, ...group.map((m) => m.sound)],
        about: control,
        why: `${controlText(rig, control)} is reached only by ${by}, and sounds want it differently: ${listed(values)}.${inSongs(inputs, control)}`,
        remedies: () => [...callAProgram(inputs, group.map((m) => ({ sound: m.sound, control: m.control, value: String(m.value) }))), { id: 'loop', label: `Put ${boxName(rig, device)} into a loop, or on a MIDI channel that the controller reaches`, promise: 'eases' as const, by: 'hand' as const }],
      };
    }
  },
};

/** How often it has to be moved while songs go on; nothing when no song asks for it. */
const inSongs = ({ rig, compilation }: CheckInputs, control: Ref): string => {
  const counts = handsInSongs(compilation).flatMap(({ song, between }) => {
    const n = between.filter((x) => x.moves.some((m) => m.control === control)).length;
    return n ? [`${n === 1 ? 'once' : `${n} times`} in “${partOf(rig, song)!.title}”`] : [];
  });
  return counts.length ? ` While a song goes on it has to be moved ${listed(counts)}.` : '';
};
