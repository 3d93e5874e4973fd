import type { Act } from '../../rig/act.js';
import type { Device } from '../../rig/device.js';
import { USUAL_DISTURBANCES } from '../../rig/hookup.js';
import type { Program } from '../../rig/program.js';
import { all } from '../../rig/rig.js';
import { ref, theId } from '../../rig/ids.js';
import type { Loading } from '../model/loading.js';
import { calledIn, slotLoading, type Footstep } from '../model/happenings.js';
import { assignedTo, type Assigned, switchEvents } from '../model/switches.js';
import { chosenByHand, type Compilation } from '../actuate/compile.js';
import type { Modelled } from '../model/model.js';
import { slotTiming } from '../actuate/slot-timing.js';
import type { Condition, SystemAct, SystemEvent } from '../../prover/system.js';
import { apart, Cutter, Influence, wantedIn, type Extra } from './reach.js';
import type { Asked, Question } from './question.js';
import { type Bearings } from '../actuate/bearings.js';
import { type Compiled } from '../intend/compiled.js';
import { theItem, theEntry } from '../../known/the.js';

/** Told place by place, whatever the slot sets off in others. */
const AT_ONCE = {};

/** Places of the messages that a stored slot sends, in order. */
const messagesOf = (program: Program): readonly number[] =>
  program.acts.flatMap((act, i) => ('send' in act && !('bpm' in act.send) && !act.when?.length ? [i] : []));

/**
 * Any message of any sound or move may be lost on its wire, again and again. Does the next stomp, whichever it is,
 * bring its sound back all the same? For the sounds
 * that it does not, a second stomp is judged too.
 */
export const lostMessage = (c: Compilation, m: Modelled): Question => {
  const { bearings: b } = c;
  const reach = new Influence(m.system, wantedIn(m.system.sounds));
  const cutter = new Cutter();
  const steps = new Map<string, Footstep>(m.steps);
  const extras: Extra[] = [];
  const beyond: Asked[] = [];
  for (const compiled of c.sounds.values()) {
    // Where boxes tell each other what to do, a lost message changes what is on the wires after it: that is not asked
    // here.
    // Neither is it asked where somebody chooses programs by hand besides.
    const isClear = compiled.stored.every(({ program }) => m.said.effects.isPlainSlot(program));
    if (!isClear || chosenByHand(c, compiled.sound).length > 0) beyond.push({ sound: compiled.sound });
    else
      for (const [extra, step] of lostOfSound(b, m, compiled, reach, cutter)) {
        extras.push(extra);
        steps.set(extra.id, step);
      }
  }
  if ((b.hookup.admits ?? USUAL_DISTURBANCES).moves) {
    for (const { event, step, lost } of lostOfMoves(m, all(b.rig, 'device'))) {
      const matters = reach.from(lost);
      if (matters.size === 0) continue;
      extras.push({ id: event.id, when: event.when, acts: (inside) => cutter.cut(event.acts, inside), matters });
      steps.set(event.id, step);
    }
  }
  return {
    about: 'lost message',
    ground: m.ground,
    systems: apart(m.system, extras, m.system.sounds, reach),
    steps,
    asked: new Map(m.system.sounds.map((s) => [s.id, { sound: theId('sound', s.id) }])),
    beyond,
  };
};

/** The recall of a sound once for each of its messages, which is lost. */
const lostOfSound = (
  b: Bearings,
  { said: { effects } }: Modelled,
  { sound, stored }: Compiled,
  reach: Influence,
  cutter: Cutter,
): readonly (readonly [Extra, Footstep])[] => {
  const whole = stored.map(({ program }) => slotLoading(b, effects, program, AT_ONCE));
  const within = insideOf(whole, cutter);
  return stored.flatMap(({ program }, s) => {
    const { list } = theItem(whole, s);
    const isEven = slotTiming(b, program.device, program.acts).every((t) => t.missed.length === 0);
    return messagesOf(program).flatMap((place, message): readonly (readonly [Extra, Footstep])[] => {
      const id = `lost:${sound}:${program.device}:${message}`;
      const step: Footstep = {
        does: 'recall',
        sound,
        ...calledIn(b, sound),
        loses: { device: program.device, message },
      };
      const matters = reach.from(theItem(list, place).map((act) => act.variable));
      if (matters.size === 0) return [];
      // Behind a lost message nothing else arrives otherwise, unless a box was to be deaf because of it.
      if (isEven) {
        const acts: Extra['acts'] = (inside) =>
          within(inside).flatMap((piece) => (piece.slot === s && piece.place === place ? [] : piece.acts));
        return [[{ id, acts, matters }, step]];
      }
      const without = slotLoading(b, effects, program, { lost: place });
      const pieces = whole.flatMap((loading, i) => piecesOf(i === s ? without : loading));
      const acts: Extra['acts'] = (inside) => pieces.flatMap((those) => cutter.cut(those, inside));
      return [[{ id, acts, matters: reach.from(list.flat().map((act) => act.variable)) }, step]];
    });
  });
};

interface LostPress {
  readonly event: SystemEvent;
  readonly step: Footstep;
  /** What the lost messages would have changed. */
  readonly lost: readonly string[];
}

/**
 * Presses and releases of moves of which one message never arrives. Programs that lose what is meant for the same box
 * are one event, so that each matters to that box only.
 */
const lostOfMoves = (
  { said: { domains, shelf, effects } }: Modelled,
  devices: readonly Device[],
): readonly LostPress[] =>
  devices.flatMap((device) =>
    device.memories.flatMap((memory) =>
      (memory.assignable ?? []).flatMap((place) => {
        const assigned = assignedTo(domains, shelf, device, memory, place.switch);
        const most = Math.max(
          0,
          ...assigned.flatMap(({ assign }) => [sends(assign.on).length, sends(assign.off).length]),
        );
        return Array.from({ length: most }, (_, message) => {
          const alike = new Map<string, { readonly lost: readonly string[]; readonly those: Assigned[] }>();
          for (const one of assigned) {
            const gone = [sends(one.assign.on)[message], sends(one.assign.off)[message]].filter(
              (act) => act !== undefined,
            );
            const lost = [
              ...new Set(gone.flatMap((act) => effects.acts(device, [act], [])).map((act) => act.variable)),
            ].sort();
            const group = alike.get(lost.join());
            if (group) group.those.push(one);
            else if (lost.length) alike.set(lost.join(), { lost, those: [one] });
          }
          return [...alike.values()].flatMap(({ lost, those }, i) => {
            const loaded: Condition = { variable: ref(device.id, memory.control), in: those.map((x) => x.program) };
            const without = (acts: readonly Act[]) => acts.filter((act) => act !== sends(acts)[message]);
            return switchEvents(
              device,
              memory,
              place,
              those.map(({ assign, program }) => ({
                program,
                assign: { ...assign, on: without(assign.on), off: without(assign.off) },
              })),
              effects,
            ).map(([event, step]): LostPress => ({
              event: {
                ...event,
                id: `lost:${event.id}:${message}${i ? `:${i}` : ''}`,
                when: [...(event.when ?? []), loaded],
              },
              step: { ...step, loses: message } as Footstep,
              lost,
            }));
          });
        }).flat();
      }),
    ),
  );

const sends = (acts: readonly Act[]): readonly Act[] => acts.filter((act) => 'send' in act && !('bpm' in act.send));

/** What of a sound's slots does something inside, piece by piece; worked out once for each inside. */
const insideOf = (
  whole: readonly Loading[],
  cutter: Cutter,
): ((
  inside: ReadonlySet<string>,
) => readonly { readonly slot: number; readonly place: number; readonly acts: readonly SystemAct[] }[]) => {
  const known = new Map<ReadonlySet<string>, ReturnType<ReturnType<typeof insideOf>>>();
  return (inside) => {
    const found =
      known.get(inside) ??
      whole.flatMap((loading, slot) =>
        piecesOf(loading).flatMap((piece, i) => {
          const acts = cutter.cut(piece, inside);
          return acts.length ? [{ slot, place: i - 1, acts }] : [];
        }),
      );
    known.set(inside, found);
    return found;
  };
};

/** What comes first, each place of the list, what comes last. */
const piecesOf = ({ first, list, last }: Loading): Loading['list'] => [first, ...list, last];

/** The same evening, but each of these sounds is stomped twice. */
export const stompedAgain = (question: Question, sounds: readonly string[]): Question => {
  const again = (sound: string) => `again:${sound}`;
  const recallOf = (sound: string) => `recall:${sound}`;
  const steps = new Map(question.steps);
  for (const id of sounds) {
    const once = theEntry(steps, recallOf(id));
    steps.set(again(id), { does: 'row', steps: [once, once] });
  }
  return {
    ...question,
    steps,
    asked: new Map(sounds.map((id) => [again(id), { sound: theId('sound', id), again: true as const }])),
    systems: question.systems
      .map((system) => ({
        ...system,
        events: [
          ...system.events,
          ...system.events.flatMap((e): SystemEvent[] =>
            sounds
              .filter((id) => recallOf(id) === e.id)
              .map((id) => ({ id: again(id), last: true, acts: [...e.acts, ...e.acts] })),
          ),
        ],
        sounds: system.sounds
          .filter((s) => sounds.includes(s.id))
          .map((s) => ({ id: again(s.id), recall: again(s.id), wants: s.wants })),
      }))
      .filter((system) => system.sounds.length > 0),
  };
};
