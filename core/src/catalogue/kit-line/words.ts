/** `a; b` as a list. */
export const listOf = (text: string): readonly string[] =>
  text
    .split(';')
    .map((one) => one.trim())
    .filter(Boolean);

/** Short forms, and other spellings of one word: what is said, and what it stands for. */
export const SHORT: Readonly<Record<string, string>> = {
  gtr: 'guitar',
  gtrs: 'guitar',
  gt: 'guitar',
  elec: 'electric',
  ac: 'ac',
  vol: 'volume',
  dly: 'delay',
  del: 'delay',
  verb: 'reverb',
  rvb: 'reverb',
  rev: 'reverb',
  env: 'envelope',
  oct: 'octave',
  comp: 'compressor',
  dist: 'distortion',
  od: 'overdrive',
  trem: 'tremolo',
  hd: 'head',
  mic: 'microphone',
  mics: 'microphone',
  mike: 'microphone',
  mikes: 'microphone',
  fx: 'effect',
  efx: 'effect',
  ctrl: 'controller',
  pre: 'preamp',
  ext: 'extension',
  bal: 'balanced',
  analogue: 'analog',
  tube: 'valve',
  valves: 'valve',
  tubes: 'valve',
  humbuckers: 'humbucker',
  sidechain: 'side chain',
  foh: 'foh',
  switchbox: 'switch box',
  footswitches: 'footswitch',
  floorboard: 'floor board',
  footcontroller: 'foot controller',
  multieffects: 'multi effect',
  multieffect: 'multi effect',
  multifx: 'multi effect',
  headphones: 'headphone',
  autowah: 'auto wah',
  whah: 'wah',
  wha: 'wah',
  speakers: 'speaker',
  pots: 'pot',
  pedalboard: 'pedalboard',
  stomp: 'stomp',
  outs: 'output',
  outlet: 'output',
  outlets: 'output',
  contacts: 'button',
  contact: 'button',
  buttons: 'button',
  switches: 'switch',
  chs: 'channel',
  chan: 'channel',
  ch: 'channel',
  cabs: 'cab',
  programmable: 'midi',
  keys: 'key',
  preset: 'midi',
  presets: 'midi',
  memories: 'memory',
};

/** Numbers as words. */
export const NUMBERS: Readonly<Record<string, number>> = {
  single: 1,
  two: 2,
  double: 2,
  three: 3,
  triple: 3,
  four: 4,
  quad: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
  twelve: 12,
  sixteen: 16,
};

/** Words that count boxes. */
export const COUNTS: Readonly<Record<string, number>> = { ...NUMBERS, one: 1, pair: 2, couple: 2, twin: 2 };

/** What follows these is not there. */
export const DENIALS: ReadonlySet<string> = new Set([
  'no',
  'not',
  'without',
  'non',
  'minus',
  'never',
  'neither',
  "don't",
]);

/** Joints between things. */
export const JOINTS: readonly string[] = [
  'and',
  'plus',
  'or',
  'with',
  'incl',
  'including',
  'but',
  'after',
  'before',
  'first',
  'last',
  'instead',
  'rather',
  'than',
  'order',
  'that',
];

/** What is counted inside a box: its name in a quality such as `8 loop`. */
export const UNITS: Readonly<Record<string, string>> = {
  loop: 'loop',
  output: 'output',
  way: 'way',
  button: 'button',
  switch: 'button',
  channel: 'channel',
  string: 'string',
  input: 'input',
  in: 'input',
  out: 'output',
  amp: 'amp',
  track: 'track',
  band: 'band',
  knob: 'knob',
  mode: 'mode',
  port: 'port',
  voice: 'voice',
  jack: 'jack',
  space: 'space',
  inch: 'inch',
};

/** Qualities, with the ways to say each. */
export const QUALITIES: Readonly<Record<string, string>> = {
  stereo: 'stereo; in stereo',
  mono: 'mono; in mono',
  midi: 'midi; with midi; over midi; on midi; midi controlled; with memory; memory',
  analog: 'analog; bucket brigade; bbd',
  digital: 'digital; dsp; digital stuff',
  valve: 'valve; all valve',
  'solid state': 'solid state; transistor; class d; ss',
  'low gain':
    'low gain; light gain; edge of breakup; transparent; soft clipping; light; mild; low to medium gain; bluesy; low; blues',
  'high gain': 'high gain; heavy; metal; saturated; hi gain; big gain; high; hard rock',
  active: 'active; powered; active pickup; active electronics',
  passive: 'passive',
  buffered: 'buffered; buffer',
  'true bypass': 'true bypass',
  loop: 'loop; effect loop; an effect loop; send and return; send return; insert loop; send',
  parallel: 'parallel; parallel loop; parallel effect loop',
  serial: 'serial; series; series loop; serial loop',
  bass: 'bass; for bass; bass guitar',
  acoustic: 'acoustic; for acoustic; acoustic guitar',
  vocal: 'vocal; voice; singer; singing',
  'side chain': 'side chain; key input; keyed; external key',
  boost: 'boost; solo boost',
  rack: 'rack; rackmount; rack mount; 19 inch; rack mounted',
  reversed: 'reversed; reverse; wiper on ring; ring wiper',
  expression: 'expression; expression pedal; with expression; expression input',
  'cab sim': 'cab sim; cabinet simulation; cabinet sim; speaker sim; ir; impulse; cab simulation; cabinet simulator',
  di: 'di; di output; di out',
  'line out': 'line out; line output',
  tuner: 'tuner',
  'tuner out': 'tuner out; tuner output; tuner send',
  piezo: 'piezo; piezo output',
  fat: 'fat; fat single coil',
  'single coil': 'single coil; sss',
  humbucker: 'humbucker; hh',
  open: 'open; open back',
  closed: 'closed; closed back',
  spring: 'spring',
  hall: 'hall; shimmer; ambient; cathedral; church',
  tape: 'tape; tape style',
  tap: 'on a tap',
  'tap tempo': 'tap tempo; tap; with tap',
  pickup: 'pickup; with pickup',
  octave: 'octave; octave up',
  up: 'up; upper',
  polyphonic: 'polyphonic; poly',
  germanium: 'germanium',
  silicon: 'silicon',
  modern: 'modern',
  vintage: 'vintage; non master volume; non master; no master',
  treble: 'treble',
  graphic: 'graphic',
  parametric: 'parametric; semi parametric',
  multiband: 'multiband; multi band; multi band',
  optical: 'optical; opto',
  blend: 'blend; with blend; clean blend; with clean blend',
  dual: 'dual; two in one; in one box; one box; 2 in 1; double',
  isolated: 'isolated; iso; fully isolated; galvanic; isolated output',
  'high current': 'high current; big current; for digital; 500 ma',
  transformer: 'transformer; transformer isolated',
  frequency: 'frequency; by frequency; high low',
  fixed: 'fixed; fixed order',
  insert: 'insert; with insert; volume insert',
  large: 'large; big; full size; flagship',
  small: 'small; mini; compact; little; tiny; micro; nano; lunchbox',
  xlr: 'xlr; balanced',
  supply: 'supply way; with power',
  line: 'line',
  latching: 'latching',
  momentary: 'momentary; unlatched; non latching',
  ac: 'ac',
  dc: 'dc',
  'own switch':
    'own switch; with its own switch; its own switch; own foot switch; its own foot switch; on its own switch; on its own foot switch; under its own switch; own preset switch; its own preset switch; with its own preset switch; on its own preset switch; own footswitch; its own footswitch; on its own footswitch; with its own footswitch; preset switch; foot switch; footswitch',
  'tone memory': 'tone memory; tone memories; stored tone; knob memory; recallable tone; sound memory',
  any: 'any; any two; any of three; any two of three; any combination; any of them; each by itself; independent; any one; all at once',
  'carry over': 'carry over; spillover; spill over; trail; tails; tail carry over; with trail',
  orderable:
    'orderable; reorderable; any order; free order; in any order; order of loop; loop order; programmable order',
  mute: 'mute; with mute',
  'control change': 'control change; cc only',
  bend: 'bend; dive',
  '12 string': '12 string; twelve string',
  baritone: 'baritone',
  floor: 'floor; on the floor',
  usb: 'usb',
  wireless: 'wireless',
  microphone: 'microphone; internal microphone',
  'multi track': 'multi track; multitrack; many track',
  'four jack': 'four jack; 4 jack; four cable; x pattern',
  mix: 'mix both; both at once; blend both',
  jack: 'jack',
  timeline: 'timeline; show',
  'backing track': 'backing track',
  switched: 'switched',
  master: 'master volume; master',
};

/**
 * Qualities that matter nothing where no box of the family differs by them; the others are asked about when no box has
 * them.
 */
export const SOFT: ReadonlySet<string> = new Set(
  listOf(
    'mono; analog; digital; low gain; high gain; passive; buffered; true bypass; bass; acoustic; rack; expression; closed; open; germanium; silicon; modern; vintage; treble; optical; dual; isolated; large; small; line; latching; dc; floor; usb; wireless; boost; serial; spring; hall; tape; fat; graphic; single coil; humbucker; xlr; switched; jack; master; blend; insert; up; up; octave; fixed; bend; microphone; tap tempo; pickup; any; carry over; orderable; mute; own switch',
  ),
);

/** What is only ever said of a box: behind "with" it is no box of its own. */
export const FEATURES: ReadonlySet<string> = new Set(['tap tempo', 'pickup', 'line out']);

/** Words that change nothing. */
export const FILLERS: ReadonlySet<string> = new Set(
  listOf(
    'chromatic; slapback; ping pong; lo fi; modulated; synced; always on; pedal; pedals; box; boxes; unit; units; system; rig; rigs; a; an; the; my; our; your; his; her; their; stage; live; style; type; model; kind; thing; effect; device; gear; setup; backline; main; spare; backup; second; 2nd; third; other; another; extra; new; old; used; nice; standard; regular; normal; simple; basic; cheap; good; favourite; favorite; trusty; just; only; also; some; straight; direct; directly; out; of; on; in; at; from; board; pedalboard; side; left; right; middle; centre; center; right hand; left hand; in the loop; in its loop; in the effect loop; in the amp loop; in the amp s loop; in loop; is; are; be; there; this; that; we; i; you; us; me; have; has; had; need; needs; want; use; uses; using; run; runs; got; bring; bringing; take; it; its; please; thanks; thank; hi; hello; hey; cheers; ok; okay; yes; so; here; s; goes; go; going; down; again; always; usually; sometimes; whole; full; home; touring; tour; studio; rehearsal; off; no.; set; sits; sitting; comes; coming; lives; per; all; both; one; clean; dirty; dry; wet; warm; bright; dark; creamy; crunchy; lush; deep; subtle; classic; boutique; handmade; proper; decent; power; mains; split; signal; sound; tone; by; as; well; too; hand; ambience; great; lovely; usual; item; items; boxed; channel; input; output; pair; shared; single; first; volts; watt; watts; plate; room; gain; level; footswitchable; switchable; switching; switch; button; knob; knobs; mode; built; inbuilt; included; trs; ts; unbalanced; phantom; speaker; band; bands; quiet; noisy; loud; tuned; tuned down; tuned up; down tuned; drop tuned; tuned low; track; tracks; at once; true; bypass; tempo; plus; minus; about',
  ),
);

/** Headings of tables and of lists: a line of nothing else says nothing. */
export const HEADINGS: ReadonlySet<string> = new Set(
  listOf(
    'item; items; qty; quantity; source; ch; channel; input; name; type; notes; note; box; code; no; number; count; description; what; where; position; midi; gear; pedal; pedals; kit; list; place; maker; model; board; loop; backline; rig; our rig; setup; signal chain; chain; pedalboard; stage; left; right; stage left; stage right; mono; stereo; amps; effects; guitars; power; floor; rack; status; colour; volts; ma; weight; size',
  ),
);

/** What is no box of a rig's signal, control or supply: it is set aside, and said so. */
export const ASIDE: ReadonlySet<string> = new Set(
  listOf(
    'cable; lead; patch; wire; jack; plug; case; flightcase; bag; gigbag; stand; string; pick; plectrum; strap; capo; slide; velcro; fuse; bulb; towel; water; chair; carpet; rug; light; lamp; torch; screwdriver; drum; kit; cymbal; tool; tools; soldering; iron; tape; gaffer; cloth; hook; hanger; shelf; drawer; trolley; van; merch; music; score; book; hat; coat; shoe; glove; earplug; plugs; cover; foot; feet; bolt; nut; screw; label; sticker; pencil; pen; paper; sheet; charger; snack; beer; coffee; riser; table; podium; curtain; backdrop; smoke; fog; haze; projector; camera; phone; handset; radio; walkie; drummer; singer; player; engineer; crew; tech',
  ),
);

/** Boxes that people have and the shelves do not. */
export const MISSING: readonly string[] = listOf(
  'mandolin; banjo; ukulele; uke; lap steel; pedal steel; steel guitar; steel; harmonica; accordion; cello; viola; trumpet; saxophone; sax; flute; talk box; talkbox; vocoder; bit crusher; bitcrusher; slicer; stutter pedal; glitch pedal; granular; sampler; sampler pad; sample pad; drum pad; trigger pad; vocal harmony; vocal harmoniser; vocal effect; vocal processor; vocal pedal; vocal reverb; vocal delay; harmony processor; microphone preamp; power conditioner; mains conditioner; conditioner; voltage transformer; step down transformer; step down; step up transformer; variac; voltage regulator; voltage stabiliser; stepdown; volume swell; auto swell; swell; swell pedal; slow attack; attack delay; slow gear; talkback; talkback switch; talkback microphone; wireless midi; midi wireless; bluetooth midi; midi message filter; midi mapper; clip on tuner; clip tuner; headstock tuner; isolation cab; isolation cabinet; iso cab; iso box; personal monitor mixer; personal mixer; monitor mixer; monitor mixing system; high pass; high pass filter; low pass; low pass filter; hpf; lpf; line pad; pad; midi guitar; midi pickup; guitar synth pickup; hexaphonic pickup; valve power amp; rack preamp; speaker switcher; speaker selector; cab switcher; cabinet switcher; cab selector; head switcher; amp midi selector; feedback pedal; sub kick; ebow; sustainer driver; theremin; turntable; dj mixer; lighting controller; dmx; word clock; network switch; router; video; ups; generator; inverter; stage piano amp; keyboard amp; drum monitor; bass shaker; tactile; vocal microphone wireless; headset; speech; megaphone; telephone; noise generator; sitar; bouzouki; oud; kalimba; glockenspiel; harp; electric violin bow; bow; de esser; deesser; channel strip; parallel compressor; transient shaper; crossfader; fader; midi fader; ribbon controller; breath controller; pressure pad; light show; iem mixer',
);

/** Who says this is not sure: what stands beside it is asked about. */
export const DOUBTS: readonly string[] = listOf(
  'whichever; maybe; some kind of; some sort of; something like; possibly; not sure; perhaps; either; or something; or so; same as; undecided; tbc; tbd; to be confirmed; one of those; a few; several; i think; could be; might; depends; kind of; sort of',
);

/** There is one for each of something else: how many in all is not said. */
export const EACH: readonly string[] = listOf('each; each of them; its own; their own; one each; of each');

/** What is said after these is what a thing is for, or where it is. */
export const PURPOSES: ReadonlySet<string> = new Set(
  listOf(
    'for; instead; because; so that; when; if; where; which; like; under; near; behind; beside; against; using; called; named; while',
  ),
);

/** What a signal does on its way from one to the next: the order is meant. */
export const ONWARD: ReadonlySet<string> = new Set(
  listOf(
    'into; to; then; feeding; feeds; through; via; followed by; goes to; going to; out to; out into; onto; into the front of',
  ),
);

/** Verbs that make of "to" a purpose: a selector to run two amps. */
export const DOINGS: ReadonlySet<string> = new Set(
  listOf(
    'run; switch; control; use; play; mute; send; change; split; feed; select; choose; drive; boost; have; make; keep; go; be; tune; power; blend; mix; turn; cover; get; add; follow; sync; trigger; call; recall; swap; bypass; kill; push; hit; loop; record',
  ),
);
