import type { Bearings } from '../../recall/actuate/bearings.js';
import type { Compiled } from '../../recall/intend/compiled.js';
import { slotText } from '../../recall/words/words.js';
import type { Id } from '../../rig/ids.js';
import { partOf, thePart } from '../../rig/rig.js';
import type { Check, CheckInputs } from '../check.js';
import { boxName, soundsDo } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { once } from '../../kept/kept.js';
import { memoryIn } from '../../rig/box.js';

type TooMuch = 'messages' | 'switches' | 'assignments' | 'letters';

const WORDS: Readonly<Record<Exclude<TooMuch, 'letters'>, string>> = {
  messages: 'messages',
  switches: 'assigned switches',
  assignments: 'assignments of its switches',
};

export const capacity: Check = {
  code: 'midi.capacity',
  title: 'More than the controller can store',
  severities: ['broken', 'note'],
  source: "compile: messages and assigned switches of a slot are counted against the controller's own limits",
  *find({ rig, compilation }: CheckInputs) {
    const over = [...compilation.sounds.values()].flatMap((compiled) => tooMuch(compiled, compilation.bearings));
    for (const group of grouped(over, (o) => `${o.device} ${o.what}`).values()) {
      const { device, what, most } = group[0];
      const sounds = group.map((o) => o.sound);
      const worst = group.reduce((a, b) => (b.count > a.count ? b : a));
      const slot = slotText(rig, thePart(rig, worst.sound));
      const evidence: (Id<'device'> | Id<'sound'>)[] = [device, ...sounds];
      if (what === 'letters') {
        yield {
          severity: 'note' as const,
          evidence,
          about: what,
          why: `${boxName(rig, device)} shows ${most} letters; ${soundsDo(rig, sounds, 'is', 'are')} longer and will be cut short on its display. A shorter name for it is said under “This sound”.`,
        };
        continue;
      }
      yield {
        severity: 'broken' as const,
        evidence,
        about: what,
        why: `${boxName(rig, device)} stores ${most} ${WORDS[what]} in a slot; ${soundsDo(rig, sounds, 'needs', 'need')} more, at worst ${worst.count} in slot ${slot}, ${worst.count - most} too many.`,
        remedies: () => [
          {
            id: 'programs',
            label:
              what === 'messages'
                ? 'Save values in the programs of the boxes, so that one program change brings them all'
                : 'Let a move do the work of two, or put one on another controller',
            promise: 'clears' as const,
            by: 'hand' as const,
          },
        ],
      };
    }
  },
};

/** What the slots of a sound hold beyond what their controllers can store. */
const tooMuch = once(({ sound, stored }: Compiled, { rig }: Bearings) =>
  stored.flatMap(({ program }) => {
    const limits = memoryIn(partOf(rig, program.device), program.memory)?.limits;
    const found = (what: TooMuch, count: number, most: number | undefined) =>
      most !== undefined && count > most ? [{ sound, device: program.device, what, count, most }] : [];
    return [
      ...found('messages', program.acts.filter((a) => 'send' in a).length, limits?.messages),
      ...found('switches', program.assigns.length, limits?.assigns),
      ...found(
        'assignments',
        program.assigns.reduce((n, a) => n + Math.max(a.on.length, a.off.length), 0),
        limits?.assignments,
      ),
      ...found('letters', [...program.name].length, limits?.nameLength),
    ];
  }),
);
