import type { Act } from '../../rig/act.js';
import { relaysOf, type Actuator, type Device } from '../../rig/device.js';
import { ref } from '../../rig/ids.js';
import { keptIn } from '../../kept/kept.js';
import { thePart } from '../../rig/rig.js';
import type { Bearings } from '../actuate/bearings.js';
import type { Domains } from './domains.js';
import { listeners } from '../actuate/listeners.js';
import { shelfKey, type Shelf } from './shelf.js';
import { memoryIn } from '../../rig/box.js';

/**
 * Says which acts are plain: nobody who hears of them tells anybody else anything, each hears once, and what it does
 * then rests on nothing that the rest of the list moves.
 * What is plain may be said message by message; all else has to be followed on the wires, in the order of time.
 */
export class Plainness {
  private readonly known = new WeakMap<Device, Map<Act, boolean>>();
  private readonly lists = new WeakMap<readonly Act[], boolean>();
  private readonly talking: ReadonlySet<string>;

  constructor(
    private readonly b: Bearings,
    private readonly domains: Domains,
    shelf: Shelf,
  ) {
    this.talking = new Set(
      [...shelf.values()].filter((p) => p.acts.length > 0).map((p) => shelfKey(p.device, p.memory, 0)),
    );
  }

  /**
   * What a list does itself is done before the first of its messages arrives, wherever it stands: such a list is plain
   * only where that stands first, or is nobody else's affair.
   */
  isList(device: Device, acts: readonly Act[]): boolean {
    return keptIn(this.lists, acts, () => {
      const firstSent = acts.findIndex((act) => 'send' in act);
      const isInTurn = (act: Act, i: number): boolean =>
        firstSent < 0 || i < firstSent || 'send' in act || ('control' in act && !movesRelays(device, act.control));
      return acts.every((act, i) => !act.when?.length && this.is(device, act) && isInTurn(act, i));
    });
  }

  is(device: Device, act: Act): boolean {
    return keptIn(
      keptIn(this.known, device, () => new Map<Act, boolean>()),
      act,
      () => this.find(device, act),
    );
  }

  private find(device: Device, act: Act): boolean {
    if ('control' in act) return this.relaysArePlain(device, act.control);
    if ('load' in act) return this.loadsQuietly(device, act.load);
    if ('pulse' in act) return this.contactIsPlain(device, act.pulse);
    if (!('send' in act)) return true;
    if ('bpm' in act.send) return true;
    const selects =
      ('bank' in act.send && act.send.bank !== undefined) ||
      ('cc' in act.send && (act.send.cc === 0 || act.send.cc === 32));
    if (selects && this.somebodyMinds('bank' in act.send)) return false;
    const heard = listeners(this.b, device.id, act.at, act.send);
    if (new Set(heard.map((l) => l.device.id)).size < heard.length) return false;
    return heard.every(
      (l) =>
        !l.channelBy &&
        l.device.id !== device.id &&
        !this.isInBanks(l.device) &&
        l.answers.every((a) => this.answersQuietly(l.device, a)),
    );
  }

  /** More than one bank may stand selected at the box. */
  private isInBanks(device: Device): boolean {
    const { coarse, fine } = this.domains.banks(device);
    return coarse.length > 1 || fine.length > 1;
  }

  /**
   * Somebody takes notice of the control changes that select a bank: a box that has several, or one that takes them
   * for something else.
   */
  private somebodyMinds(asBank: boolean): boolean {
    return [...this.b.rig.parts.device.values()].some(
      (d) =>
        this.isInBanks(d) ||
        (asBank &&
          d.actuators.some((a) => 'midi' in a.by && a.by.midi === 'cc' && (a.by.number === 0 || a.by.number === 32))),
    );
  }

  private answersQuietly(device: Device, actuator: Actuator): boolean {
    if (actuator.when?.length && (actuator.acts.length > 1 || actuator.acts.some((act) => 'load' in act))) return false;
    return actuator.acts.every((act) =>
      'control' in act
        ? this.relaysArePlain(device, act.control)
        : 'load' in act && this.loadsQuietly(device, act.load),
    );
  }

  private loadsQuietly(device: Device, id: string): boolean {
    const memory = memoryIn(device, id);
    return (
      !memory ||
      (!this.talking.has(shelfKey(device.id, id, 0)) && memory.stores.every((s) => this.relaysArePlain(device, s)))
    );
  }

  private relaysArePlain(device: Device, control: string): boolean {
    return relaysOf(device).every((r) => !follows(r, control) || this.contactIsPlain(device, r.at));
  }

  private contactIsPlain(device: Device, at: string): boolean {
    return (this.b.control.contacts.get(ref(device.id, at)) ?? []).every((arrival) => {
      const receiver = thePart(this.b.rig, arrival.device);
      return receiver.actuators.every(
        (a) =>
          !('contact' in a.by) ||
          a.by.contact !== arrival.jack ||
          a.acts.every((act) => 'control' in act && receiver.id !== device.id && !relaysOf(receiver).length),
      );
    });
  }
}

type Relay = ReturnType<typeof relaysOf>[number];
const follows = ({ closedWhen }: Relay, control: string): boolean =>
  closedWhen?.some((f) => 'control' in f && f.control === control) ?? false;
const movesRelays = (device: Device, control: string): boolean => relaysOf(device).some((r) => follows(r, control));
