import { handMoves } from '../../recall/actuate/compile.js';
import { handsInSet, handsInSongs } from '../../recall/actuate/hands.js';
import { controlText, valueText } from '../../recall/words/words.js';
import type { HandMove } from '../../recall/intend/compiled.js';
import { assume } from '../../edits/hookups.js';
import { playedAndSpare } from '../../edits/set-list.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { all, thePart } from '../../rig/rig.js';
import type { Occurrence, Check, CheckInputs, Remedy } from '../check.js';
import { outOfReach } from '../midi/unreached.js';
import { callAProgram } from './cures.js';
import { boxName, listed, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { theFirst } from '../../known/the.js';

export const handMove: Check = {
  code: 'recall.hand-move',
  title: 'Something has to be moved by hand or foot',
  severities: ['doubt', 'note'],
  source:
    'compile: no message, relay or contact of a called controller reaches it; a doubt where sounds want it differently, a note where it is set once and a foot could still move it',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const isCalled = [...compilation.sounds.values()].some((c) => c.stored.length > 0);
    const forLackOfAWire = new Set(outOfReach(inputs).map((c) => c.control));
    const byControl = new Map<Ref, HandMoveIn[]>();
    for (const sound of compilation.sounds.keys())
      for (const move of handMoves(compilation, sound))
        if (!forLackOfAWire.has(move.control)) keptIn(byControl, move.control, () => []).push({ sound, move });
    const isOnce = (group: readonly HandMoveIn[]): boolean =>
      group.every(
        ({ move }) =>
          move.value === theFirst(group).move.value || String(move.value) === String(theFirst(group).move.value),
      );
    const [once, differing]: [HandMoveIn[][], HandMoveIn[][]] = [[], []];
    for (const group of byControl.values()) (isOnce(group) ? once : differing).push(group);
    if (once.length) yield setOnce(inputs, once);
    for (const group of differing) {
      const { control, by } = theFirst(group).move;
      const { device } = splitRef(control);
      const values = [...grouped(group, (m) => String(m.move.value))].map(
        ([value, those]) =>
          `${valueText(rig, control, value)} in ${soundNames(
            rig,
            those.map((m) => m.sound),
          )}`,
      );
      yield {
        /** On a board that nothing calls this is how it is played. */
        severity: isCalled ? ('doubt' as const) : ('note' as const),
        evidence: [device, ...group.map((m) => m.sound)],
        about: control,
        why: `${controlText(rig, control)} is reached only by ${by}, and sounds want it differently: ${listed(values)}.${inSongs(inputs, control)}${betweenSongs(inputs, control)}`,
        remedies: () => [
          ...callAProgram(
            inputs,
            group.map(({ sound, move }) => ({ sound, control: move.control, value: String(move.value) })),
          ),
          ...intoALoop(inputs, device),
        ],
      };
    }
  },
};

interface HandMoveIn {
  readonly sound: Id<'sound'>;
  readonly move: HandMove;
}

/** What every sound that needs it wants alike: it is set once, and stays so unless somebody touches it. */
const setOnce = ({ rig, hookup }: CheckInputs, once: readonly (readonly HandMoveIn[])[]): Occurrence => {
  const those = once.map((group) => theFirst(group).move);
  const text = ({ control, value }: HandMove) => `${controlText(rig, control)} ${valueText(rig, control, value)}`;
  const taken = () => those.reduce((h, { control, value }) => assume(h, control, value, NOBODY).put[0], hookup);
  return {
    severity: 'note',
    evidence: [...new Set(those.map((m) => splitRef(m.control).device)), ...new Set(once.flat().map((m) => m.sound))],
    about: those
      .map((m) => m.control)
      .sort()
      .join(' ')
      .slice(0, 400),
    why: `Set once and left so: ${those.map(text).join(', ')}. Nothing calls ${those.length === 1 ? 'it' : 'them'}, and a foot, a pedal or a kicked plug can still move ${those.length === 1 ? 'it' : 'them'}.`,
    remedies: () => [
      {
        id: 'assume',
        label:
          those.length === 1
            ? `Take for granted that nobody touches ${text(theFirst(those))}`
            : `Take for granted that nobody touches these ${those.length}`,
        note: 'they are listed on the line check',
        promise: 'clears',
        by: 'program',
        edit: { put: [taken()], remove: [] },
      },
    ],
  };
};

/** Only where a controller is there to do it. */
const intoALoop = ({ rig, compilation }: CheckInputs, device: Id<'device'>): readonly Remedy[] => {
  const called = [...new Set([...compilation.sounds.values()].flatMap((c) => c.stored.map((s) => s.program.device)))];
  const switcher = called.find((id) => compilation.bearings.anatomy.loops.some((l) => l.device === id));
  const talker = called.find((id) => thePart(rig, id).jacks.some((j) => j.kind === 'midi' && j.poles.tip === 'out'));
  const label = switcher
    ? `Put ${boxName(rig, device)} into a loop of ${boxName(rig, switcher)}`
    : talker && thePart(rig, device).midi
      ? `Let ${boxName(rig, talker)} reach ${boxName(rig, device)} over MIDI`
      : undefined;
  return label ? [{ id: 'loop', label, promise: 'eases', by: 'hand' }] : [];
};

const NOBODY = 'set before the show; nobody touches it';

/** How often it has to be moved while songs go on; nothing when no song asks for it. */
const inSongs = ({ rig, compilation }: CheckInputs, control: Ref): string => {
  const counts = handsInSongs(compilation).flatMap(({ song, between }) => {
    const n = between.filter((x) => x.moves.some((m) => m.control === control)).length;
    return n ? [`${n === 1 ? 'once' : `${n} times`} in “${thePart(rig, song).title}”`] : [];
  });
  return counts.length ? ` While a song goes on it has to be moved ${listed(counts)}.` : '';
};

/** Before how many songs of each set it has to be moved; nothing when no set asks for it. */
const betweenSongs = ({ rig, compilation }: CheckInputs, control: Ref): string => {
  const counts = all(rig, 'setList').flatMap((list) => {
    const n = handsInSet(compilation, playedAndSpare(list).played).filter((x) =>
      x.moves.some((m) => m.control === control),
    ).length;
    return n ? [`before ${n === 1 ? 'one song' : `${n} songs`} of “${list.name}”`] : [];
  });
  return counts.length ? ` Between songs it has to be moved ${listed(counts)}.` : '';
};
