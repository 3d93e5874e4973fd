import type { Act, Message } from '../../rig/act.js';
import { hasBanks, type Device } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import { messageNumber } from '../../rig/midi-manners.js';
import { keptIn } from '../../kept/kept.js';
import { UNKNOWN } from './domains.js';
import { ALWAYS, guardedBy, MAYBE, type Guard } from './guards.js';
import { bankOf } from './memos.js';
import { listeners, movingChannel, type Listener } from '../actuate/listeners.js';
import type { SystemAct } from '../../prover/system.js';
import type { Effects } from './effects.js';
import { AT_ONCE, type How } from './how.js';
import { theFirst, theItem } from '../../known/the.js';

export type Sending = Extract<Act, { send: Message }>;

/**
 * What boxes do that hear a message: on the channel that they answer on, in the bank that stands selected
 * (docs/behaviour.md, 2).
 */
export class MidiAnswers {
  constructor(private readonly effects: Effects) {}

  private readonly sentSaid: Map<Device, Map<Sending, readonly SystemAct[]>>[] = [];
  private readonly heardBySaid: Map<Ref, Map<Device, Map<number, readonly SystemAct[]>>>[] = [];
  private readonly heardSaid: Map<Device, Map<Sending, readonly (readonly [Device, readonly SystemAct[]])[]>>[] = [];

  /** What a message brings about in all that hear it. */
  sent(device: Device, act: Sending, depth: number): readonly SystemAct[] {
    const said = keptIn((this.sentSaid[depth] ??= new Map()), device, () => new Map<Sending, readonly SystemAct[]>());
    return keptIn(said, act, () => this.heard(device, act, depth).flatMap(([, acts]) => acts));
  }

  /** What each box that hears a message of a list does then. */
  heard(device: Device, act: Sending, depth = 1): readonly (readonly [Device, readonly SystemAct[]])[] {
    const said = keptIn(
      (this.heardSaid[depth] ??= new Map()),
      device,
      () => new Map<Sending, readonly (readonly [Device, readonly SystemAct[]])[]>(),
    );
    return keptIn(said, act, () => {
      const boxes = new Set(listeners(this.effects.b, device.id, act.at, act.send).map((l) => l.device));
      return [...boxes].map((to) => [to, this.heardBy(to, device, act.send, act.at, depth)]);
    });
  }

  private heardBy(to: Device, device: Device, message: Message, at: string, depth: number): readonly SystemAct[] {
    const said = keptIn(
      keptIn(
        (this.heardBySaid[depth] ??= new Map()),
        ref(device.id, at),
        () => new Map<Device, Map<number, readonly SystemAct[]>>(),
      ),
      to,
      () => new Map<number, readonly SystemAct[]>(),
    );
    return keptIn(said, messageNumber(message), () => {
      const heard = listeners(this.effects.b, device.id, at, message).filter((l) => l.device.id === to.id);
      return 'bpm' in message && heard.length > 1
        ? this.loseBeat(theFirst(heard), ALWAYS, theItem(AT_ONCE, depth + 1))
        : heard.flatMap((l) => this.answer(l, message, ALWAYS, theItem(AT_ONCE, depth + 1)));
    });
  }

  /**
   * A clock that comes by two ways at once beats twice as often, or at odd moments: nobody knows what tempo a box
   * takes from it.
   */
  loseBeat({ device, answers }: Listener, under: readonly Guard[], how: How): readonly SystemAct[] {
    return answers.flatMap(({ acts }) =>
      acts.flatMap((act) =>
        'take' in act && this.effects.isVariable(ref(device.id, act.control))
          ? this.effects.set(device, ref(device.id, act.control), UNKNOWN, under, how)
          : [],
      ),
    );
  }

  /**
   * What a box does that hears a message: in the bank that stands selected there, on the channel that it answers on
   * now.
   */
  answer(
    { device, answers, channelBy }: Listener,
    message: Message,
    under: readonly Guard[],
    how: How,
  ): readonly SystemAct[] {
    return answers.flatMap((a) => {
      const hasOwn = 'midi' in a.by && a.by.midi === 'cc' && a.by.channel !== undefined;
      const tuned =
        channelBy && !hasOwn && !('bpm' in message)
          ? this.effects.guards(device.id, [{ control: channelBy.slice(device.id.length + 1), in: [message.channel] }])
          : ALWAYS;
      if (!tuned) return [];
      const when = tuned.length ? [...under, ...tuned] : under;
      if ('bpm' in message) return this.effects.setOff(device, a, when, message.bpm, how);
      if ('cc' in message) return this.effects.setOff(device, a, when, message.value, how);
      return this.numbersFor(device, message).flatMap(({ number, when: selected }) =>
        this.effects.setOff(device, a, selected.length ? [...when, ...selected] : when, number, how),
      );
    });
  }

  /** What the number of a program change means in each bank that may stand selected. */
  private numbersFor(
    device: Device,
    { pc, bank }: Extract<Message, { pc: number }>,
  ): readonly { readonly number: number; readonly when: readonly Guard[] }[] {
    if (!hasBanks(device)) return [{ number: pc, when: ALWAYS }];
    const { coarse, fine } = this.effects.domains.banks(device);
    if (bank !== undefined) return [{ number: pc + 128 * bank, when: ALWAYS }];
    const names = bankOf(device.id);
    const is = (variable: string, values: readonly number[], value: number): readonly Guard[] =>
      values.length > 1
        ? [{ variable, in: [String(value)], ...(this.effects.domains.isBankOpen(device) ? { open: [MAYBE] } : {}) }]
        : [];
    return coarse.flatMap((c) =>
      fine.map((f) => ({
        number: pc + 128 * ((c << 7) | f),
        when: [...is(names.coarse, coarse, c), ...is(names.fine, fine, f)],
      })),
    );
  }

  /**
   * A box that has more than one bank notes which one a control change selects, on the channel that it answers on now.
   */
  selectBank(
    device: Device,
    { cc: controller, value, channel }: Extract<Message, { cc: number }>,
    under: readonly Guard[],
  ): readonly SystemAct[] {
    if (!hasBanks(device) || (controller !== 0 && controller !== 32)) return [];
    const { coarse, fine } = this.effects.domains.banks(device);
    const names = bankOf(device.id);
    const [variable, values] = controller === 0 ? [names.coarse, coarse] : [names.fine, fine];
    const channelBy = movingChannel(device);
    const tuned = channelBy
      ? this.effects.guards(device.id, [{ control: channelBy.slice(device.id.length + 1), in: [channel] }])
      : ALWAYS;
    return values.length > 1 && tuned
      ? guardedBy([...under, ...tuned], [{ variable, set: String(value) }], () => [...values.map(String), MAYBE])
      : [];
  }
}
