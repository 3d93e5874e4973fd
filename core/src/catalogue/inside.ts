import { isOneOf } from '../known/keys.js';
import { theItem } from '../known/the.js';
import type { Arm, Block, Chain, Fork, Insert, Leg, Slot, Stage, Tap } from '../rig/device.js';
import { STAGES } from '../rig/device.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import type { Fact, When } from '../rig/value.js';

/*
 * The inside of a box as lines that can be read and typed, one for each chain:
 *
 *   path: in > overdrive [on=on] > loop1:<send / return> [loop1=on] > { clean [channel=clean]: preamp | lead
 * [channel=lead]: } > out
 *
 * `+` joins taps, `@left` names a leg, square brackets say when, round ones how: (spread), (broken), (breaks=send),
 * (direct), (low).
 * What the line does not say, such as gains and noise, stays as it is in the chain, block or insert of the same name.
 */

const WORD = /^[A-Za-z0-9#_.~-]+$/;
const word = (text: string): string => (WORD.test(text) ? text : JSON.stringify(text));
const point = (at: string): string => word(at.replace(':', '~'));

const factText = (fact: Fact): string => {
  if ('jack' in fact) return `${point(fact.jack)} ${fact.plugged ? 'plugged' : 'unplugged'}`;
  return 'in' in fact
    ? `${word(fact.control)}=${fact.in.map((v) => (typeof v === 'number' ? `#${v}` : word(v))).join('/')}`
    : `${word(fact.control)}=${fact.from}..${fact.to}`;
};
const whenText = (when: When | undefined): string => (when ? ` [${whenWords(when)}]` : '');
/** Conditions as words, without brackets. @example whenWords([{ control: 'on', in: ['on'] }]) // 'on=on' */
export const whenWords = (when: When): string => when.map(factText).join(', ');
const tapText = (tap: Tap): string => `${point(tap.at)}${tap.leg ? `@${tap.leg}` : ''}${whenText(tap.when)}`;
const tapsText = (taps: readonly Tap[]): string => taps.map(tapText).join(' + ');
const stageWord = (stage: Stage): string => stage.replaceAll(' ', '-');
const how = (words: readonly (string | false | undefined)[]): string => {
  const said = words.filter(Boolean);
  return said.length ? ` (${said.join(', ')})` : '';
};

const slotText = (slot: Slot): string => {
  switch (slot.is) {
    case 'block':
      return `${slot.id === stageWord(slot.stage) ? '' : `${word(slot.id)}:`}${stageWord(slot.stage)}${whenText(slot.on)}${how([slot.width !== undefined && slot.width])}`;
    case 'insert':
      return `${word(slot.id)}:<${tapsText(slot.send)} / ${tapsText(slot.return)}>${whenText(slot.on)}${how([slot.unpatched === 'broken' && 'broken', slot.breaks && `breaks=${slot.breaks}`, slot.direct === true && 'direct'])}`;
    case 'fork':
      return `${word(slot.id)}:{ ${slot.arms.map(armText).join(' | ')} }`;
  }
};
const armText = (arm: Arm): string =>
  `${word(arm.id)}${arm.leg ? `@${arm.leg}` : ''}${whenText(arm.when)}${how([arm.band])}:${arm.slots.length ? ` ${arm.slots.map(slotText).join(' > ')}` : ''}`;

/** @example insideText(chains) // 'path: in > overdrive [on=on] > out' */
export const insideText = (chains: readonly Chain[]): string =>
  chains
    .map(
      (c) =>
        `${word(c.id)}${whenText(c.when)}: ${[tapsText(c.from), ...c.slots.map(slotText), tapsText(c.to)].join(' > ')}`,
    )
    .join('\n');

type Token = { readonly is: 'sign' | 'word' | 'when' | 'how'; readonly text: string; readonly at: number };

class Unread extends Error {
  constructor(
    readonly at: number,
    readonly wrong: string,
    readonly would: string,
  ) {
    super(wrong);
  }
}

const tokens = (line: string): readonly Token[] => {
  const found: Token[] = [];
  const pattern = /\s*(?:("(?:[^"\\]|\\.)*")|\[([^\]]*)\]|\(([^)]*)\)|([><+|{}:@/])|([A-Za-z0-9#_.~-]+))/y;
  while (pattern.lastIndex < line.trimEnd().length) {
    const at = pattern.lastIndex;
    const m = pattern.exec(line);
    if (!m)
      throw new Unread(
        at,
        `"${line.slice(at).trim().slice(0, 12)}" cannot be read.`,
        'Write jacks and stages with > between them; say when in [ ], how in ( ).',
      );
    if (m[1] !== undefined) found.push({ is: 'word', text: unquoted(m[1], at), at });
    else if (m[2] !== undefined) found.push({ is: 'when', text: m[2], at });
    else if (m[3] !== undefined) found.push({ is: 'how', text: m[3], at });
    else if (m[4] !== undefined) found.push({ is: 'sign', text: m[4], at });
    else found.push({ is: 'word', text: theItem(m, 5), at });
  }
  return found;
};

const parts = (text: string): readonly string[] => {
  const found: string[] = [];
  let rest = '';
  let quoted = false;
  for (const c of text) {
    if (c === '"' && !rest.endsWith('\\')) quoted = !quoted;
    if (c === ',' && !quoted) {
      found.push(rest.trim());
      rest = '';
    } else rest += c;
  }
  return [...found, rest.trim()].filter(Boolean);
};
/** What stands between quotation marks; within them a backslash begins what JSON knows. */
const unquoted = (text: string, at: number): string => {
  try {
    return JSON.parse(text);
  } catch {
    throw new Unread(
      at,
      `${text.slice(0, 20)} cannot be read.`,
      'Close the quotation mark, and write \\\\ for a backslash.',
    );
  }
};
const unword = (text: string, at: number): string => (text.startsWith('"') ? unquoted(text, at) : text);

const readFact = (text: string, at: number): Fact => {
  const plug = /^(\S+|".*") (plugged|unplugged)$/.exec(text);
  if (plug) return { jack: unword(theItem(plug, 1), at).replace('~', ':'), plugged: plug[2] === 'plugged' };
  const is = /^([^="]+|"(?:[^"\\]|\\.)*")=(.+)$/.exec(text);
  if (!is)
    throw new Unread(
      at,
      `"${text.slice(0, 30)}" says nothing that can be asked.`,
      'Say [control=value], [control=1..5], [jack plugged] or [jack unplugged].',
    );
  const control = unword(theItem(is, 1).trim(), at);
  const range = /^(-?[\d.]+)\.\.(-?[\d.]+)$/.exec(theItem(is, 2));
  if (range) return { control, from: Number(range[1]), to: Number(range[2]) };
  const values = theItem(is, 2).match(/"(?:[^"\\]|\\.)*"|[^/]+/g) ?? [];
  return { control, in: values.map((v) => (/^#-?[\d.]+$/.test(v) ? Number(v.slice(1)) : unword(v.trim(), at))) };
};

/** The conditions that words say; undefined where they say none. */
export const readWhen = (text: string): When | undefined => {
  try {
    const when = parts(text).map((p) => readFact(p, 0));
    return when.length ? when : undefined;
  } catch (e) {
    if (e instanceof Unread) return undefined;
    throw e;
  }
};

/** Reads one chain from its tokens; `old` is what it was. */
class Reader {
  private at = 0;

  constructor(
    private readonly list: readonly Token[],
    private readonly length: number,
    private readonly slots: ReadonlyMap<string, Slot>,
  ) {}

  private peek(is: Token['is'], text?: string): boolean {
    const t = this.list[this.at];
    return t?.is === is && (text === undefined || t.text === text);
  }
  private sign(text: string): boolean {
    if (!this.peek('sign', text)) return false;
    this.at += 1;
    return true;
  }
  private need(text: string, would: string): void {
    if (!this.sign(text)) throw new Unread(this.place(), `"${text}" is missing here.`, would);
  }
  private place(): number {
    return this.list[this.at]?.at ?? this.length;
  }
  private word(what: string, would: string): string {
    const t = this.list[this.at];
    if (t?.is !== 'word') throw new Unread(this.place(), `${what} is missing here.`, would);
    this.at += 1;
    return t.text;
  }
  private when(): When | undefined {
    const t = this.list[this.at];
    if (t?.is !== 'when') return undefined;
    this.at += 1;
    return parts(t.text).map((p) => readFact(p, t.at));
  }
  private how<T extends string>(allowed: readonly T[]): ReadonlySet<T> {
    const t = this.list[this.at];
    if (t?.is !== 'how') return new Set();
    this.at += 1;
    const said = parts(t.text);
    const odd = said.find((w) => !isOneOf(allowed, w));
    if (odd !== undefined)
      throw new Unread(t.at, `"${odd.slice(0, 30)}" is not known here.`, `Use ${allowed.join(', ')}.`);
    return new Set(allowed.filter((w) => said.includes(w)));
  }
  private leg(): Leg | undefined {
    if (!this.sign('@')) return undefined;
    const leg = this.word('A side', 'Write @left or @right.');
    if (leg !== 'left' && leg !== 'right')
      throw new Unread(this.place(), `"${leg.slice(0, 20)}" is no side.`, 'Write @left or @right.');
    return leg;
  }

  private tap(olds: readonly Tap[], n: number): Tap {
    const at = this.word('A jack', 'Name a jack of this box, or an inner bus such as #bus.').replace('~', ':');
    const leg = this.leg();
    const when = this.when();
    const old = olds[n]?.at === at ? olds[n] : olds.find((t) => t.at === at);
    return {
      at,
      ...(leg ? { leg } : {}),
      ...(when ? { when } : {}),
      ...(old?.gain !== undefined ? { gain: old.gain } : {}),
    };
  }
  private taps(olds: readonly Tap[]): readonly Tap[] {
    const found = [this.tap(olds, 0)];
    while (this.sign('+')) found.push(this.tap(olds, found.length));
    return found;
  }

  private block(id: string, stage: string): Block {
    const known = STAGES.find((s) => stageWord(s) === stage);
    if (!known)
      throw new Unread(
        theItem(this.list, this.at - 1).at,
        `"${stage.slice(0, 30)}" is no stage.`,
        `Stages are ${STAGES.map(stageWord).join(', ')}.`,
      );
    const on = this.when();
    const [width] = this.how(['mono', 'each', 'spread', 'sum']);
    const old = this.slots.get(id);
    const { on: _on, width: _width, ...rest } = old?.is === 'block' ? old : { is: 'block' as const };
    return {
      ...rest,
      is: 'block',
      id,
      stage: known,
      ...(on ? { on } : {}),
      ...(width ? { width } : {}),
    };
  }
  private insert(id: string): Insert {
    const old = this.slots.get(id);
    const was = old?.is === 'insert' ? old : undefined;
    const send = this.taps(was?.send ?? []);
    this.need('/', 'An insert reads name:<send / return>.');
    const back = this.taps(was?.return ?? []);
    this.need('>', 'An insert ends with ">".');
    const on = this.when();
    const said = this.how(['broken', 'direct', 'breaks=send', 'breaks=return', 'breaks=either']);
    const breaks = (['send', 'return', 'either'] as const).find((w) => said.has(`breaks=${w}`));
    const { on: _on, breaks: _breaks, direct, ...rest } = was ?? { is: 'insert' as const, direct: undefined };
    return {
      ...rest,
      is: 'insert',
      id,
      send,
      return: back,
      unpatched: said.has('broken') ? 'broken' : 'through',
      ...(on ? { on } : {}),
      ...(breaks ? { breaks } : {}),
      ...(said.has('direct') ? { direct: true } : direct !== undefined && direct !== true ? { direct } : {}),
    };
  }
  private fork(id: string): Fork {
    const old = this.slots.get(id);
    const was = old?.is === 'fork' ? old : undefined;
    const arms: Arm[] = [];
    do {
      const name = this.word('The name of an arm', 'A fork reads { one: stages | other: stages }.');
      const leg = this.leg();
      const when = this.when();
      const [band] = this.how(['low', 'high']);
      this.need(':', 'After the name of an arm comes ":", then its stages.');
      const slots = this.peek('sign', '|') || this.peek('sign', '}') ? [] : this.series();
      const { leg: _leg, when: _when, band: _band, ...rest } = was?.arms.find((a) => a.id === name) ?? {};
      arms.push({
        ...rest,
        id: name,
        slots,
        ...(leg ? { leg } : {}),
        ...(when ? { when } : {}),
        ...(band ? { band } : {}),
      });
    } while (this.sign('|'));
    this.need('}', 'A fork ends with "}".');
    return { ...(was ?? {}), is: 'fork', id, arms };
  }
  private slot(): Slot {
    const first = this.word(
      'A stage',
      `Name a stage (${STAGES.slice(0, 6).map(stageWord).join(', ')} …), name:<send / return>, or name:{ arm: … | arm: … }.`,
    );
    if (!this.sign(':')) return this.block(first, first);
    if (this.sign('<')) return this.insert(first);
    if (this.sign('{')) return this.fork(first);
    return this.block(first, this.word('A stage', 'After "name:" comes a stage, <send / return> or { arms }.'));
  }
  private series(): readonly Slot[] {
    const found = [this.slot()];
    while (this.sign('>')) found.push(this.slot());
    return found;
  }

  chain(olds: readonly Chain[]): Chain {
    const id = this.word('The name of the chain', 'A line reads name: jack > stages > jack.');
    const when = this.when();
    this.need(':', 'A line reads name: jack > stages > jack.');
    const old = olds.find((c) => c.id === id);
    const from = this.taps(old?.from ?? []);
    this.need('>', 'A chain goes from a jack > over stages > to a jack.');
    const slots: Slot[] = [];
    const last = this.lastArrow();
    while (this.at < last) {
      slots.push(this.slot());
      this.need('>', 'Between stages stands ">".');
    }
    const to = this.taps(old?.to ?? []);
    if (this.at < this.list.length)
      throw new Unread(
        this.place(),
        `"${theItem(this.list, this.at).text.slice(0, 12)}" is one too many here.`,
        'A chain ends with its jack, or with several joined by +.',
      );
    const { when: _when, ...rest } = old ?? {};
    return { ...rest, id, from, slots, to, ...(when ? { when } : {}) };
  }
  /** Where the last ">" outside inserts and forks stands: what follows are the jacks at the end. */
  private lastArrow(): number {
    const open: string[] = [];
    let last = -1;
    for (let i = this.at; i < this.list.length; i += 1) {
      const { is, text } = theItem(this.list, i);
      if (is !== 'sign') continue;
      if (text === '<' || text === '{') open.push(text);
      else if (text === '}' || (text === '>' && open.at(-1) === '<')) open.pop();
      else if (text === '>' && open.length === 0) last = i;
    }
    return last;
  }
}

const slotsByName = (chains: readonly Chain[]): ReadonlyMap<string, Slot> => {
  const found = new Map<string, Slot>();
  const note = (slots: readonly Slot[]): void =>
    slots.forEach((s) => {
      found.set(s.id, s);
      if (s.is === 'fork') s.arms.forEach((a) => note(a.slots));
    });
  chains.forEach((c) => note(c.slots));
  return found;
};

/**
 * The chains that lines of text say; what they do not say is taken from `olds`. Every line that cannot be read is
 * named.
 */
export const readInside = (text: string, olds: readonly Chain[]): Result<readonly Chain[], readonly Refusal[]> => {
  const wrong: Refusal[] = [];
  const slots = slotsByName(olds);
  const chains = text.split('\n').flatMap((line, i): Chain[] => {
    if (!line.trim()) return [];
    try {
      return [new Reader(tokens(line), line.length, slots).chain(olds)];
    } catch (e) {
      if (!(e instanceof Unread)) throw e;
      wrong.push({ code: 'inside', where: `line ${i + 1}, sign ${e.at + 1}`, wrong: e.wrong, would: e.would });
      return [];
    }
  });
  return wrong.length ? refuse(wrong) : ok(chains);
};
