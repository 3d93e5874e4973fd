import { cardOf, type Card } from '@yunta/core/derive/views/card';
import { rigOf, type Part } from '@yunta/core/rig/rig';

/** Rigs as they are seen from outside, one after the other; nothing of them is kept. */
export class Cards {
  card(parts: readonly Part[]): Card {
    return cardOf(rigOf(parts));
  }
}
