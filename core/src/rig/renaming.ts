import type { Act } from './act.js';
import type { Actuator, Arm, Chain, Control, Device, Jack, Slot, Tap } from './device.js';
import { controlIn } from './device.js';
import { ref, splitRef, theRef, type Ref } from './ids.js';
import type { Program, Sweep } from './program.js';
import type { HeardWish } from './hookup.js';
import type { Part } from './rig.js';
import type { Tick, Ticked } from './show.js';
import type { ControlWant, Want } from './sound.js';
import type { Fact, Value, When } from './value.js';

/** Something in a box that is called otherwise from now on. A stage may also be a loop or a split. */
export type Renaming =
  | { readonly of: 'jack' | 'stage'; readonly from: string; readonly to: string }
  /** A position of a control, such as a channel of an amp. */
  | { readonly of: 'value'; readonly control: string; readonly from: string; readonly to: string };

/** Says one renaming wherever a box or another part speaks of what is renamed. */
class Renamer {
  constructor(
    private readonly device: Device,
    private readonly change: Renaming,
  ) {}

  readonly stage = (name: string): string =>
    this.change.of === 'stage' && name === this.change.from ? this.change.to : name;

  /** A jack, or a pole of it. */
  readonly point = (at: string): string => {
    if (this.change.of !== 'jack') return at;
    const [jack, pole] = at.split(':');
    if (jack !== this.change.from) return at;
    return pole === undefined ? this.change.to : `${this.change.to}:${pole}`;
  };

  readonly value = (control: string, value: Value): Value => {
    const { change } = this;
    if (change.of === 'value') return control === change.control && value === change.from ? change.to : value;
    const domain = controlIn(this.device, control)?.domain;
    if (change.of !== 'stage' || typeof value !== 'string' || !domain || !('arrange' in domain)) return value;
    return value
      .split(/(\s+)/)
      .map((word) => this.stage(word))
      .join('');
  };

  readonly when = (when: When): When => when.map(this.fact);
  private readonly fact = (fact: Fact): Fact => {
    if ('jack' in fact) return { ...fact, jack: this.point(fact.jack) };
    return 'in' in fact ? { ...fact, in: fact.in.map((v) => this.value(fact.control, v)) } : fact;
  };
  private readonly maybe = <K extends string>(key: K, when: When | undefined): { readonly [key in K]?: When } =>
    (when ? { [key]: this.when(when) } : {}) as { readonly [key in K]?: When };

  private readonly tap = (tap: Tap): Tap => ({ ...tap, at: this.point(tap.at), ...this.maybe('when', tap.when) });
  private readonly polarity = (of: { readonly polarity?: { readonly invertedWhen: When } }) =>
    of.polarity ? { polarity: { invertedWhen: this.when(of.polarity.invertedWhen) } } : {};

  private readonly slot = (slot: Slot): Slot => {
    const id = this.stage(slot.id);
    switch (slot.is) {
      case 'block':
        return {
          ...slot,
          id,
          ...this.maybe('on', slot.on),
          ...this.maybe('wetOnly', slot.wetOnly),
          ...this.maybe('mutes', slot.mutes),
          ...this.polarity(slot),
          ...(typeof slot.tails === 'object' ? { tails: this.when(slot.tails) } : {}),
          ...(slot.key === undefined ? {} : { key: this.point(slot.key) }),
        };
      case 'insert':
        return {
          ...slot,
          id,
          send: slot.send.map(this.tap),
          return: slot.return.map(this.tap),
          ...this.maybe('on', slot.on),
          ...(typeof slot.direct === 'object' ? { direct: this.when(slot.direct) } : {}),
          ...(typeof slot.off === 'object' ? { off: { sendOnlyWhen: this.when(slot.off.sendOnlyWhen) } } : {}),
        };
      case 'fork':
        return { ...slot, id, arms: slot.arms.map(this.arm) };
    }
  };
  private readonly arm = (arm: Arm): Arm => ({
    ...arm,
    slots: arm.slots.map(this.slot),
    ...this.maybe('when', arm.when),
    ...this.polarity(arm),
  });
  private readonly chain = (chain: Chain): Chain => ({
    ...chain,
    from: chain.from.map(this.tap),
    slots: chain.slots.map(this.slot),
    to: chain.to.map(this.tap),
    ...this.maybe('when', chain.when),
  });
  private readonly jack = (jack: Jack): Jack => ({
    ...jack,
    id: this.point(jack.id),
    ...this.maybe('closedWhen', jack.closedWhen),
    ...this.maybe('ringClosedWhen', jack.ringClosedWhen),
    ...(typeof jack.shield === 'object' ? { shield: { liftedWhen: this.when(jack.shield.liftedWhen) } } : {}),
  });
  private readonly control = (control: Control): Control => {
    const { id, domain, powerUp } = control;
    return {
      ...control,
      domain:
        'values' in domain
          ? { values: domain.values.map((v) => this.value(id, v)) }
          : 'arrange' in domain
            ? { ...domain, arrange: domain.arrange.map(this.stage) }
            : domain,
      powerUp: typeof powerUp === 'object' ? { at: this.value(id, powerUp.at) } : powerUp,
    };
  };
  readonly act = (act: Act): Act => {
    const guarded = { ...act, ...this.maybe('when', act.when) };
    if ('set' in guarded) return { ...guarded, set: this.value(guarded.control, guarded.set) };
    if ('toggle' in guarded) {
      const [one, other] = guarded.toggle;
      return { ...guarded, toggle: [this.value(guarded.control, one), this.value(guarded.control, other)] };
    }
    if ('step' in guarded) return { ...guarded, step: guarded.step.map((v) => this.value(guarded.control, v)) };
    if ('map' in guarded)
      return { ...guarded, map: guarded.map.map(([a, b, v]) => [a, b, this.value(guarded.control, v)] as const) };
    if ('load' in guarded && typeof guarded.slot === 'object') {
      const { slot } = guarded;
      return { ...guarded, slot: { ...slot, banks: slot.banks.map((v) => this.value(slot.bank, v)) } };
    }
    if ('send' in guarded) return { ...guarded, at: this.point(guarded.at) };
    return 'pulse' in guarded ? { ...guarded, pulse: this.point(guarded.pulse) } : guarded;
  };
  private readonly actuator = (actuator: Actuator): Actuator => {
    const { by } = actuator;
    return {
      ...actuator,
      by:
        'contact' in by
          ? { ...by, contact: this.point(by.contact) }
          : 'expression' in by
            ? { expression: this.point(by.expression) }
            : by,
      ...this.maybe('when', actuator.when),
      acts: actuator.acts.map(this.act),
    };
  };

  /** A figure is told by what it is of, and its field. */
  private figure(of: string): string {
    const [name = '', ...field] = of.split('.');
    const at = /^(jack|source) (.+)$/.exec(name);
    const [owner = '', ...arm] = name.split('/');
    const said = at ? `${at[1]} ${this.point(at[2] ?? '')}` : [this.stage(owner), ...arm].join('/');
    return [said, ...field].join('.');
  }

  box(): Device {
    const { device } = this;
    return {
      ...device,
      jacks: device.jacks.map(this.jack),
      chains: device.chains.map(this.chain),
      controls: device.controls.map(this.control),
      actuators: device.actuators.map(this.actuator),
      ...(device.ends ? { ends: device.ends.map((e) => ({ ...e, at: this.point(e.at) })) } : {}),
      ...(device.figures.sources
        ? {
            figures: {
              ...device.figures,
              sources: device.figures.sources.map((s) => ({ ...s, of: this.figure(s.of) })),
            },
          }
        : {}),
    };
  }

  private mine(r: string): boolean {
    return splitRef(r).device === this.device.id;
  }
  private readonly pointRef = (r: Ref): Ref => (this.mine(r) ? ref(this.device.id, this.point(splitRef(r).name)) : r);
  private readonly stageRef = (r: Ref): Ref => (this.mine(r) ? ref(this.device.id, this.stage(splitRef(r).name)) : r);
  private readonly valueAt = (r: Ref, value: Value): Value =>
    this.mine(r) ? this.value(splitRef(r).name, value) : value;
  private readonly heard = (wish: HeardWish): HeardWish => ({
    ...wish,
    from: wish.from === 'the instrument in hand' ? wish.from : this.pointRef(wish.from),
    at: this.pointRef(wish.at),
  });
  private readonly want = (want: Want): Want =>
    'stage' in want ? { ...want, stage: this.stageRef(want.stage) } : this.controlWant(want);
  private readonly controlWant = (want: ControlWant): ControlWant => {
    if ('is' in want) return { ...want, is: this.valueAt(want.control, want.is) };
    return 'pedal' in want ? { ...want, pedal: this.pointRef(want.pedal) } : want;
  };
  private readonly sweep = (sweep: Sweep): Sweep =>
    'control' in sweep
      ? { ...sweep, jack: this.point(sweep.jack) }
      : { ...sweep, jack: this.point(sweep.jack), at: this.point(sweep.at) };
  private program(program: Program): Program {
    if (program.device !== this.device.id) return program;
    const { contents, sweeps } = program;
    return {
      ...program,
      contents:
        contents === 'unplanned'
          ? contents
          : Object.fromEntries(Object.entries(contents).map(([c, v]) => [c, this.value(c, v)])),
      acts: program.acts.map(this.act),
      assigns: program.assigns.map((a) => ({ ...a, on: a.on.map(this.act), off: a.off.map(this.act) })),
      ...(sweeps ? { sweeps: sweeps.map(this.sweep) } : {}),
    };
  }

  /** Another part of the rig; itself where nothing in it changes. */
  part(part: Part): Part {
    switch (part.kind) {
      case 'program':
        return this.program(part);
      case 'cable':
        return { ...part, ends: [this.pointRef(part.ends[0]), this.pointRef(part.ends[1])] };
      case 'hookup':
        return {
          ...part,
          settings: Object.fromEntries(Object.entries(part.settings).map(([r, v]) => [r, this.valueAt(theRef(r), v)])),
          hears: part.hears.map(this.heard),
          assumes: part.assumes.map((a) => ({ ...a, value: this.valueAt(a.control, a.value) })),
        };
      case 'sound':
        return {
          ...part,
          wants: part.wants.map(this.want),
          ...(part.hears ? { hears: part.hears.map(this.heard) } : {}),
          ...(part.order ? { order: part.order.map(this.stageRef) } : {}),
        };
      case 'move':
        return { ...part, on: part.on.map(this.want), off: part.off.map(this.want) };
      case 'standingTest':
        return {
          ...part,
          expects: part.expects.map((e) => ({ ...e, value: String(this.valueAt(theRef(e.control), e.value)) })),
        };
      case 'tick':
        return part.device === this.device.id ? this.tick(part) : part;
      default:
        return part;
    }
  }

  /** A ticked line stands for the same position, called otherwise: it stays ticked. */
  private tick(tick: Tick): Tick {
    const lines = Object.entries(tick.lines).map(([text, how]): readonly [string, Ticked] => {
      const [control, ...value] = (how.is ?? '').split('=');
      if (!control || value.length === 0 || !controlIn(this.device, control)) return [text, how];
      return [text, { ...how, is: `${control}=${this.value(control, value.join('='))}` }];
    });
    return { ...tick, lines: Object.fromEntries(lines) };
  }
}

/** The box with a jack, a stage or a position called otherwise, wherever it speaks of it. */
export const renamedIn = (device: Device, change: Renaming): Device => new Renamer(device, change).box();

/** Another part with what it says of the box brought to the new name. */
export const renamedPart = (part: Part, device: Device, change: Renaming): Part =>
  new Renamer(device, change).part(part);
