import { unplug } from '../../edits/cables.js';
import type { Bearings } from '../../recall/actuate/bearings.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { heardFrom } from '../../recall/actuate/touched.js';
import { listeners, type Listener } from '../../recall/actuate/listeners.js';
import type { Act, Message } from '../../rig/act.js';
import type { Actuator } from '../../rig/device.js';
import type { Cable } from '../../rig/hookup.js';
import type { Id } from '../../rig/ids.js';
import { ref, splitRef, theId } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { all, cablesOf, thePart } from '../../rig/rig.js';
import { apply } from '../../change/apply.js';
import { controlWiring, type Arrival, type ControlWiring } from '../../signal/control/reach.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { elseByHand, pull } from '../ways-out.js';
import { jackAt } from '../../rig/box.js';

export const twice: Check = {
  code: 'midi.twice',
  title: 'A message that arrives twice',
  severities: ['broken', 'doubt'],
  source:
    'MIDI 1.0 Detailed Specification: a receiver carries out each message that it gets; two ways on the wire bring each message twice',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap((compiled) =>
      arrivesTwice(compiled, compilation.bearings).map((c) => ({ sound: compiled.sound, ...c })),
    );
    for (const group of grouped(cases, (c) => `${c.from} ${c.at} ${c.to}`).values()) {
      const { from, at, to, times } = group[0];
      const sounds = [...new Set(group.map((c) => c.sound))];
      const turnsOver = group.some((c) => c.turnsOver);
      yield {
        severity: turnsOver ? ('broken' as const) : ('doubt' as const),
        evidence: [to, from, ...sounds],
        about: at,
        why: `What ${boxName(rig, from)} sends by ${at} comes to ${boxName(rig, to)} ${times === 2 ? 'by two ways' : `by ${times} ways`}, and is carried out ${times === 2 ? 'twice' : `${times} times`}, in ${soundNames(rig, sounds)}. ${turnsOver ? 'What turns something over is turned back by the second.' : 'The wire is busy longer, and what loads a program loads it again.'}`,
        remedies: () => elseByHand(oneWayLess(inputs, from, at, to), 'Leave one of the two ways only'),
      };
    }
  },
};

interface Twice {
  readonly from: Id<'device'>;
  readonly at: string;
  readonly to: Id<'device'>;
  readonly times: number;
  readonly turnsOver: boolean;
}

const arrivesTwice = once(({ stored }: Compiled, bearings: Bearings): readonly Twice[] =>
  stored
    .filter(({ program }) => heardFrom(bearings, program).some(isHeardTwice))
    .flatMap(({ program: { device, acts, assigns } }) =>
      [...acts, ...assigns.flatMap((a) => [...a.on, ...a.off])].flatMap((act) =>
        'send' in act && !('bpm' in act.send) ? twiceOf(bearings, device, act) : [],
      ),
    ),
);

const twiceOf = (
  bearings: Bearings,
  from: Id<'device'>,
  { send, at }: Extract<Act, { send: Message }>,
): readonly Twice[] => hearingTwice(listeners(bearings, from, at, send)).map((heard) => ({ from, at, ...heard }));

const isHeardTwice = (hearing: readonly Listener[]): boolean => hearingTwice(hearing).length > 0;

/** Of those who hear a message the boxes to which it comes more than once. */
const hearingTwice = once((hearing: readonly Listener[]): readonly Pick<Twice, 'to' | 'times' | 'turnsOver'>[] =>
  [...grouped(hearing, (l) => l.device.id)].flatMap(([to, heard]) =>
    heard.length > 1 ? [{ to: theId('device', to), times: heard.length, turnsOver: heard[0].answers.some(turns) }] : [],
  ),
);

const turns = ({ acts }: Actuator): boolean => acts.some((act) => 'toggle' in act || 'step' in act || 'pulse' in act);

/** Cables without which it comes there once, and everybody else still hears what they heard. */
const oneWayLess = (inputs: CheckInputs, from: Id<'device'>, at: string, to: Id<'device'>): readonly Remedy[] => {
  const { rig, hookup, compilation } = inputs;
  const { control } = compilation.bearings;
  const isMidi = (cable: Cable): boolean => cable.ends.every((end) => jackAt(rig, end)?.kind === 'midi');
  return cablesOf(rig, hookup.id)
    .filter(isMidi)
    .filter((cable) => {
      const pulled = apply(rig, unplug(cable.id));
      if (!pulled.ok) return false;
      const left = controlWiring(pulled.value.rig, hookup);
      const times = (left.midi.get(ref(from, at)) ?? []).filter((a) => a.device === to).length;
      return times === 1 && nobodyIsLost(inputs, control, left);
    })
    .flatMap((cable) => pull(inputs, cable));
};

/** Whether every box that answers to MIDI still hears every box that sends something of its own. */
const nobodyIsLost = ({ rig, compilation }: CheckInputs, before: ControlWiring, after: ControlWiring): boolean => {
  const sending = [...compilation.sounds.values()]
    .flatMap((c) => c.stored.map(({ program }) => program))
    .concat(all(rig, 'program'));
  const senders = new Set<Id<'device'>>([
    ...sending.map((p) => p.device),
    ...all(rig, 'device')
      .filter((d) => d.actuators.some((a) => a.acts.some((act) => 'send' in act)))
      .map((d) => d.id),
  ]);
  return [...before.midi]
    .filter(([from]) => senders.has(splitRef(from).device))
    .every(([from, arrivals]) => {
      const still = new Set(after.midi.get(from)?.map((a: Arrival) => a.device));
      return arrivals.every((a) => still.has(a.device) || !thePart(rig, a.device).midi);
    });
};
