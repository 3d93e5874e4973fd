import { keysOf, recordOf, theOneOf } from '../known/keys.js';
import { surely, theItem } from '../known/the.js';
import { SUPPLY_NOISES, SUPPLY_PLUGS } from '../rig/device.js';
import type { Arm, Block, Chain, Device, End, Figures, Fork, Gain, Insert, Jack, Pickup, Slot } from '../rig/device.js';
import { withSource } from '../rig/figure-source.js';
import { ok, refuse, type Refusal, type Result } from '../rig/result.js';
import type { When } from '../rig/value.js';
import { readWhen, whenWords } from './inside.js';

/**
 * A figure of a box, or a way in which it behaves, that neither its lines nor its tables say: one row of the list of
 * figures.
 */
export interface Figure {
  /** Tells it from every other figure of the box. */
  readonly key: string;
  /** What it is a figure of, as the person knows it. */
  readonly where: string;
  readonly what: string;
  /** As it stands; empty where nobody wrote it down. */
  readonly text: string;
  /** How it is written. @example '9 V, 100 mA, negative' */
  readonly like: string;
  /** What reckons with it; undefined where nothing does yet. */
  readonly usedFor: string | undefined;
  /** The words between which one chooses, where there are no others. */
  readonly choices: readonly string[] | undefined;
  /** It says when something holds, so that it can be chosen as conditions. */
  readonly isWhen: boolean;
  /** By what its source is noted; absent for a way of behaving, which nobody measures. */
  readonly source?: string;
  /** A table of the box holds it too, so that the list of further figures leaves it out. */
  readonly inTable: boolean;
}

/** How one field is said, and read again. `undefined` where a text says nothing of the kind. */
interface Said<T> {
  readonly like: string;
  readonly isFigure?: true;
  readonly choices?: readonly string[];
  readonly isWhen?: true;
  readonly text: (value: T) => string;
  readonly read: (text: string) => T | undefined;
}

interface Field<O> extends Pick<Figure, 'what' | 'usedFor' | 'like' | 'choices' | 'isWhen' | 'inTable'> {
  /** As the rig calls it. */
  readonly key: string;
  /** Something that one measures, or reads off a plate. */
  readonly isFigure: boolean;
  readonly text: (of: O) => string;
  /**
   * The whole with the field as a text says it, taken away where that is empty; undefined where the text cannot be
   * read.
   */
  readonly write: (of: O, text: string) => O | undefined;
}

const NUMBER = String.raw`([-−+]?\d+(?:[.,]\d+)?)`;
const numberIn = (text: string): number => Number(text.replace('−', '-').replace(',', '.'));
const amount = (unit: string, like: string, least = -Infinity): Said<number> => ({
  like: `${like} ${unit}`.trim(),
  isFigure: true,
  text: (value) => `${value} ${unit}`.trim(),
  read: (text) => {
    const found = new RegExp(`^${NUMBER}\\s*(?:${unit})?$`, 'i').exec(text);
    return found && numberIn(theItem(found, 1)) >= least ? numberIn(theItem(found, 1)) : undefined;
  },
});
const oneOf = <T extends string>(...words: readonly T[]): Said<T> => ({
  like: words.join(' or '),
  choices: words,
  text: (value) => value,
  read: (text) => words.find((w) => w === text.toLowerCase()),
});
const yesNo: Said<boolean> = {
  like: 'yes or no',
  choices: ['yes', 'no'],
  text: (value) => (value ? 'yes' : 'no'),
  read: (text) => (/^(yes|no)$/i.test(text) ? /^yes$/i.test(text) : undefined),
};
const onlyYes: Said<true> = {
  like: 'yes',
  choices: ['yes'],
  text: () => 'yes',
  read: (text) => (/^yes$/i.test(text) ? true : undefined),
};
const conditions: Said<When> = { like: 'mix=100..100', isWhen: true, text: whenWords, read: readWhen };
const inverted: Said<{ readonly invertedWhen: When }> = {
  like: 'inverted phase=on',
  text: ({ invertedWhen }) => `inverted${invertedWhen.length ? ` ${whenWords(invertedWhen)}` : ''}`,
  read: (text) => {
    const found = /^inverted(?:\s+(.+))?$/i.exec(text);
    const when = found && (found[1] ? readWhen(found[1]) : []);
    return when ? { invertedWhen: when } : undefined;
  },
};
const gains: Said<Gain> = {
  like: '6 dB or a knob: level -40..0',
  isFigure: true,
  text: (gain) =>
    typeof gain === 'number'
      ? `${gain} dB`
      : `${gain.control}${gain.scale ? ` ${gain.scale[0]}..${gain.scale[1]}` : ''}`,
  read: (text) => {
    const fixed = amount('dB', '').read(text);
    if (fixed !== undefined) return fixed;
    const knob = new RegExp(`^(\\S+)(?:\\s+${NUMBER}\\.\\.${NUMBER})?$`).exec(text);
    return knob
      ? {
          control: theItem(knob, 1),
          ...(knob[2] !== undefined ? { scale: [numberIn(knob[2]), numberIn(theItem(knob, 3))] as const } : {}),
        }
      : undefined;
  },
};
/** @example gainText(-6) // '-6 dB' */
export const gainText = (gain: Gain): string => gains.text(gain);
/** A gain as a text says it; no text, no gain. */
export const readGain = (text: string): Result<Gain | undefined, readonly Refusal[]> => {
  const gain = gains.read(text.trim());
  return text.trim() && gain === undefined
    ? refuse([
        {
          code: 'gain',
          where: 'Trim',
          wrong: `"${text.trim().slice(0, 30)}" cannot be read.`,
          would: `Write ${gains.like}.`,
        },
      ])
    : ok(gain);
};
const yesOrWhen: Said<boolean | When> = {
  like: 'yes or no or tails=on',
  text: (value) => (typeof value === 'boolean' ? yesNo.text(value) : whenWords(value)),
  read: (text) => yesNo.read(text) ?? readWhen(text),
};
const shields: Said<NonNullable<Jack['shield']>> = {
  like: 'chassis or isolated or lifted lift=on',
  text: (value) => (typeof value === 'string' ? value : `lifted ${whenWords(value.liftedWhen)}`),
  read: (text) => {
    const lifted = /^lifted\s+(.+)$/i.exec(text);
    const when = lifted ? readWhen(theItem(lifted, 1)) : undefined;
    return when ? { liftedWhen: when } : oneOf('chassis', 'isolated').read(text);
  },
};
const supplies: Said<NonNullable<Jack['supply']>> = {
  like: '9 V, 100 mA, negative, plug 3.5 mm, isolated',
  isFigure: true,
  text: ({ volts, milliamps, centre, plug, isolated }) =>
    [
      `${volts.join('/')} V`,
      `${milliamps} mA`,
      centre,
      ...(plug === undefined ? [] : [`plug ${plug}`]),
      ...(isolated === undefined ? [] : [isolated ? 'isolated' : 'shared']),
    ].join(', '),
  read: (text) => readSupply(text),
};

/** What is said of a supply, in whatever order: as it is printed beside the jack. */
const OF_A_SUPPLY = {
  volts: /(\d[\d./]*)\s*V(?:olts?)?(?![a-z])/i,
  amps: /(\d+(?:\.\d+)?)\s*(mA|A)(?![a-z])/i,
  centre: /(?:cent(?:re|er)[\s-]*)?(negative|positive)(?:\s*cent(?:re|er))?|\b(AC)\b/i,
  plug: /\bplug\s+([^,]+)/i,
  apart: /\b(isolated|shared)\b/i,
} as const;
/** What may stand between: commas, and that it is direct current. */
const BETWEEN = /[\s,;]+|\bDC\b/gi;

const readSupply = (text: string): NonNullable<Jack['supply']> | undefined => {
  const said = recordOf(keysOf(OF_A_SUPPLY), (what) => OF_A_SUPPLY[what].exec(text));
  const rest = Object.values(OF_A_SUPPLY).reduce((left, pattern) => left.replace(pattern, ' '), text);
  const { volts, amps, centre } = said;
  if (!volts || !amps || !centre || rest.replace(BETWEEN, '') !== '') return undefined;
  const all = theItem(volts, 1).split('/').map(Number);
  const plug = SUPPLY_PLUGS.find((p) => p.toLowerCase() === said.plug?.[1]?.trim().toLowerCase());
  if (!all.every((v) => v > 0) || (said.plug && !plug)) return undefined;
  return {
    volts: all,
    milliamps: Number(amps[1]) * (amps[2]?.toLowerCase() === 'a' ? 1000 : 1),
    centre: theOneOf(['negative', 'positive', 'ac'], (centre[1] ?? centre[2] ?? '').toLowerCase()),
    ...(plug ? { plug } : {}),
    ...(said.apart ? { isolated: /isolated/i.test(said.apart[0]) } : {}),
  };
};
const batteries: Said<NonNullable<Figures['battery']>> = {
  like: '500 mAh, 9 V or 2000 mAh, 3 V, takes 300 mA',
  isFigure: true,
  text: ({ mAh, volts, milliamps }) =>
    `${mAh} mAh, ${volts} V${milliamps === undefined ? '' : `, takes ${milliamps} mA`}`,
  read: (text) => {
    const found = /^(\d+(?:\.\d+)?)\s*mAh,\s*(\d+(?:\.\d+)?)\s*V(?:,\s*takes\s+(\d+(?:\.\d+)?)\s*mA)?$/i.exec(text);
    return found
      ? { mAh: Number(found[1]), volts: Number(found[2]), ...(found[3] ? { milliamps: Number(found[3]) } : {}) }
      : undefined;
  },
};
const plates: Said<NonNullable<Figures['switches']>> = {
  like: 'A 30 40, B 90 40',
  text: (switches) => switches.map(({ id, x, y }) => `${id} ${x} ${y}`).join(', '),
  read: (text) => {
    const found = text.split(',').map((one) => /^\s*(\S+)\s+(\d+(?:\.\d+)?)\s+(\d+(?:\.\d+)?)\s*$/.exec(one));
    return found.every((f) => f !== null)
      ? found.map((f) => ({ id: theItem(f, 1), x: Number(f[2]), y: Number(f[3]) }))
      : undefined;
  },
};
const levels: Said<NonNullable<End['dbu']>> = {
  like: '-20 on average, -8 at peaks',
  isFigure: true,
  text: ({ average, peak }) => `${average} on average, ${peak} at peaks`,
  read: (text) => {
    const found = new RegExp(`^${NUMBER}(?:\\s*dBu)? on average, ${NUMBER}(?:\\s*dBu)? at peaks$`, 'i').exec(text);
    return found ? { average: numberIn(theItem(found, 1)), peak: numberIn(theItem(found, 2)) } : undefined;
  },
};
const pickups: Said<Pickup> = {
  like: '2.5 H, 6000 ohm, 110 pF; volume 250000 ohm; tone 250000 ohm, 22 nF; bleed 680 pF',
  isFigure: true,
  text: ({ henry, ohm, pF, volumeOhm, tone, bleedPF }) =>
    [
      `${henry} H, ${ohm} ohm, ${pF} pF`,
      ...(volumeOhm === undefined ? [] : [`volume ${volumeOhm} ohm`]),
      ...(tone === undefined ? [] : [`tone ${tone.ohm} ohm, ${tone.nF} nF`]),
      ...(bleedPF === undefined ? [] : [`bleed ${bleedPF} pF`]),
    ].join('; '),
  read: (text) => {
    const above = String.raw`(\d+(?:\.\d+)?)\s*`;
    const found = new RegExp(
      `^${above}H,\\s*${above}ohm,\\s*${above}pF(?:;\\s*volume ${above}ohm)?(?:;\\s*tone ${above}ohm,\\s*${above}nF)?(?:;\\s*bleed ${above}pF)?$`,
      'i',
    ).exec(text);
    if (!found) return undefined;
    const [henry, ohm, pF, volumeOhm, toneOhm, nF, bleedPF] = found.slice(1).map((n) => (n ? Number(n) : undefined));
    return henry && ohm && pF !== undefined && volumeOhm !== 0
      ? {
          henry,
          ohm,
          pF,
          ...(volumeOhm ? { volumeOhm } : {}),
          ...(toneOhm && nF ? { tone: { ohm: toneOhm, nF } } : {}),
          ...(bleedPF ? { bleedPF } : {}),
        }
      : undefined;
  },
};
/** @example pickupText(coil) // '2.5 H, 6000 ohm, 110 pF; volume 250000 ohm' */
export const pickupText = (pickup: Pickup): string => pickups.text(pickup);
const cuts: Said<NonNullable<Insert['off']>> = {
  like: 'both or send or return or only the send if tails=on',
  text: (value) => (typeof value === 'string' ? value : `only the send if ${whenWords(value.sendOnlyWhen)}`),
  read: (text) => {
    const found = /^only the send if (.+)$/i.exec(text);
    const when = found ? readWhen(theItem(found, 1)) : undefined;
    return when ? { sendOnlyWhen: when } : oneOf('both', 'send', 'return').read(text);
  },
};

const field = <O extends object, K extends keyof O>(
  key: K,
  what: string,
  said: Said<NonNullable<O[K]>>,
  usedFor?: string,
): Field<O> => ({
  key: String(key),
  isFigure: said.isFigure ?? false,
  inTable: false,
  what,
  usedFor,
  like: said.like,
  choices: said.choices,
  isWhen: said.isWhen ?? false,
  text: (of) => (of[key] === undefined || of[key] === null ? '' : said.text(of[key])),
  write: (of, text) => {
    const { [key]: _old, ...rest } = of;
    if (text === '') return rest as O;
    const value = said.read(text);
    return value === undefined ? undefined : { ...of, [key]: value };
  },
});

const GAIN_LADDER = 'the gain ladder';
/** No jack has less: nothing at all would be a short circuit. */
const LEAST_OHM = 0.1;
const inTable = <O>(of: Field<O>): Field<O> => ({ ...of, inTable: true });
const OF_BOX: readonly Field<Figures>[] = [
  field('powerStage', 'power stage', oneOf('valve', 'solid state'), 'loads at loudspeaker jacks'),
  field('direct', 'direct sound', oneOf('analogue', 'converted'), 'how often the direct sound is converted'),
  field('battery', 'battery', batteries, 'what goes on without mains, and for how long'),
  field('givesWatts', 'all its outputs together', amount('W', '15', 0), 'what a supply can feed'),
  field('onSupply', 'on a shared supply', oneOf(...SUPPLY_NOISES), 'who may share a supply'),
  field('metres', 'length of its ways', amount('m', '15', 0), 'treble on the way to the first box'),
  field('mainsEarth', 'earthed by its mains lead', yesNo, 'loops of earth'),
  field('watts', 'power taken from the mains', amount('W', '30', 0), 'what the wall has to give'),
  field('switches', 'where its switches are, mm from the left and the back', plates, 'whether a shoe fits between'),
];
const OF_JACK: readonly Field<Jack>[] = [
  inTable(field('ohm', 'impedance', amount('ohm', '1000000', LEAST_OHM), 'levels at joints, treble')),
  field('balanced', 'balanced', yesNo, 'long leads, phantom power'),
  field('phantom', 'gives phantom power', yesNo, 'phantom power at outputs'),
  field('maxDbu', 'level it takes', amount('dBu', '18'), `${GAIN_LADDER}, headroom`),
  field('watts', 'power it gives or stands', amount('W', '50', 0), 'power at loudspeakers'),
  field('load', 'what loads it', oneOf('amplifier', 'speaker', 'none'), 'loads at loudspeaker jacks'),
  field('shield', 'shield', shields, 'loops of earth'),
  field('supply', 'supply', supplies, 'which output feeds which box'),
];
const OF_BLOCK: readonly Field<Block>[] = [
  field('gain', 'gain', gains, `${GAIN_LADDER}, the order of drives`),
  field('maxDbu', 'level it takes', amount('dBu', '18'), `${GAIN_LADDER}, headroom`),
  field('bypass', 'bypass', oneOf('true', 'buffered', 'relay'), 'buffers, a box without supply'),
  field('tails', 'rings on when it is taken out', yesOrWhen, 'what becomes of repeats'),
  field('mutes', 'mutes', conditions, 'silence for tuning'),
  field('inputOhm', 'input impedance', amount('ohm', '1000000', LEAST_OHM), 'fuzz behind buffers'),
  field(
    'key',
    'listens at',
    { like: 'in2', text: (v) => v, read: (text) => (/\s/.test(text) ? undefined : text) },
    'gates',
  ),
  field('wetOnly', 'only wet', conditions, 'ways that meet again'),
  field('polarity', 'polarity', inverted, 'ways that meet again'),
  field('ms', 'time it takes', amount('ms', '1.2', 0), 'ways that meet again'),
  field('noiseDbu', 'its own noise', amount('dBu', '-95'), 'noise at the outputs'),
];
const OF_INSERT: readonly Field<Insert>[] = [field('off', 'what its switch cuts', cuts, 'what becomes of repeats')];
const OF_FORK: readonly Field<Fork>[] = [
  field('crossoverHz', 'crossover', {
    isFigure: true,
    like: '250 Hz or a knob',
    text: (v) => (typeof v === 'number' ? `${v} Hz` : v),
    read: (text) => amount('Hz', '', 0).read(text) ?? (/^[A-Za-z][^\s]*$/.test(text) ? text : undefined),
  }),
];
const OF_ARM: readonly Field<Arm>[] = [
  field('gain', 'gain', gains, GAIN_LADDER),
  field('polarity', 'polarity', inverted, 'ways that meet again'),
];
const OF_CHAIN: readonly Field<Chain>[] = [
  field('passive', 'passive: nothing but contacts, pots and wire', onlyYes, 'signal kinds, buffers'),
  field('unpowered', 'without supply', oneOf('through', 'dead'), 'a box without supply'),
  field(
    'order',
    'order kept by',
    { like: 'order', text: (v) => v, read: (text) => (/\s/.test(text) ? undefined : text) },
    'the order of its stages',
  ),
  field('adds', 'bridged outputs add', oneOf('current', 'volts'), 'what reaches a box through it'),
];
const OF_END: readonly Field<End>[] = [
  field('dbu', 'level', levels, `${GAIN_LADDER}, levels`),
  field('pickup', 'coil and knobs', pickups, 'treble on the way to the first box'),
];

/** Something that has figures: how it stands in the box, and the box with another in its place. */
interface Place<O> {
  readonly key: string;
  /** What it is called in the box. */
  readonly id: string;
  readonly where: string;
  readonly of: O;
  readonly put: (of: O) => Device;
  readonly fields: readonly Field<O>[];
}

const replaced = <T>(list: readonly T[], i: number, one: T): readonly T[] =>
  list.map((old, k) => (k === i ? one : old));

/** A place among others of other kinds. */
const among = <O>(place: Place<O>): Place<never> => place as unknown as Place<never>;

/** The places of a row of a chain, and of the arms of its splits. */
const slotPlaces = (
  slots: readonly Slot[],
  path: string,
  put: (slots: readonly Slot[]) => Device,
): readonly Place<never>[] =>
  slots.flatMap((slot, i): readonly Place<never>[] => {
    const putSlot = (one: Slot) => put(replaced(slots, i, one));
    const at = { key: `${path}/${slot.id}`, id: slot.id, where: slot.id, put: putSlot };
    if (slot.is === 'block') return [among({ ...at, of: slot, fields: OF_BLOCK })];
    if (slot.is === 'insert') return [among({ ...at, of: slot, fields: OF_INSERT })];
    return [
      among({ ...at, of: slot, fields: OF_FORK }),
      ...slot.arms.flatMap((arm, a) => {
        const putArm = (one: Arm) => putSlot({ ...slot, arms: replaced(slot.arms, a, one) });
        const key = `${at.key}/${arm.id}`;
        const id = `${slot.id}/${arm.id}`;
        return [
          among({ key, id, where: `arm ${arm.id}`, of: arm, put: putArm, fields: OF_ARM }),
          ...slotPlaces(arm.slots, key, (inner) => putArm({ ...arm, slots: inner })),
        ];
      }),
    ];
  });

const placesOf = (device: Device): readonly Place<never>[] => [
  among({
    key: 'box',
    id: 'box',
    where: 'the box',
    of: device.figures,
    put: (figures) => ({ ...device, figures }),
    fields: OF_BOX,
  }),
  ...device.jacks.map((jack, i) =>
    among({
      key: `jack ${jack.id}`,
      id: `jack ${jack.id}`,
      where: `jack ${jack.id}`,
      of: jack,
      put: (one) => ({ ...device, jacks: replaced(device.jacks, i, one) }),
      fields: OF_JACK,
    }),
  ),
  ...device.chains.flatMap((chain, i) => {
    const put = (one: Chain): Device => ({ ...device, chains: replaced(device.chains, i, one) });
    return [
      among({ key: `chain ${chain.id}`, id: chain.id, where: `way ${chain.id}`, of: chain, put, fields: OF_CHAIN }),
      ...slotPlaces(chain.slots, `chain ${chain.id}`, (slots) => put({ ...chain, slots })),
    ];
  }),
  ...(device.ends ?? []).flatMap((end, i) =>
    end.is === 'source'
      ? [
          among({
            key: `end ${i}`,
            id: `source ${end.at}`,
            where: end.name,
            of: end,
            put: (one) => ({ ...device, ends: replaced(surely(device.ends), i, one) }),
            fields: OF_END,
          }),
        ]
      : [],
  ),
];

/** Every figure that a box has or could have, those of one place together. */
export const figuresOf = (device: Device): readonly Figure[] =>
  placesOf(device).flatMap(({ key, id, where, of, fields }) =>
    fields.map(({ text, write: _, isFigure, key: name, ...field }): Figure => ({
      ...field,
      key: `${key}: ${field.what}`,
      where,
      text: text(of),
      ...(isFigure ? { source: `${id}.${name}` } : {}),
    })),
  );

/**
 * The box with one figure written down as a text says it; an empty text takes it away. Refused where the text cannot
 * be read as such a figure.
 */
export const withFigure = (device: Device, key: string, text: string): Result<Device, readonly Refusal[]> => {
  for (const place of placesOf(device)) {
    const found = place.fields.find((f) => `${place.key}: ${f.what}` === key);
    if (!found) continue;
    const written = found.write(place.of, text.trim());
    return written === undefined
      ? refuse([
          {
            code: 'figure',
            where: `${place.where}, ${found.what}`,
            wrong: `"${text.trim().slice(0, 40)}" cannot be read.`,
            would: `Write ${found.like}.`,
          },
        ])
      : ok(
          text.trim() === ''
            ? withSource(place.put(written), `${place.id}.${found.key}`, undefined)
            : place.put(written),
        );
  }
  return refuse([
    { code: 'figure', where: device.name, wrong: 'It has no such place any more.', would: 'Choose another figure.' },
  ]);
};
