import { apply } from '../../change/apply.js';
import type { Edit } from '../../change/edit.js';
import { addDevice } from '../../edits/devices.js';
import { moveBox, placesFor, type BoxPlace } from '../../edits/place.js';
import { giveSlots } from '../../edits/sounds.js';
import type { Id } from '../../rig/ids.js';
import type { Rig } from '../../rig/rig.js';
import { splitRef } from '../../rig/ids.js';
import { signalOrder } from '../../signal/graph/order.js';
import { deriveOnce, type Derived } from '../steps/deriver.js';

const SWITCHER: Id<'device'> = 'device:tried-switcher';

/** Edits made one after the other, each on what the one before it left; undefined when one cannot be made. */
class Trying {
  private n = 0;

  constructor(
    public rig: Rig,
    private readonly hookup: Id<'hookup'>,
  ) {}

  make(edit: Edit): boolean {
    const applied = apply(this.rig, edit);
    if (applied.ok) this.rig = applied.value.rig;
    return applied.ok;
  }

  move(box: Id<'device'>, is: (place: BoxPlace) => boolean): boolean {
    const place = placesFor(this.rig, this.hookup, box).find(is);
    return (
      place !== undefined && this.make(moveBox(this.rig, this.hookup, box, place, () => `cable:tried-${(this.n += 1)}`))
    );
  }
}

/**
 * How many sounds come back by themselves with a loop switcher that takes these boxes into its loops, in the order of
 * the signal; undefined where it cannot be wired so.
 */
export const provedWith = (
  { rig, hookup, anatomy }: Derived,
  loops: number,
  boxes: readonly Id<'device'>[],
): number | undefined => {
  const order = signalOrder(anatomy);
  const inOrder = [...boxes].sort((a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0));
  const [first] = inOrder;
  const trying = new Trying(rig, hookup.id);
  const isBeforeFirst = (p: BoxPlace): boolean => p.is === 'between' && splitRef(p.to).device === first;
  if (!first || !trying.make(addDevice(rig, `switcher-${loops}`, SWITCHER))) return undefined;
  if (!trying.move(SWITCHER, isBeforeFirst)) return undefined;
  for (const [i, box] of inOrder.entries())
    if (!trying.move(box, (p) => p.is === 'loop' && p.host === SWITCHER && p.insert === `loop${i + 1}`))
      return undefined;
  if (!trying.make(giveSlots(trying.rig))) return undefined;
  const later = deriveOnce(trying.rig, hookup.id);
  return later && [...later.answers.values()].filter((a) => a.is === 'proved').length;
};
