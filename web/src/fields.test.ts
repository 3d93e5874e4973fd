import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { figuresOf } from '@yunta/core/catalogue/figures';
import { CATALOGUE } from '@yunta/core/catalogue/boxes';
import { fieldsOf } from '@yunta/core/testing/coverage';

/*
 * Whatever a rig file can say of a box, a cable or a hook-up can be said on a screen: for each field the screen, the
 * file that draws it, and the words there that set it.
 */

const EDITOR = 'Kit, Open the box';
const BOX = 'web/src/steps/kit/box';
type Screen = readonly [screen: string, file: string, sets: RegExp];

/** Made by the product itself; nobody types them. */
const OWN = [
  'device.kind',
  'device.id',
  'device.made',
  'hookup.kind',
  'hookup.id',
  'cable.kind',
  'cable.id',
  'cable.hookup',
];

const figure = (what: string): Screen => [
  `${EDITOR}, Say more`,
  'core/src/catalogue/figures.ts',
  new RegExp(`field\\(\\s*'${what}'`),
];
const condition: Screen = [`${EDITOR}, Only while`, 'web/src/shared/figures/conditions.tsx', /put\(\[\.\.\.when/];
const taps: Screen = [`${EDITOR}, jacks at the end of a way or a loop`, `${BOX}/taps.tsx`, /put\(i, \{ \.\.\.tap/];
const gain = (of: string): Readonly<Record<string, Screen>> => ({ [`${of}.gain`]: figure('gain') });

const SCREENS: Readonly<Record<string, Screen>> = {
  'device.code': [`${EDITOR}, Plate`, `${BOX}/plate.tsx`, /code: code\.toUpperCase/],
  'device.name': [`${EDITOR}, Plate`, `${BOX}/plate.tsx`, /change\(\{ \.\.\.device, name/],
  'device.zone': [`${EDITOR}, Plate`, `${BOX}/plate.tsx`, /\.\.\.device, zone/],
  ...Object.fromEntries(
    ['trial', 'trial.since', 'trial.borrowed'].map((field): readonly [string, Screen] => [
      `device.${field}`,
      ['Routing, Try a box tonight', 'core/src/edits/trial.ts', /\{ \.\.\.box, trial \}/],
    ]),
  ),
  'device.at': ['Kit, by adding boxes in order', 'core/src/edits/devices.ts', /\bat,/],
  'device.jacks': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /Add a jack/],
  'device.jacks.id': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /rename\(to\)/],
  'device.jacks.kind': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /set\(\{ kind/],
  'device.jacks.connector': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /set\(\{ connector/],
  'device.jacks.poles': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /set\(\{ poles/],
  'device.jacks.level': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /\.\.\.jack, level/],
  'device.jacks.ohm': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /set\(\{ ohm/],
  'device.jacks.side': [
    'Build, Board, a box',
    'web/src/steps/build/board/box-card.tsx',
    /withMaybe\(j, 'side', side\)/,
  ],
  'device.jacks.balanced': figure('balanced'),
  'device.jacks.phantom': figure('phantom'),
  'device.jacks.maxDbu': figure('maxDbu'),
  'device.jacks.shield': figure('shield'),
  'device.jacks.load': figure('load'),
  'device.jacks.supply': figure('supply'),
  'device.jacks.closedWhen': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /'closedWhen'/],
  'device.jacks.ringClosedWhen': [`${EDITOR}, Jacks`, `${BOX}/jacks.tsx`, /'ringClosedWhen'/],
  'device.chains': [`${EDITOR}, Inside`, `${BOX}/editor.tsx`, /addChain/],
  'device.chains.id': [`${EDITOR}, a way`, `${BOX}/chosen.tsx`, /Name of the way/],
  'device.chains.from': [`${EDITOR}, a way`, `${BOX}/chosen.tsx`, /put\(\{ \.\.\.chain, from/],
  'device.chains.to': [`${EDITOR}, a way`, `${BOX}/chosen.tsx`, /put\(\{ \.\.\.chain, to/],
  ...Object.fromEntries(
    ['from', 'to', 'slots.send', 'slots.return'].flatMap((end) =>
      ['at', 'leg', 'gain'].map((key) => [`device.chains.${end}.${key}`, taps] as const),
    ),
  ),
  ...Object.fromEntries(
    ['from', 'to', 'slots.send', 'slots.return'].map((end) => [`device.chains.${end}.when`, condition] as const),
  ),
  'device.chains.when': [`${EDITOR}, a way`, `${BOX}/chosen.tsx`, /withMaybe\(chain, 'when'/],
  'device.chains.order': figure('order'),
  'device.chains.passive': figure('passive'),
  'device.chains.adds': figure('adds'),
  'device.chains.unpowered': figure('unpowered'),
  'device.chains.slots': [`${EDITOR}, a plus on the line`, `${BOX}/inside-drawn.tsx`, /addStage\(device, place/],
  'device.chains.slots.id': [`${EDITOR}, a stage`, `${BOX}/chosen.tsx`, /Name of the stage/],
  'device.chains.slots.stage': [`${EDITOR}, a stage`, `${BOX}/chosen.tsx`, /\.\.\.block, stage/],
  'device.chains.slots.on': [`${EDITOR}, a stage`, `${BOX}/chosen.tsx`, /withMaybe\(block, 'on'/],
  'device.chains.slots.width': [`${EDITOR}, a stage`, `${BOX}/chosen.tsx`, /withMaybe\(block, 'width'/],
  'device.chains.slots.wetOnly': figure('wetOnly'),
  'device.chains.slots.mutes': figure('mutes'),
  ...gain('device.chains.slots'),
  'device.chains.slots.polarity': figure('polarity'),
  'device.chains.slots.ms': figure('ms'),
  'device.chains.slots.key': figure('key'),
  'device.chains.slots.bypass': figure('bypass'),
  'device.chains.slots.tails': figure('tails'),
  'device.chains.slots.inputOhm': figure('inputOhm'),
  'device.chains.slots.noiseDbu': figure('noiseDbu'),
  'device.chains.slots.maxDbu': figure('maxDbu'),
  'device.chains.slots.send': [`${EDITOR}, a loop`, `${BOX}/chosen.tsx`, /\.\.\.insert, send/],
  'device.chains.slots.return': [`${EDITOR}, a loop`, `${BOX}/chosen.tsx`, /\.\.\.insert, return/],
  'device.chains.slots.direct': [`${EDITOR}, a loop`, `${BOX}/chosen.tsx`, /withMaybe\(insert, 'direct'/],
  'device.chains.slots.off': figure('off'),
  'device.chains.slots.unpatched': [`${EDITOR}, a loop`, `${BOX}/chosen.tsx`, /\.\.\.insert, unpatched/],
  'device.chains.slots.breaks': [`${EDITOR}, a loop`, `${BOX}/chosen.tsx`, /withMaybe\(insert, 'breaks'/],
  'device.chains.slots.crossoverHz': figure('crossoverHz'),
  'device.chains.slots.arms': [`${EDITOR}, a split`, `${BOX}/chosen.tsx`, /Add a way beside them/],
  'device.chains.slots.arms.when': [`${EDITOR}, a split`, `${BOX}/chosen.tsx`, /withMaybe\(a, 'when'/],
  'device.chains.slots.arms.band': [`${EDITOR}, a split`, `${BOX}/chosen.tsx`, /withMaybe\(a, 'band'/],
  'device.chains.slots.arms.leg': [`${EDITOR}, a split`, `${BOX}/chosen.tsx`, /withMaybe\(a, 'leg'/],
  ...gain('device.chains.slots.arms'),
  'device.chains.slots.arms.polarity': figure('polarity'),
  'device.controls': [`${EDITOR}, Controls`, `${BOX}/controls.tsx`, /Add a control/],
  'device.controls.name': [`${EDITOR}, Controls`, `${BOX}/controls.tsx`, /set\(\{ name/],
  'device.controls.domain': [`${EDITOR}, Controls`, `${BOX}/controls.tsx`, /set\(\{ domain/],
  'device.controls.powerUp': [`${EDITOR}, Controls`, `${BOX}/controls.tsx`, /set\(\{ powerUp/],
  'device.controls.use': [`${EDITOR}, Controls`, `${BOX}/controls.tsx`, /become\(usedAs/],
  'device.controls.latches': [`${EDITOR}, Controls`, `${BOX}/controls.tsx`, /latches: true/],
  'device.actuators': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /freshActuator/],
  'device.actuators.by.number': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /\.\.\.by, number/],
  'device.actuators.by.channel': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /\.\.\.by, channel/],
  'device.actuators.by.contact': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /\.\.\.by, contact/],
  'device.actuators.by.edge': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /\.\.\.by, edge/],
  'device.actuators.by.level': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /\.\.\.by, level/],
  'device.actuators.by.expression': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /save\(\{ expression/],
  'device.actuators.by.foot': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /\.\.\.by, foot/],
  'device.actuators.by.gesture': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /\.\.\.by, gesture/],
  'device.actuators.by.hand': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /save\(\{ hand/],
  'device.actuators.by.position': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /save\(\{ position/],
  'device.actuators.when': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /withMaybe\(actuator, 'when'/],
  'device.actuators.acts': [`${EDITOR}, Switches`, `${BOX}/switches.tsx`, /It also does/],
  'device.actuators.acts.when': [`${EDITOR}, Switches`, `${BOX}/act-fields.tsx`, /withMaybe\(act, 'when'/],
  ...Object.fromEntries(
    (
      [
        ['control', /onOther\(device, act, control\)/],
        ['set', /\.\.\.act, set:/],
        ['toggle', /\.\.\.act, toggle:/],
        ['step', /\.\.\.act, step/],
        ['map', /map: rows/],
        ['scale', /\.\.\.act, scale:/],
        ['take', /newAct\(device, kind\)/],
        ['load', /\.\.\.act, load/],
        ['slot', /\.\.\.act, slot:/],
        ['send', /\.\.\.act, send:/],
        ['send.pc', /\.\.\.send, pc/],
        ['send.bank', /\.\.\.send, bank/],
        ['send.cc', /\.\.\.send, cc/],
        ['send.value', /\.\.\.send, value/],
        ['send.channel', /\.\.\.send, channel/],
        ['send.bpm', /put\(\{ bpm/],
        ['at', /\.\.\.act, at/],
        ['afterMs', /\.\.\.act, afterMs/],
        ['pulse', /\.\.\.act, pulse/],
        ['follow', /\.\.\.act, follow/],
        ['gesture', /\.\.\.act, gesture/],
      ] as const
    ).map(([key, sets]) => [`device.actuators.acts.${key}`, [`${EDITOR}, Switches`, `${BOX}/act-fields.tsx`, sets]]),
  ),
  'device.memories': [`${EDITOR}, Programs`, `${BOX}/programs.tsx`, /withPrograms\(device\)/],
  ...Object.fromEntries(
    (
      [
        ['control', /set\(\{ control,/],
        ['stores', /set\(\{ stores/],
        ['mayStore', /'mayStore'/],
        ['by', /withMaybe\(memory, 'by'/],
        ['size', /set\(\{ size/],
        ['shows', /set\(\{ shows/],
        ['inside', /'inside'/],
        ['gapMs', /set\(\{ gapMs/],
        ['mutesMs', /set\(\{ mutesMs/],
        ['again', /set\(\{ again/],
        ['limits', /'limits'/],
        ['reminders', /'reminders'/],
        ['switches', /'switches'/],
        ['bank', /\.\.\.bank, control/],
        ['assignable', /Let programs assign/],
      ] as const
    ).map(([key, sets]) => [`device.memories.${key}`, [`${EDITOR}, Programs`, `${BOX}/programs.tsx`, sets]]),
  ),
  'device.midi': [`${EDITOR}, MIDI`, `${BOX}/programs.tsx`, /const Manners/],
  'device.midi.channel': [`${EDITOR}, MIDI`, `${BOX}/programs.tsx`, /put\(\{ channel/],
  'device.midi.omni': [`${EDITOR}, MIDI`, `${BOX}/programs.tsx`, /withMaybe\(midi, 'omni'/],
  'device.midi.messages': [`${EDITOR}, MIDI`, `${BOX}/programs.tsx`, /put\(\{ messages/],
  'device.ends': [`${EDITOR}, Where it is heard`, `${BOX}/ends.tsx`, /Add a place/],
  'device.ends.dbu': figure('dbu'),
  'device.figures': [`${EDITOR}, Plate and figures`, `${BOX}/editor.tsx`, /<BoxFigures/],
  'device.figures.mm': [`${EDITOR}, Plate`, `${BOX}/plate.tsx`, /figures, mm/],
  'device.figures.price': [`${EDITOR}, Plate`, `${BOX}/plate.tsx`, /figures, price \}/],
  'device.figures.kg': [`${EDITOR}, Plate`, `${BOX}/plate.tsx`, /figures, kg/],
  'device.figures.origin': [`${EDITOR}, Plate`, `${BOX}/plate.tsx`, /figures, origin/],
  'device.figures.sources': [
    `${EDITOR}, beside each figure`,
    'web/src/shared/figures/source-choice.tsx',
    /withSource\(device/,
  ],
  'device.figures.mainsEarth': figure('mainsEarth'),
  'device.figures.watts': figure('watts'),
  'device.figures.powerStage': figure('powerStage'),
  'device.figures.switches': figure('switches'),
  'device.figures.battery': figure('battery'),
  'hookup.name': ['Routing, Hook-ups', 'web/src/steps/routing/hookups.tsx', /Name of /],
  'hookup.settings': ['Routing, What holds', 'web/src/steps/routing/terms.tsx', /setSetting\(/],
  'hookup.hears': ['Routing, What holds', 'web/src/steps/routing/terms.tsx', /setHeard\(/],
  'hookup.assumes': [
    'Proof, taken for granted',
    'web/src/steps/proof/assume.tsx',
    /assume\(hookup, chosen, value, why/,
  ],
  'hookup.lineChecks': ['Road, Line check', 'web/src/shared/day-check.tsx', /tickLine\(/],
  'hookup.admits': ['Proof, what it reckons with', 'web/src/steps/proof/admits.ts', /'knobs'/],
  'cable.ends': ['Routing, the map and the list', 'web/src/steps/routing/routing.tsx', /connect/],
  'cable.m': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /change\(\{ m:/],
  'cable.pFPerM': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /pFPerM, pFFrom/],
  'cable.pFFrom': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /pFFrom/],
  'cable.awg': ['Routing, a loudspeaker lead', 'web/src/steps/routing/cable-tags.tsx', /awg:/],
  'cable.byHand': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /byHand:/],
  'hookup.place': ['Build, Board', 'web/src/steps/build/board/use-standing.ts', /standAt\(hookup/],
  'cable.angled': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /change\(\{ angled \}/],
  'cable.plugs': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /change\(\{ plugs/],
  'cable.label': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /change\(\{ label/],
  'cable.colour': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /change\(\{ colour/],
  'cable.turns': ['Routing, a supply lead', 'web/src/steps/routing/cable-tags.tsx', /turns: e\.currentTarget/],
  'cable.forNow': ['Build, Leads', 'web/src/steps/build/lead-table.tsx', /forNow: is === FOR_NOW/],
  'cable.loom': ['Build, Leads', 'web/src/steps/build/lead-table.tsx', /loom: typed/],
  'hookup.mixes': ['Road, Monitors', 'web/src/steps/road/monitors/monitors.tsx', /setMix\(/],
  'cable.have': ['Routing, a cable', 'web/src/steps/routing/cable-tags.tsx', /have: e\.currentTarget/],
};

const folded = (path: string): string =>
  path.includes('slots.arms.slots') ? folded(path.replace('slots.arms.slots', 'slots')) : path;
const FIELDS = [
  ...new Set(
    (['device', 'hookup', 'cable'] as const).flatMap((kind) =>
      [...fieldsOf(kind)].map((field) => folded(`${kind}.${field}`)),
    ),
  ),
];
const covers = (entry: string, path: string): boolean => path === entry || path.startsWith(`${entry}.`);
/** The nearest screen for a field: its own, or that of what it is a part of. */
const screenOf = (path: string): string | undefined =>
  Object.keys(SCREENS)
    .filter((entry) => covers(entry, path))
    .sort((a, b) => b.length - a.length)[0];

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');

test('every field of a box, a hook-up and a cable has a screen', () => {
  const without = FIELDS.filter((path) => !screenOf(path) && !OWN.some((own) => covers(own, path)));
  expect(FIELDS.length).toBeGreaterThan(200);
  expect(without).toEqual([]);
});

/** Only such an entry as itself says the whole of what it holds: a list whose fields have screens of their own does not. */
test('a field with fields of its own is not taken for said by the list it stands in', () => {
  const LISTS = [
    'device.chains',
    'device.chains.slots',
    'device.actuators',
    'device.actuators.acts',
    'device.memories',
    'device.midi',
  ];
  const said = FIELDS.filter((path) => LISTS.includes(screenOf(path) ?? '') && !LISTS.includes(path));
  expect(said.filter((path) => !/\.(id|is|by|midi|power)$/.test(path))).toEqual([]);
});

test.each(Object.entries(SCREENS))('%s is set there', (entry, [, file, sets]) => {
  expect(FIELDS.some((path) => covers(entry, path))).toBe(true);
  expect([file, sets.test(readFileSync(join(ROOT, file), 'utf8'))]).toEqual([file, true]);
});

test('every figure of every box of the catalogue is offered with the box', () => {
  for (const { key, box } of CATALOGUE) {
    const figures = figuresOf({ ...box, id: 'device:x', kind: 'device' });
    expect([key, new Set(figures.map((f) => f.key)).size]).toEqual([key, figures.length]);
  }
});
