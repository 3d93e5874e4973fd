import { contradiction, type OrderProblem, type OrderWant } from '../../plan/order/order.js';
import { orderOf } from '../../recall/intend/wants.js';
import { isArrangement } from '../../rig/box.js';
import { splitRef, type Id } from '../../rig/ids.js';
import { soundsInOrder, thePart } from '../../rig/rig.js';
import { signalOrder } from '../../signal/graph/order.js';
import type { Derived } from '../steps/deriver.js';

/** The orders that sounds ask for, as the question whether one order of the boxes serves all of them. */
export interface BoxesInOrder {
  readonly problem: OrderProblem;
  readonly boxes: readonly { readonly device: Id<'device'>; readonly code: string; readonly name: string }[];
  /** Who wants something, by their numbers in the problem. */
  readonly sounds: readonly { readonly id: Id<'sound'>; readonly name: string }[];
  /** Sounds that lead ways beside each other, by name: only a switcher that reorders can give these. */
  readonly beside: readonly string[];
  /** The smallest set of wants that contradict each other; none where one order serves all. */
  readonly contradiction: readonly OrderWant[];
}

/** Boxes in the order in which a sound wants their stages, each once. */
const wantedOrder = (d: Derived, sound: Id<'sound'>): readonly Id<'device'>[] => {
  const wired = orderOf(d.rig, thePart(d.rig, sound)).map((stage) => splitRef(stage).device);
  return [...new Set(wired)].filter((id) => d.anatomy.wiring.wired.has(id));
};

/** Undefined where no sound asks for an order of its own. */
export const boxesInOrder = (d: Derived): BoxesInOrder | undefined => {
  const { rig } = d;
  const orders = soundsInOrder(rig).flatMap((sound) => {
    const order = wantedOrder(d, sound.id);
    return order.length > 1 ? [{ sound, order }] : [];
  });
  if (orders.length === 0) return undefined;
  const places = signalOrder(d.anatomy);
  const ids = [...new Set(orders.flatMap((o) => o.order))].sort(
    (a, b) => (places.get(a) ?? Infinity) - (places.get(b) ?? Infinity),
  );
  const wants = orders.flatMap(({ order }, by) =>
    order.flatMap((before, i) =>
      order.slice(i + 1).map((after): OrderWant => ({ by, before: ids.indexOf(before), after: ids.indexOf(after) })),
    ),
  );
  const problem = { boxes: ids.length, now: ids.map((_, i) => i), wants };
  return {
    problem,
    boxes: ids.map((id) => {
      const { code, name } = thePart(rig, id);
      return { device: id, code, name };
    }),
    sounds: orders.map(({ sound }) => ({ id: sound.id, name: sound.name })),
    beside: soundsInOrder(rig).flatMap((s) =>
      s.wants.some((w) => 'control' in w && isArrangement(rig, w.control)) ? [s.name] : [],
    ),
    contradiction: contradiction(problem),
  };
};
