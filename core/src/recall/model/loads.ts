import type { BankPlace } from '../../rig/act.js';
import { type Device, type Memory } from '../../rig/device.js';
import { ref, type Ref } from '../../rig/ids.js';
import type { Program } from '../../rig/program.js';
import { keptIn } from '../../kept/kept.js';
import { isOther, UNKNOWN } from './domains.js';
import { ALWAYS, came, noteWhether, thenOf, type Guard } from './guards.js';
import { allOf, type Loading } from './loading.js';
import { OnTheWire } from './on-the-wire.js';
import { around, holdsOf, programOn } from './shelf.js';
import { askedIn } from './asked.js';
import type { SystemAct } from '../../prover/system.js';
import type { Effects } from './effects.js';
import { type Evening, type How, AT_ONCE, DEEPEST, deeper } from './how.js';
import { AS_SAID, burst } from './burst.js';
import { theFirst, theEntry, surely } from '../../known/the.js';

/** What a load does before and after its list, with the conditions under which it takes place. */
interface Frame extends Omit<Loading, 'list'> {
  readonly when: readonly Guard[];
}

const AS_USUAL: Evening = {};

/** A program as it may be loaded, by what is loaded around it. */
export interface LoadCase {
  readonly when: readonly Guard[];
  readonly program: Program | undefined;
  /** The program around it; undefined where none is, or one that nobody names. */
  readonly of: number | undefined;
  /** It is not known which program is around it, so nothing is known of what it holds. */
  readonly isOpen?: true;
}

const NOTHING: Loading = { first: [], list: [], last: [] };

/**
 * What follows when a box loads a program: what it holds, its latches, and its list in the order of time
 * (docs/behaviour.md, 1 and 5).
 */
export class Loads {
  constructor(private readonly effects: Effects) {}

  private readonly framesSaid = new Map<Ref, Map<number, Frame>>();
  private readonly anotherSaid = new Map<Ref, Map<string, readonly Guard[]>>();

  /** The slot at this place of the bank that shows. */
  loadInBank(
    device: Device,
    memory: Memory,
    { bank, banks, plus, size }: BankPlace,
    when: readonly Guard[],
    how: How,
  ): readonly SystemAct[] {
    const shown = ref(device.id, bank);
    const domain = this.effects.domains.of.get(shown);
    return banks.flatMap((value, i) => {
      const number = i * size + plus;
      if (number >= memory.size) return [];
      if (!domain)
        return String(this.effects.domains.constant(shown)) === String(value)
          ? this.load(device, memory, number, when, how)
          : [];
      const open = domain.filter((v) => v === UNKNOWN);
      return this.load(
        device,
        memory,
        number,
        [
          ...when,
          { variable: shown, in: [this.effects.domains.named(shown, value)], ...(open.length ? { open } : {}) },
        ],
        how,
      );
    });
  }

  /** Loading sets what the memory stores and only that, clears latches, then carries out the program's acts. */
  load(
    device: Device,
    memory: Memory,
    number: number,
    under: readonly Guard[],
    how = theFirst(AT_ONCE),
  ): readonly SystemAct[] {
    return allOf(this.loading(device, memory, number, under, how));
  }

  /** Loading a scene straight after the program that it belongs to: no other can be loaded around it. */
  loadWithin(device: Device, memory: Memory, number: number, of: number): readonly SystemAct[] {
    return allOf(this.loading(device, memory, number, ALWAYS, theFirst(AT_ONCE), AS_USUAL, of));
  }

  /** Loading a number of which nobody wrote anything down, as if it held these values. */
  loadAsIf(
    device: Device,
    memory: Memory,
    number: number,
    holds: Readonly<Record<string, string>>,
  ): readonly SystemAct[] {
    const program: Program = {
      kind: 'program',
      id: 'program:unwritten',
      device: device.id,
      memory: memory.id,
      number,
      name: '',
      contents: holds,
      acts: [],
      assigns: [],
    };
    const { first, last } = this.frame(
      device,
      memory,
      number,
      [{ when: ALWAYS, program, of: undefined }],
      ALWAYS,
      theFirst(AT_ONCE),
    );
    return [...first, ...last];
  }

  /** The same with what each place of the list brings about. */
  loading(
    device: Device,
    memory: Memory,
    number: number,
    under: readonly Guard[],
    how = theFirst(AT_ONCE),
    evening: Evening = AS_USUAL,
    of?: number,
  ): Loading {
    if (how.depth > DEEPEST) return NOTHING;
    const cases = this.casesOf(device, memory, number, of);
    if (how.wires) return { ...NOTHING, first: this.loadingInTime(device, memory, number, cases, under, how) };
    if (
      evening === AS_USUAL &&
      cases.some(({ program }) => program && !this.effects.plain.isList(device, program.acts))
    ) {
      const wires = new OnTheWire(this.effects);
      return {
        ...NOTHING,
        first: wires.after(() => this.loadingInTime(device, memory, number, cases, under, { depth: 0, wires })),
      };
    }
    const { within = AS_SAID } = evening;
    if (under.some((g) => memory.stores.some((s) => g.variable === ref(device.id, s)))) {
      const then = thenOf(`${device.id}.${memory.id}`);
      const { first, list, last } = this.loading(device, memory, number, came(then, under), how, evening);
      return { first: [...within(noteWhether(then, under)), ...first], list, last };
    }
    const called = () => this.frame(device, memory, number, cases, under, how);
    const { when, first, last } =
      under.length || how.depth || of !== undefined
        ? called()
        : keptIn(
            keptIn(this.framesSaid, ref(device.id, memory.id), () => new Map<number, Frame>()),
            number,
            called,
          );
    const [only, ...others] = cases;
    const list =
      others.length === 0
        ? only?.program
          ? burst(this.effects, device, only.program.acts, when, deeper(how), evening)
          : []
        : cases.flatMap((c) =>
            c.program ? burst(this.effects, device, c.program.acts, [...when, ...c.when], deeper(how), evening) : [],
          );
    return { first: within(first), list, last: within(last) };
  }

  /** What a number may stand for: a scene belongs to the program that is loaded around it. */
  private casesOf(device: Device, memory: Memory, number: number, known?: number): readonly LoadCase[] {
    const outer = around(device, memory);
    if (!outer || known !== undefined)
      return [{ when: ALWAYS, program: programOn(this.effects.shelf, device, memory, number, known), of: known }];
    const loaded = ref(device.id, outer.control);
    const domain = this.effects.domains.of.get(loaded);
    const numbered = (name: string) => (name === UNKNOWN || isOther(name) ? undefined : Number(name));
    const within = (name: string): Omit<LoadCase, 'when'> => ({
      program: programOn(this.effects.shelf, device, memory, number, numbered(name)),
      of: numbered(name),
    });
    if (!domain) return [{ when: ALWAYS, ...within(String(this.effects.domains.constant(loaded))) }];
    return domain.map((name): LoadCase => {
      const found = within(name);
      const isOpen = name === UNKNOWN || (isOther(name) && !found.program);
      return { ...found, when: [{ variable: loaded, in: [name] }], ...(isOpen ? { program: undefined, isOpen } : {}) };
    });
  }

  /**
   * What loading a number leaves in the controls that the memory stores; what nobody wrote down is not known
   * afterwards.
   */
  private contents(
    device: Device,
    memory: Memory,
    number: number,
    { program, of, isOpen }: Omit<LoadCase, 'when'>,
    when: readonly Guard[],
    how: How,
  ): readonly SystemAct[] {
    const written = program && program.contents !== 'unplanned' ? program.contents : undefined;
    const said: SystemAct[] = [];
    const say = (acts: readonly SystemAct[]): void => {
      for (const act of acts) said.push(act);
    };
    for (const name of memory.stores) {
      const control = ref(device.id, name);
      if (!this.effects.isVariable(control)) continue;
      const value = written?.[name];
      if (value !== undefined) say(this.effects.set(device, control, value, when, how));
      else if (isOpen || !askedIn(this.effects.b, device).has(name))
        say(this.effects.set(device, control, UNKNOWN, when, how));
      else {
        const holds = holdsOf({ device: device.id, memory: memory.id, number, of, control: name });
        for (const v of this.effects.knownValues(control))
          say(this.effects.set(device, control, v, [...when, { variable: holds, in: [v] }], how));
      }
    }
    return said;
  }

  private latches(
    device: Device,
    memory: Memory,
    program: Program | undefined,
    when: readonly Guard[],
  ): readonly SystemAct[] {
    return (memory.assignable ?? []).flatMap(({ switch: name, latch }) => {
      const after = program?.assigns.find((a) => a.switch === name)?.afterLoad ?? 'off';
      return after === 'kept' || !this.effects.isVariable(ref(device.id, latch))
        ? []
        : this.effects.one({ variable: ref(device.id, latch), set: after }, when);
    });
  }

  private loadingInTime(
    device: Device,
    memory: Memory,
    number: number,
    cases: readonly LoadCase[],
    under: readonly Guard[],
    how: How,
  ): readonly SystemAct[] {
    const wires = surely(how.wires);
    const loaded = ref(device.id, memory.control);
    const when = this.loads(memory, loaded, this.effects.domains.named(loaded, number), under);
    const then = when.length ? wires.name(thenOf(`${device.id}.${memory.id}`)) : undefined;
    const guards = then === undefined ? ALWAYS : came(then, when);
    const said: SystemAct[] = then === undefined ? [] : [...noteWhether(then, when)];
    said.push(...wires.loads(device, memory, guards));
    const forks = cases.map((c) => {
      if (cases.length === 1) return { ...c, guards };
      const which = wires.name(thenOf(`${device.id}.${memory.id}.case`));
      said.push(...noteWhether(which, [...guards, ...c.when]));
      return { ...c, guards: came(which, [...guards, ...c.when]) };
    });
    if (this.effects.isVariable(loaded))
      said.push(...this.effects.one({ variable: loaded, set: this.effects.domains.named(loaded, number) }, guards));
    for (const fork of forks)
      said.push(
        ...this.contents(device, memory, number, fork, fork.guards, how),
        ...this.latches(device, memory, fork.program, fork.guards),
      );
    for (const fork of forks)
      if (fork.program) said.push(...this.effects.acts(device, fork.program.acts, fork.guards, undefined, deeper(how)));
    return said;
  }

  private frame(
    device: Device,
    memory: Memory,
    number: number,
    cases: readonly LoadCase[],
    under: readonly Guard[],
    how: How,
  ): Frame {
    const loaded = ref(device.id, memory.control);
    const shown = this.effects.domains.named(loaded, number);
    const when = this.loads(memory, loaded, shown, under);
    const first = cases.flatMap((c) => {
      const guards = c.when.length ? [...when, ...c.when] : when;
      return [
        ...this.contents(device, memory, number, c, guards, how),
        ...this.latches(device, memory, c.program, guards),
      ];
    });
    return {
      when,
      first: [...(this.effects.noteLoad?.(device, memory, when) ?? []), ...first],
      last: this.effects.isVariable(loaded) ? this.effects.one({ variable: loaded, set: shown }, when) : [],
    };
  }

  /** Conditions under which a box that is told to load a program does load it. */
  private loads(memory: Memory, loaded: Ref, shown: string, under: readonly Guard[]): readonly Guard[] {
    if (memory.again !== 'nothing' || !this.effects.isVariable(loaded)) return under;
    const another = this.another(loaded, shown);
    return under.length ? [...under, ...another] : another;
  }

  /** That another program than this one is loaded, or that it is not known which. */
  private another(loaded: Ref, shown: string): readonly Guard[] {
    return keptIn(
      keptIn(this.anotherSaid, loaded, () => new Map<string, readonly Guard[]>()),
      shown,
      () => {
        const domain = theEntry(this.effects.domains.of, loaded);
        return [
          {
            variable: loaded,
            in: domain.filter((v) => v !== UNKNOWN && (v !== shown || isOther(v))),
            ...(domain.includes(UNKNOWN) ? { open: [UNKNOWN] } : {}),
          },
        ];
      },
    );
  }

  /** The same for somebody who calls it only if it is not loaded yet. */
  loadUnlessLoaded(device: Device, memory: Memory, number: number): readonly SystemAct[] {
    const loaded = ref(device.id, memory.control);
    const { domains } = this.effects;
    if (this.effects.isVariable(loaded))
      return this.load(device, memory, number, this.another(loaded, domains.named(loaded, number)));
    return Number(domains.constant(loaded)) === number ? [] : this.load(device, memory, number, ALWAYS);
  }
}
