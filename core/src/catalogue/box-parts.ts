import { keysOf } from '../known/keys.js';
import { theItem, theFirst } from '../known/the.js';
import type { Actuator, Control, Device, Domain, Jack } from '../rig/device.js';
import type { Id } from '../rig/ids.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import { ASSUMED, audioIn, audioOut, chain } from './parts.js';

/** A box with one way through, to be made into whatever it is. */
export const blankBox = (id: Id<'device'>): Device => ({
  kind: 'device',
  id,
  code: 'BOX',
  name: 'New box',
  zone: 'floor',
  jacks: [audioIn('in'), audioOut('out')],
  chains: [chain('path', 'in', [], 'out')],
  controls: [],
  actuators: [],
  memories: [],
  figures: ASSUMED,
});

/** What a jack's poles do, as a person says it. */
export const JACK_WAYS = {
  takes: { tip: 'in' },
  gives: { tip: 'out' },
  'sends on tip, returns on ring': { tip: 'out', ring: 'in' },
  'gives both sides': { tip: 'out', ring: 'out' },
  'takes both sides': { tip: 'in', ring: 'in' },
  'takes on tip, gives on ring': { tip: 'in', ring: 'out' },
} as const satisfies Record<string, Jack['poles']>;
export type JackWay = keyof typeof JACK_WAYS;
export const wayOf = ({ poles }: Jack): JackWay =>
  keysOf(JACK_WAYS).find((w) => JSON.stringify(JACK_WAYS[w]) === JSON.stringify(poles)) ?? 'takes';

const takesIn = (jack: Jack): boolean => jack.poles.tip === 'in' || jack.poles.ring === 'in';
const refusal = (where: string, wrong: string, would: string): Refusal => ({ code: 'box', where, wrong, would });

/**
 * @example rangeText({ values: ['off', 'on'] }) // 'off, on'   rangeText({ min: 0, max: 100, unit: '%' }) // '0..100
 * %'
 */
export const rangeText = (domain: Domain): string => {
  if ('values' in domain) return domain.values.map((v) => (typeof v === 'number' ? `#${v}` : v)).join(', ');
  return 'min' in domain
    ? `${domain.min}..${domain.max}${domain.unit ? ` ${domain.unit}` : ''}${domain.step ? ` by ${domain.step}` : ''}`
    : `order of ${domain.arrange.join(', ')}${domain.branches ? ` in up to ${domain.branches} branches` : ''}`;
};

/** The range that a text says: values between commas, or the least and the most with a unit. */
export const readRange = (text: string): Result<Domain, readonly Refusal[]> => {
  const order = /^order of (.+?)(?: in up to (\d+) branches)?$/.exec(text.trim());
  if (order)
    return ok({
      arrange: theItem(order, 1)
        .split(',')
        .map((s) => s.trim())
        .filter(Boolean),
      branches: Number(order[2] ?? 0),
    });
  const range =
    /^(-?\d+(?:\.\d+)?)\s*\.\.\s*(-?\d+(?:\.\d+)?)(?:\s+([^\d\s]\S{0,9}))??(?:\s+by\s+(\d+(?:\.\d+)?))?$/.exec(
      text.trim(),
    );
  if (range) {
    const [min, max] = [Number(range[1]), Number(range[2])];
    if (min >= max)
      return refuse([refusal('range', `${min} is not below ${max}.`, 'Say the least first, such as 0..100 %.')]);
    return ok({ min, max, unit: range[3] ?? '', ...(range[4] ? { step: Number(range[4]) } : {}) });
  }
  const values = text
    .split(',')
    .map((s) => s.trim())
    .filter(Boolean)
    .map((v) => (/^#-?\d+(\.\d+)?$/.test(v) ? Number(v.slice(1)) : v));
  if (values.length < 2 || new Set(values.map(String)).size < values.length)
    return refuse([
      refusal(
        'range',
        `"${text.slice(0, 40)}" is no range.`,
        'Say two values or more with commas between them, such as off, on; or 0..100 %.',
      ),
    ]);
  return ok({ values });
};

/** Acts on this control and on nothing else, so that it belongs to it. */
const onlyOn =
  (control: string) =>
  (a: Actuator): boolean =>
    a.acts.length === 1 && a.acts.every((act) => 'control' in act && act.control === control);

const turns = ({ acts }: Actuator): boolean => acts.some((a) => 'toggle' in a || 'step' in a);
/** A pedal that moves a control over less than all of its range says how far. */
const sweepText = (a: Actuator, domain: Domain | undefined): string => {
  const [act] = a.acts;
  const scale = act && 'scale' in act ? act.scale : undefined;
  const isWhole = domain && 'min' in domain && scale?.[0] === domain.min && scale[1] === domain.max;
  return !scale || isWhole ? '' : ` ${scale[0]}..${scale[1]}`;
};
const wordOf = (a: Actuator, domain: Domain | undefined): string | undefined => {
  if ('foot' in a.by && a.by.gesture === 'press' && turns(a)) return 'foot';
  if ('midi' in a.by && a.by.midi === 'cc') return turns(a) ? `cc ${a.by.number} turns` : `cc ${a.by.number}`;
  if ('contact' in a.by)
    return 'level' in a.by ? `contact ${a.by.contact}` : turns(a) ? `pulse ${a.by.contact}` : undefined;
  if ('expression' in a.by) return `pedal ${a.by.expression}${sweepText(a, domain)}`;
  return undefined;
};

/**
 * What of a box can set one of its controls, as words: a foot switch, controllers that set it or turn it over,
 * contacts, a pedal.
 * @example setByText(chorus, 'on') // 'foot, cc 102'
 */
export const setByText = (device: Pick<Device, 'actuators' | 'controls'>, control: string): string =>
  [
    ...new Set(device.actuators.filter(onlyOn(control)).flatMap((a) => wordOf(a, domainIn(device, control)) ?? [])),
  ].join(', ');

const domainIn = ({ controls }: Pick<Device, 'controls'>, id: string): Domain | undefined =>
  controls.find((c) => c.id === id)?.domain;

const made = (control: Control, word: string, id: string, jacks: readonly Jack[]): readonly Actuator[] | undefined => {
  const { domain } = control;
  const values = 'values' in domain ? domain.values : undefined;
  const turn =
    values &&
    (values.length === 2
      ? { control: control.id, toggle: [theFirst(values), theItem(values, 1)] as const }
      : { control: control.id, step: values });
  if (word === 'foot') return turn && [{ id, by: { foot: id, gesture: 'press' }, acts: [turn] }];
  const swept = /^pedal (\S+) (-?\d+(?:\.\d+)?)\.\.(-?\d+(?:\.\d+)?)$/.exec(word);
  const wired = /^(contact|pulse|pedal) (\S+)$/.exec(swept ? `pedal ${swept[1]}` : word);
  if (wired) {
    const [how, jack] = [theItem(wired, 1), theItem(wired, 2)];
    if (!jacks.some((j) => j.id === jack && takesIn(j) && j.kind === (how === 'pedal' ? 'expression' : 'contact')))
      return undefined;
    if (how === 'pedal') {
      if (!('min' in domain)) return undefined;
      const [heel, toe] = swept ? [Number(swept[2]), Number(swept[3])] : [domain.min, domain.max];
      const isWithin = [heel, toe].every((v) => v >= domain.min && v <= domain.max);
      return isWithin
        ? [{ id, by: { expression: jack }, acts: [{ control: control.id, scale: [heel, toe] }] }]
        : undefined;
    }
    if (how === 'pulse') return turn && [{ id, by: { contact: jack, edge: 'closing' }, acts: [turn] }];
    return (
      values && [
        {
          id: `${id} open`,
          by: { contact: jack, level: 'open' },
          acts: [{ control: control.id, set: theFirst(values) }],
        },
        {
          id: `${id} closed`,
          by: { contact: jack, level: 'closed' },
          acts: [{ control: control.id, set: theItem(values, 1) }],
        },
      ]
    );
  }
  const cc = /^cc (\d{1,3})( turns)?$/.exec(word);
  if (!cc || Number(cc[1]) > 127) return undefined;
  const by = { midi: 'cc' as const, number: Number(cc[1]) };
  if (cc[2]) return turn && [{ id, by, acts: [turn] }];
  if ('min' in domain) return [{ id, by, acts: [{ control: control.id, scale: [domain.min, domain.max] }] }];
  if (!values) return undefined;
  const size = 128 / values.length;
  return [
    {
      id,
      by,
      acts: [
        {
          control: control.id,
          map: values.map((v, i) => [Math.ceil(i * size), Math.ceil((i + 1) * size) - 1, v] as const),
        },
      ],
    },
  ];
};

const jackNames = (jacks: readonly Jack[]): string => {
  const names = jacks.filter((j) => (j.kind === 'contact' || j.kind === 'expression') && takesIn(j)).map((j) => j.id);
  return names.length ? ` (${names.join(', ')})` : '';
};

/** The box with what can set a control said anew. What stays keeps what it was, such as thresholds. */
export const withSetBy = <D extends Pick<Device, 'actuators' | 'controls' | 'jacks'>>(
  device: D,
  control: string,
  text: string,
): Result<D, readonly Refusal[]> => {
  const known = device.controls.find((c) => c.id === control);
  if (!known) return refuse([refusal(control, `There is no control "${control}".`, 'Name one of its controls.')]);
  const words = [
    ...new Set(
      text
        .split(',')
        .map((w) => w.trim().toLowerCase().replaceAll(/\s+/g, ' '))
        .filter(Boolean),
    ),
  ];
  const mine = device.actuators.filter(onlyOn(control));
  const stays = mine.filter((a) => {
    const w = wordOf(a, known.domain);
    return w === undefined || words.includes(w);
  });
  const taken = new Set([...device.actuators.filter((a) => !mine.includes(a)), ...stays].map((a) => a.id));
  const added: Actuator[] = [];
  for (const word of words) {
    if (stays.some((a) => wordOf(a, known.domain) === word)) continue;
    let id = word === 'foot' ? `${control} switch` : control;
    for (let n = 2; taken.has(id) || taken.has(`${id} open`); n += 1) id = `${control} ${n}`;
    const actuators = made(known, word, id, device.jacks);
    if (!actuators)
      return refuse([
        refusal(
          control,
          `"${word.slice(0, 30)}" cannot set ${known.name ?? control}.`,
          `Say foot, cc 20, cc 20 turns, contact, pulse or pedal and the name of such a jack${jackNames(device.jacks)}; a foot turns over what has values, a pedal moves an amount, also within bounds: pedal exp 10..60.`,
        ),
      ]);
    for (const a of actuators) taken.add(a.id);
    added.push(...actuators);
  }
  return ok({
    ...device,
    actuators: [...device.actuators.filter((a) => !mine.includes(a) || stays.includes(a)), ...added],
  });
};

/** The box with 128 programs that hold its controls of sound, called by program change. It needs a MIDI input. */
export const withPrograms = (device: Device): Device => {
  const held = device.controls.filter((c) => c.use === 'sound' && c.id !== 'program').map((c) => c.id);
  return {
    ...device,
    controls: [
      ...device.controls
        .filter((c) => c.id !== 'program')
        .map((c): Control => (held.includes(c.id) ? { ...c, powerUp: 'loaded' } : c)),
      { id: 'program', domain: { min: 0, max: 127, unit: '' }, powerUp: 'left', use: 'sound' },
    ],
    actuators: [
      ...device.actuators.filter((a) => a.id !== 'program change'),
      { id: 'program change', by: { midi: 'pc' }, acts: [{ load: 'programs', slot: 'value' }] },
    ],
    memories: [
      {
        id: 'programs',
        control: 'program',
        stores: held,
        size: 128,
        shows: { first: 1 },
        gapMs: 20,
        mutesMs: 0,
        again: 'reloads',
      },
    ],
    midi: device.midi ?? { channel: 1, messages: 'lost' },
  };
};

const LETTERS = 'ABCDEFGH';
const USUAL_SWITCHES = 4;

/**
 * The box with switches of its own that call its programs, bank by bank as it shows them: sounds can then be called
 * there, and it stores what they need.
 */
export const withOwnSwitches = (device: Device): Device => {
  const [memory, ...others] = device.memories;
  if (!memory || memory.by !== undefined) return device;
  const { size: inBank, letters } = memory.shows.bank ?? {
    size: Math.min(USUAL_SWITCHES, memory.size),
    letters: LETTERS,
  };
  const switches = Array.from({ length: inBank }, (_, i) => (letters ?? LETTERS)[i] ?? String(i + 1));
  const banks = Array.from({ length: Math.ceil(memory.size / inBank) }, (_, i) => i + 1);
  const floor: readonly Actuator[] = [
    ...switches.map((name, plus): Actuator => ({
      id: name,
      by: { foot: name, gesture: 'press' },
      acts: [{ load: memory.id, slot: { bank: 'bank', banks, plus, size: inBank } }],
    })),
    { id: 'up', by: { foot: 'up', gesture: 'press' }, acts: [{ control: 'bank', step: banks }] },
    { id: 'down', by: { foot: 'down', gesture: 'press' }, acts: [{ control: 'bank', step: [...banks].reverse() }] },
  ];
  const taken = new Set(floor.map((a) => a.id));
  return {
    ...device,
    controls: [
      ...device.controls.filter((c) => c.id !== 'bank'),
      { id: 'bank', domain: { values: banks }, powerUp: { at: 1 }, use: 'play' },
    ],
    actuators: [...device.actuators.filter((a) => !taken.has(a.id)), ...floor],
    memories: [{ ...memory, by: 'slot', switches, bank: { control: 'bank', up: 'up', down: 'down' } }, ...others],
  };
};

/** A box that something in it lets answer to MIDI answers on a channel: the first, until somebody says another. */
export const withChannel = (device: Device): Device =>
  device.midi || !device.actuators.some((a) => 'midi' in a.by)
    ? device
    : { ...device, midi: { channel: 1, messages: 'lost' } };
