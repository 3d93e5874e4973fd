import equal from 'fast-deep-equal';
import type { DialCard } from './dial-card.js';
import { blockIds } from './domain.js';
import { wrongInDevice } from './device-references.js';
import type { Assumption, Hookup } from './hookup.js';
import { isId, kindOf, splitRef, theRef, type AnyId, type Id, type Ref } from './ids.js';
import { wrongJpeg } from './photo.js';
import type { Refusal } from './result.js';
import { all, partOf, thePart, type Part, type Rig } from './rig.js';
import { wantTarget, type Call, type Move, type Sound, type Want } from './sound.js';
import { refersTo } from './references.js';
import { wrongInProgram, wrongValue, duplicates } from './wrong-program.js';
import { theFirst } from '../known/the.js';
import { controlAt, memoryIn } from './box.js';
import { COMMON_TIME } from '../units/metre.js';
import type { Engagement, Song } from './show.js';

/** What can never be saved, for one part within the rig that would result. */
export const wrongWith = (rig: Rig, part: Part): readonly Refusal[] => {
  const missing = refersTo(part).filter((id) => !partOf(rig, id));
  if (missing.length) return missing.map((id) => lostReference(rig, part, id));
  switch (part.kind) {
    case 'device':
      return wrongInDevice(part).map(({ where, what, would }) => wrong(part.id, where, what, would));
    case 'program':
      return wrongInProgram(rig, part);
    case 'hookup':
      return [
        ...Object.entries(part.settings).flatMap(([r, v]) => wrongValue(rig, part.id, 'settings', theRef(r), v)),
        ...part.assumes.flatMap((a) => wrongValue(rig, part.id, 'assumes', a.control, a.value)),
        ...part.assumes.flatMap((a, i) => contradicts(part, a, i)),
      ];
    case 'cable':
      return wrongInCable(rig, part);
    case 'sound':
      return wrongInSound(rig, part);
    case 'move':
      return [
        ...wrongSwitches(rig, part),
        ...wrongWants(rig, part.id, 'on', part.on),
        ...wrongWants(rig, part.id, 'off', part.off),
      ];
    case 'dialCard':
      return wrongInDialCard(rig, part);
    case 'song':
      return wrongInSong(rig, part);
    case 'engagement':
      return wrongInEngagement(rig, part);
    case 'setList':
    case 'standingTest':
    case 'acceptance':
    case 'tick':
    case 'packCase':
    case 'packing':
    case 'about':
    case 'logEntry':
    case 'house':
      return [];
    case 'photo': {
      const found = wrongJpeg(part.jpeg);
      return found ? [wrong(part.id, 'jpeg', found.wrong, found.would)] : [];
    }
  }
};

/** A beat that the bar has, and a track that the box has. */
const wrongInSong = (rig: Rig, { id, metre = COMMON_TIME, cues }: Song): readonly Refusal[] =>
  cues.flatMap(({ name, at, call }) => [
    ...(typeof at === 'object' && at.beat >= metre.beats + 1
      ? [
          wrong(
            id,
            'cues',
            `"${name}" comes on beat ${at.beat}, and a bar has ${metre.beats}.`,
            'Put it on another beat.',
          ),
        ]
      : []),
    ...('track' in call && !controlAt(rig, call.track)
      ? [wrong(id, 'cues', `"${name}" plays a track that its box does not have.`, 'Choose one of its tracks.')]
      : []),
  ]);

/** Banks that the box has, the last not before the first. */
const wrongInEngagement = (rig: Rig, { id, banks = [] }: Engagement): readonly Refusal[] =>
  banks.flatMap(({ device, memory: name, from, to }) => {
    const memory = memoryIn(partOf(rig, device), name);
    const size = memory?.bank && memory.shows.bank?.size;
    const there = memory && size ? Math.ceil(memory.size / size) : 0;
    return from <= to && to < there
      ? []
      : [
          wrong(
            id,
            'banks',
            there ? `Banks ${from + 1} to ${to + 1} are not there: the box has ${there}.` : 'That box has no banks.',
            'Choose banks that the box has.',
          ),
        ];
  });

/** One card of a box for one case: of two nobody would know which counts. */
const wrongInDialCard = (rig: Rig, card: DialCard): readonly Refusal[] => {
  const isSame = (other: DialCard): boolean =>
    other.id !== card.id && other.device === card.device && equal(other.in ?? {}, card.in ?? {});
  return all(rig, 'dialCard').some(isSame)
    ? [
        wrong(
          card.id,
          'in',
          'There is another dial card of the same box for the same case.',
          'Put what both say on one of them.',
        ),
      ]
    : [];
};

/** Two things cannot be taken for granted of one control. */
const contradicts = (hookup: Hookup, { control, value }: Assumption, at: number): readonly Refusal[] => {
  const set = hookup.settings[control];
  const other =
    set !== undefined && String(set) !== String(value)
      ? set
      : hookup.assumes.slice(0, at).find((a) => a.control === control && String(a.value) !== String(value))?.value;
  return other === undefined
    ? []
    : [
        wrong(
          hookup.id,
          `assumes.${control}`,
          `${control.slice('device:'.length)} is taken for granted at ${value}, and ${other} is said of it as well.`,
          'Say one of the two.',
        ),
      ];
};

export const partName = (rig: Rig, id: AnyId): string => {
  const part = partOf(rig, id);
  if (!part) return id;
  return 'name' in part ? part.name : 'title' in part ? part.title : id;
};

const lostReference = (rig: Rig, part: Part, id: AnyId): Refusal => ({
  code: 'reference',
  part: part.id,
  wrong: `${kindWord(part.kind)} ${JSON.stringify(partName(rig, part.id))} needs ${id}, which is not in the rig.`,
  would: `Take the ${kindWord(part.kind)} away in the same change, or keep ${kindWord(kindOf(id))} ${id.slice(id.indexOf(':') + 1)}.`,
});

const KIND_WORDS: Partial<Record<string, string>> = {
  hookup: 'hook-up',
  engagement: 'act',
  setList: 'set list',
  logEntry: 'log entry',
  standingTest: 'standing test',
  dialCard: 'dial card',
  packCase: 'case',
};
export const kindWord = (kind: string): string => KIND_WORDS[kind] ?? kind;

export const wrong = (part: AnyId, where: string, what: string, would: string): Refusal => ({
  code: 'invariant',
  part,
  where,
  wrong: what,
  would,
});

const wrongInCable = (rig: Rig, part: Extract<Part, { kind: 'cable' }>): readonly Refusal[] => {
  const found: Refusal[] = [];
  part.ends.forEach((end, i) => {
    const { device, name } = splitRef(end);
    const box = thePart(rig, device);
    if (!box.jacks.some((j) => j.id === name)) {
      found.push(
        wrong(
          part.id,
          `ends[${i}]`,
          `${box.name} has no jack "${name}".`,
          `Use ${box.jacks.map((j) => j.id).join(', ') || 'another device'}.`,
        ),
      );
    }
  });
  if (part.ends[0] === part.ends[1])
    found.push(wrong(part.id, 'ends', 'Both ends are in the same jack.', 'Plug the other end into another jack.'));
  for (const other of rig.parts.cable.values()) {
    if (other.id === part.id || other.hookup !== part.hookup) continue;
    const taken = part.ends.find((end) => other.ends.includes(end));
    if (taken)
      found.push(
        wrong(
          part.id,
          'ends',
          `${taken.slice('device:'.length)} holds a plug already.`,
          'Unplug that cable first, or put a splitter in as a device.',
        ),
      );
  }
  return found;
};

const wrongWants = (rig: Rig, part: AnyId, where: string, wants: readonly Want[]): readonly Refusal[] => [
  ...duplicates(wants.map((w) => `${wantTarget(w)} ${JSON.stringify(w.in ?? {})}`)).map((twice) =>
    wrong(
      part,
      where,
      `${twice.slice(0, twice.indexOf(' '))} is wanted twice in the same case.`,
      'Keep one of the two.',
    ),
  ),
  ...wants.flatMap((w) => {
    const target = wantTarget(w);
    const { device, name } = splitRef(target);
    const box = thePart(rig, device);
    if ('stage' in w) {
      return box.chains.some((c) => blockIds(c.slots).includes(name))
        ? []
        : [
            wrong(
              part,
              where,
              `${box.name} has no stage "${name}".`,
              `It has ${box.chains.flatMap((c) => blockIds(c.slots)).join(', ') || 'none'}.`,
            ),
          ];
    }
    if ('pedal' in w) return wrongPedal(rig, part, where, w);
    const value = 'is' in w ? w.is : undefined;
    if (value !== undefined) return wrongValue(rig, part, where, target, value);
    return box.controls.some((c) => c.id === name)
      ? []
      : [
          wrong(
            part,
            where,
            `${box.name} has no control "${name}".`,
            `It has ${box.controls.map((c) => c.id).join(', ') || 'none'}.`,
          ),
        ];
  }),
];

const wrongSwitches = (rig: Rig, { id, at }: Move): readonly Refusal[] =>
  at.flatMap(({ device, switch: name }, i) => {
    const box = thePart(rig, device);
    const assignable = box.memories.flatMap((m) => (m.assignable ?? []).map((a) => a.switch));
    return assignable.includes(name)
      ? []
      : [
          wrong(
            id,
            `at[${i}]`,
            `${box.name} has no switch "${name}" that a move can be put on.`,
            `It has ${assignable.join(', ') || 'none'}.`,
          ),
        ];
  });

const wrongPedal = (rig: Rig, part: AnyId, where: string, w: Extract<Want, { pedal: Ref }>): readonly Refusal[] => {
  const { device, name } = splitRef(w.pedal);
  const box = thePart(rig, device);
  const ends = [w.heel, w.toe, ...(w.at === undefined ? [] : [w.at])].flatMap((value) =>
    wrongValue(rig, part, where, w.control, value),
  );
  if (ends.length) return ends;
  return box.jacks.some((j) => j.id === name && j.kind === 'expression')
    ? []
    : [
        wrong(
          part,
          where,
          `${box.name} has no expression input "${name}".`,
          `It has ${
            box.jacks
              .filter((j) => j.kind === 'expression')
              .map((j) => j.id)
              .join(', ') || 'none'
          }.`,
        ),
      ];
};

/** Whether one gets back to where one was by going from sound to sound. */
const leadsBack = (rig: Rig, from: Sound, next: (sound: Sound) => Id<'sound'> | undefined): boolean => {
  const seen = new Set<string>([from.id]);
  for (let at = next(from); at;) {
    if (seen.has(at)) return true;
    seen.add(at);
    const sound: Sound | undefined = partOf(rig, at);
    at = sound && next(sound);
  }
  return false;
};

const wrongInSound = (rig: Rig, part: Sound): readonly Refusal[] => [
  ...wrongWants(rig, part.id, 'wants', part.wants),
  ...wrongForebears(rig, part),
  ...wrongOrder(rig, part),
  ...wrongCalls(rig, part),
];

const wrongForebears = (rig: Rig, part: Sound): readonly Refusal[] => {
  const { id, name } = part;
  const itself = `"${name}" would be derived from itself.`;
  const asLoud = `"${name}" would be as loud as itself.`;
  return [
    ...(leadsBack(rig, part, (s) => s.parent) ? [wrong(id, 'parent', itself, 'Choose another parent, or none.')] : []),
    ...(leadsBack(rig, part, (s) => s.level?.than)
      ? [wrong(id, 'level', asLoud, 'Measure it against another sound, or none.')]
      : []),
  ];
};

const wrongOrder = (rig: Rig, part: Sound): readonly Refusal[] =>
  (part.order ?? []).flatMap((stage) => {
    const { device: id, name } = splitRef(stage);
    const device = thePart(rig, id);
    const isThere = device.chains.some((c) => c.slots.some((s) => s.id === name) || blockIds(c.slots).includes(name));
    const what = `${device.name} has no stage "${name}".`;
    return isThere ? [] : [wrong(part.id, 'order', what, 'Name stages that are there.')];
  });

/** Two calls of one slot under the same case. */
const isSameCall = (a: Call, b: Call): boolean =>
  a.device === b.device &&
  a.memory === b.memory &&
  a.slot === b.slot &&
  JSON.stringify(a.in ?? {}) === JSON.stringify(b.in ?? {});

const wrongCalls = (rig: Rig, part: Sound): readonly Refusal[] => {
  const { id, calls } = part;
  const twice = calls.filter((call, i) => calls.findIndex((c) => isSameCall(c, call)) < i);
  const what = `"${part.name}" calls the same slot twice.`;
  return [
    ...(twice.length ? [wrong(id, 'calls', what, 'Keep one of the two calls.')] : []),
    ...calls.flatMap((call, i) => [
      ...wrongSlot(rig, id, call, `calls[${i}]`),
      ...(calls.length === 1 ? othersInSlot(rig, id, call) : []),
    ]),
  ];
};

const wrongSlot = (rig: Rig, part: Sound['id'], call: Call, where: string): readonly Refusal[] => {
  const device = thePart(rig, call.device);
  const memory = memoryIn(device, call.memory);
  if (!memory) {
    const would = `Use ${device.memories.map((m) => m.id).join(', ') || 'another device'}.`;
    return [wrong(part, where, `${device.name} has no memory "${call.memory}".`, would)];
  }
  if (call.slot < memory.size) return [];
  const what = `Slot ${call.slot} is beyond the ${memory.size} of ${device.name}.`;
  return [wrong(part, `${where}.slot`, what, `Use 0 to ${memory.size - 1}.`)];
};

/** Other sounds that stand in the only slot of a sound. */
const othersInSlot = (rig: Rig, part: Sound['id'], call: Call): readonly Refusal[] =>
  [...rig.parts.sound.values()]
    .filter((other) => other.id !== part && other.calls.length === 1 && isSameCall(theFirst(other.calls), call))
    .map((other) => {
      const what = `That slot holds "${other.name}" already.`;
      return wrong(part, 'calls[0].slot', what, 'Choose a free slot, or swap the two in one change.');
    });

/** Bad ids are refused before anything else, whatever stands there. */
export const wrongId = (id: unknown): Refusal | undefined => {
  if (typeof id === 'string' && isId(id)) return undefined;
  const said = (typeof id === 'string' ? id : (JSON.stringify(id) ?? 'nothing')).slice(0, 80).toWellFormed();
  return {
    code: 'id',
    part: said,
    wrong: `"${said}" is not an id of a part.`,
    would: 'Ids read kind:name, with a–z, 0–9 and hyphens.',
  };
};
