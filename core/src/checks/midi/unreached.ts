import { takesIn } from '../../edits/cables.js';
import type { Bearings } from '../../recall/actuate/bearings.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { controlText } from '../../recall/words/words.js';
import type { Device } from '../../rig/device.js';
import { ref, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { all, thePart } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, listed, soundNames, soundsDo } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { passable } from '../../signal/graph/passable.js';
import { once } from '../../kept/kept.js';
import { cableAt, elseByHand, plugIn } from '../ways-out.js';
import { theFirst } from '../../known/the.js';

interface OutOfReach {
  readonly sound: Id<'sound'>;
  readonly device: Id<'device'>;
  readonly control: Ref;
  readonly callers: readonly Id<'device'>[];
}

/** Wishes that a message could fulfil, if only a wire led from a called controller to the box. */
export const outOfReach = ({ compilation }: CheckInputs): readonly OutOfReach[] =>
  [...compilation.sounds.values()].flatMap((compiled) => beyond(compiled, compilation.bearings));

const beyond = once(
  ({ sound, hand, stored, heard }: Compiled, { rig, control: wires, anatomy }: Bearings): readonly OutOfReach[] => {
    const { devices: joins } = passable(
      anatomy.wiring,
      heard.map((p) => p.from),
      heard.map((p) => p.at),
    );
    const sending = [...new Set(stored.map((s) => s.program.device))].filter((d) =>
      thePart(rig, d).jacks.some((j) => j.kind === 'midi' && j.poles.tip === 'out'),
    );
    return hand.flatMap(({ control }) => {
      const { device, name } = splitRef(control);
      const callers = sending.filter((d) => d !== device);
      return callers.length &&
        (joins.has(device) || !thePart(rig, device).jacks.some((j) => j.kind === 'audio')) &&
        answers(thePart(rig, device), name) &&
        !callers.some((c) => isReached(wires, c, device))
        ? [{ sound, device, control, callers }]
        : [];
    });
  },
);

const answers = (box: Device, control: string): boolean =>
  box.midi !== undefined &&
  box.actuators.some(
    (a) =>
      'midi' in a.by &&
      a.acts.some(
        (act) =>
          ('control' in act && act.control === control) ||
          ('load' in act && box.memories.some((m) => m.id === act.load && m.control === control)),
      ),
  );

const isReached = ({ midi }: Bearings['control'], controller: Id<'device'>, box: Id<'device'>): boolean =>
  [...midi].some(([from, arrivals]) => splitRef(from).device === controller && arrivals.some((a) => a.device === box));

export const unreached: Check = {
  code: 'midi.unreached',
  title: 'A box or a pedal that cannot be reached',
  severities: ['broken'],
  source:
    'MIDI 1.0 Detailed Specification: an out does not pass on what comes in; only a thru, or an out that merges, does',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    for (const group of grouped(outOfReach(inputs), (c) => c.device).values()) {
      const { device, callers } = group[0];
      const controls = [...new Set(group.map((c) => c.control))];
      const sounds = [...new Set(group.map((c) => c.sound))];
      yield {
        severity: 'broken' as const,
        evidence: [device, theFirst(callers), ...sounds],
        why: `${listed(controls.map((c) => controlText(rig, c)))} could be set over MIDI, but nothing that ${boxName(rig, theFirst(callers))} sends comes to ${boxName(rig, device)}: ${endOfWire(inputs, device)} In ${soundNames(rig, sounds)} somebody has to do it by hand.`,
        remedies: () =>
          elseByHand(
            nearestOutput(inputs, theFirst(callers), device),
            `Lead a MIDI cable from ${boxName(rig, theFirst(callers))} to ${boxName(rig, device)}`,
          ),
      };
    }
    const idle = [...inputs.compilation.sounds.values()].flatMap(({ sound, pedals }) =>
      pedals.flatMap(({ control, pedal, by }) => (typeof by === 'string' ? [{ sound, control, pedal, by }] : [])),
    );
    for (const group of grouped(idle, (p) => `${p.control} ${p.pedal} ${p.by}`).values()) {
      const { control, pedal, by } = group[0];
      const [host, box] = [splitRef(pedal).device, splitRef(control).device];
      const sounds = group.map((p) => p.sound);
      yield {
        severity: 'broken' as const,
        evidence: [host, ...(box === host ? [] : [box]), ...sounds],
        about: `${pedal} ${control}`,
        why: `${soundsDo(rig, sounds, 'puts', 'put')} ${controlText(rig, control)} under the pedal at ${boxName(rig, host)} (${splitRef(pedal).name}), but ${IDLE[by](boxName(rig, host), boxName(rig, box))}`,
        remedies: () => [
          {
            id: 'pedal',
            label:
              by === 'nothing plugged in'
                ? `Plug a pedal into ${boxName(rig, host)} (${splitRef(pedal).name})`
                : by === 'not called'
                  ? `Let the sound call a slot of ${boxName(rig, host)}`
                  : `Use a pedal input of ${boxName(rig, box)} itself, or lead a MIDI cable there`,
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

/** Why a pedal moves nothing. */
const IDLE = {
  'nothing plugged in': () => 'nothing is plugged in there.',
  'not called': (host: string) => `the sound calls no slot of ${host}, which would have to know of it.`,
  'no way': (host: string, box: string) => `nothing that ${host} sends moves it on ${box}.`,
} as const;

const inputOf = (device: Device) => device.jacks.find((j) => j.kind === 'midi' && takesIn(j));

/** Where the wire that comes to a box begins. */
const endOfWire = (inputs: CheckInputs, id: Id<'device'>): string => {
  const jack = inputOf(thePart(inputs.rig, id));
  const cable = jack && cableAt(inputs, ref(id, jack.id));
  if (!cable) return 'nothing is plugged into its MIDI input.';
  const from = splitRef(cable.ends.find((e) => splitRef(e).device !== id) ?? cable.ends[0]);
  return `the cable comes from ${boxName(inputs.rig, from.device)} (${from.name}), which does not pass it on.`;
};

/** A free output of the controller, else of a box that passes on what it sends. */
const nearestOutput = (inputs: CheckInputs, controller: Id<'device'>, id: Id<'device'>): readonly Remedy[] => {
  const { rig, compilation } = inputs;
  const jack = inputOf(thePart(rig, id));
  if (!jack) return [];
  const reached = new Set([
    controller,
    ...[...compilation.bearings.control.midi]
      .filter(([from]) => splitRef(from).device === controller)
      .flatMap(([, arrivals]) => arrivals.map((a) => a.device)),
  ]);
  const passing = (device: Device): boolean =>
    device.id === controller ||
    device.chains.some(
      (c) => c.slots.length === 0 && c.from.some((t) => device.jacks.some((j) => j.id === t.at && j.kind === 'midi')),
    );
  const free = all(rig, 'device')
    .filter((d) => d.id !== id && reached.has(d.id) && passing(d))
    .flatMap((d) =>
      d.jacks
        .filter(
          (j) =>
            j.kind === 'midi' &&
            j.poles.tip === 'out' &&
            !cableAt(inputs, ref(d.id, j.id)) &&
            (d.id === controller || d.chains.some((c) => c.to.some((t) => t.at === j.id))),
        )
        .map((j) => ref(d.id, j.id)),
    );
  return free[0] ? plugIn(inputs, free[0], ref(id, jack.id)) : [];
};
