import equal from 'fast-deep-equal';
import { callersIn, type Caller } from '../../edits/calls.js';
import { memoryIn } from '../../rig/box.js';
import type { Id } from '../../rig/ids.js';
import type { Song } from '../../rig/show.js';
import { all, partOf, soundsInOrder, type Rig } from '../../rig/rig.js';
import type { Call, Sound } from '../../rig/sound.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, soundNames } from '../names.js';

/** Sounds that songs call and that no controller calls. */
const slotless = (rig: Rig): readonly Sound[] => {
  const inSongs = new Set(
    all(rig, 'song').flatMap((s) => s.cues.flatMap(({ call }) => ('sound' in call ? [call.sound] : []))),
  );
  return soundsInOrder(rig).filter((s) => s.calls.length === 0 && inSongs.has(s.id));
};

const callAt = (sound: Sound, { device, memory }: Caller): Call | undefined =>
  sound.calls.find((c) => c.device === device && c.memory === memory);

/** A controller whose every slot has its sound. */
const isFull = (rig: Rig, caller: Caller): boolean => {
  const size = memoryIn(partOf(rig, caller.device), caller.memory)?.size ?? 0;
  const taken = new Set(soundsInOrder(rig).flatMap((s) => callAt(s, caller)?.slot ?? []));
  return taken.size >= size;
};

/** A sound with a slot that wants the very same of every box: songs can call it instead. */
const twinOf = ({ rig, compilation }: CheckInputs, sound: Sound, caller: Caller): Sound | undefined => {
  const wants = (s: Sound) =>
    (compilation.sounds.get(s.id)?.wants ?? [])
      .filter((w) => w.why.by !== 'program')
      .map((w) => [w.control, String(w.value)])
      .sort();
  const mine = wants(sound);
  return soundsInOrder(rig).find((s) => s.id !== sound.id && callAt(s, caller) && equal(wants(s), mine));
};

/** Songs that call a sound, calling another in its place. */
const songsWith = (rig: Rig, sound: Id<'sound'>, other: Id<'sound'>): readonly Song[] =>
  all(rig, 'song')
    .filter((s) => s.cues.some(({ call }) => 'sound' in call && call.sound === sound))
    .map((s) => ({
      ...s,
      cues: s.cues.map((cue) =>
        'sound' in cue.call && cue.call.sound === sound ? { ...cue, call: { sound: other } } : cue,
      ),
    }));

export const slots: Check = {
  code: 'set.slots',
  title: 'More sounds than slots',
  severities: ['broken'],
  source: 'compile: a sound that a song calls needs a slot on a controller, and all are taken',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const without = slotless(rig);
    const callers = callersIn(rig).filter((c) => c.by === 'slot' && !c.isScene);
    const full = callers.filter((c) => isFull(rig, c));
    const [caller] = full;
    if (without.length === 0 || !caller || full.length < callers.length) return;
    const twins = without.flatMap((sound) => {
      const twin = twinOf(inputs, sound, caller);
      return twin ? [{ sound, twin }] : [];
    });
    const size = memoryIn(partOf(rig, caller.device), caller.memory)?.size ?? 0;
    const shared = twins.map(({ sound, twin }) => `${soundNames(rig, [sound.id])} is the same as “${twin.name}”`);
    yield {
      severity: 'broken' as const,
      evidence: [caller.device, ...without.map((s) => s.id)],
      why: `All ${size} slots of ${boxName(rig, caller.device)} are taken, and ${soundNames(
        rig,
        without.map((s) => s.id),
      )} of your songs ${without.length === 1 ? 'has' : 'have'} none.${shared.length ? ` ${shared.join('; ')}.` : ''}`,
      remedies: (): readonly Remedy[] => [
        ...twins.map(({ sound, twin }): Remedy => ({
          id: `share ${sound.id}`,
          label: `Let the songs call “${twin.name}” in place of “${sound.name}”`,
          promise: without.length === 1 ? 'clears' : 'eases',
          by: 'program',
          edit: { put: songsWith(rig, sound.id, twin.id), remove: [] },
        })),
        {
          id: 'free',
          label: 'Free a slot: take a sound that no song uses off the controller',
          promise: 'eases',
          by: 'hand',
        },
      ],
    };
  },
};
