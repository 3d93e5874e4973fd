/** Boxes that go by one word, and what tells them apart. */
export interface Family {
  /** What the whole family goes by, `;` between the phrases. */
  readonly says: string;
  /** Each box with its qualities; the first is what the plain word means. */
  readonly boxes: readonly (readonly [key: string, qualities?: string])[];
  /** The plain word means several things that nobody would exchange for one another: it is asked about. */
  readonly asks?: true;
  /** What is counted in it, such as loops: another number than the shelf has is asked about. */
  readonly counts?: string;
}

/**
 * What people call boxes, by family. Qualities are words of `words.ts`; a phrase that only one box of the catalogue
 * goes by (`Generic.says`) need not stand here. Usage is common practice, from memory.
 */
export const FAMILIES: readonly Family[] = [
  {
    says: 'guitar; electric guitar; electric; solid body; hollow body',
    boxes: [
      ['single-coil', 'single coil'],
      ['humbucker', 'humbucker'],
      ['active-guitar', 'active'],
      ['fat-single-coil', 'fat'],
      ['twelve-string', '12 string'],
      ['piezo-guitar', 'piezo'],
      ['baritone', 'baritone'],
    ],
  },
  {
    says: 'acoustic; acoustic guitar; electro acoustic; electro acoustic guitar; nylon string guitar; classical guitar',
    boxes: [['acoustic'], ['acoustic-two', '2 output; microphone']],
  },
  {
    says: 'bass; bass guitar; electric bass',
    boxes: [
      ['bass', 'passive; 4 string; 5 string; 6 string'],
      ['active-bass', 'active; 5 string; 6 string'],
    ],
  },
  { says: 'upright; upright bass; double bass; contrabass', boxes: [['upright-bass']] },
  { says: 'keyboard; key; piano; stage piano; electric piano; organ; digital piano', boxes: [['keyboard']] },
  { says: 'synth; synthesizer; synthesiser', asks: true, boxes: [['keyboard'], ['synth-pedal']] },
  { says: 'synth pedal; guitar synth; bass synth', boxes: [['synth-pedal']] },
  { says: 'playback; backing track; backing track player; track player', boxes: [['player']] },
  { says: 'laptop; computer', asks: true, boxes: [['player'], ['timeline'], ['recorder']] },
  {
    says: 'microphone; mic; dynamic mic; condenser mic; condenser; vocal mic; dynamic microphone; condenser microphone; vocal microphone',
    boxes: [['microphone']],
  },
  { says: 'cab mic; guitar mic; amp mic; cabinet mic; speaker mic; mic on cab; mic on amp', boxes: [['cab-mic']] },
  {
    says: 'wireless; wireless receiver; wireless system; radio system; radio receiver; wireless guitar; wireless pack',
    boxes: [['wireless'], ['wireless-tuner', 'tuner']],
  },
  {
    says: 'compressor; comp; compression; sustainer',
    boxes: [
      ['compressor', 'optical; analog'],
      ['bass-compressor', 'bass; multiband'],
      ['midi-compressor', 'midi; digital'],
    ],
  },
  { says: 'limiter', boxes: [['limiter']] },
  {
    says: 'drive; overdrive; od; dirt; dirt pedal; crunch pedal; gain pedal',
    boxes: [
      ['low-drive', 'low gain; analog'],
      ['high-drive', 'high gain; analog'],
      ['bass-drive', 'bass; blend'],
      ['dual-drive', 'dual'],
      ['boost-drive', 'boost'],
      ['two-channel-drive', '2 channel'],
      ['midi-overdrive', 'midi'],
    ],
  },
  { says: 'low gain', boxes: [['low-drive', 'low gain']] },
  { says: 'high gain', boxes: [['high-drive', 'high gain']] },
  {
    says: 'distortion; dist; distortion pedal',
    boxes: [
      ['distortion', 'analog'],
      ['metal-distortion', 'high gain'],
    ],
  },
  {
    says: 'fuzz',
    boxes: [
      ['fuzz', 'germanium; analog'],
      ['buffered-fuzz', 'buffered; silicon; modern'],
      ['octave-fuzz', 'octave'],
      ['bass-fuzz', 'bass'],
    ],
  },
  { says: 'octave fuzz; octave up fuzz; fuzz octave', boxes: [['octave-fuzz']] },
  {
    says: 'boost; booster; clean boost; volume boost; solo boost; lead boost; level boost; preamp boost',
    boxes: [
      ['boost', 'buffered; mono'],
      ['treble-boost', 'treble'],
    ],
  },
  { says: 'wah; wah wah', boxes: [['wah']] },
  {
    says: 'auto wah; envelope filter; envelope follower; touch wah; auto filter; dynamic wah',
    boxes: [
      ['filter', 'analog'],
      ['midi-filter', 'midi'],
    ],
  },
  {
    says: 'filter',
    asks: true,
    boxes: [
      ['filter', 'analog'],
      ['midi-filter', 'midi'],
    ],
  },
  {
    says: 'eq; equaliser; equalizer; equalisation; tone shaper',
    boxes: [
      ['eq', 'graphic; analog'],
      ['parametric-eq', 'parametric; bass'],
      ['midi-eq', 'midi'],
    ],
  },
  { says: 'enhancer; exciter', boxes: [['enhancer']] },
  {
    says: 'gate; noise gate; noise suppressor; suppressor; noise reduction; hush pedal; noise killer',
    boxes: [
      ['gate', ''],
      ['gate-keyed', 'side chain'],
      ['gate-four-jack', 'loop; four jack'],
    ],
  },
  {
    says: 'octave; octaver; octave down; sub octave; octave divider',
    boxes: [
      ['octave', 'analog'],
      ['octave-up', 'up; polyphonic'],
    ],
  },
  {
    says: 'pitch; pitch shifter; pitch shift; harmoniser; harmonizer; detune; detuner; transposer',
    boxes: [
      ['pitch', 'digital'],
      ['midi-pitch', 'midi; digital'],
      ['pitch-pedal', 'expression; bend'],
    ],
  },
  { says: 'pitch bend pedal; pitch pedal; foot pitch; pitch treadle', boxes: [['pitch-pedal']] },
  {
    says: 'preamp; preamplifier',
    asks: true,
    boxes: [
      ['preamp-pedal', 'floor'],
      ['valve-preamp', 'valve'],
      ['preamp-di', 'cab sim; di'],
      ['acoustic-preamp', 'acoustic'],
      ['bass-preamp-di', 'bass; di'],
      ['preamp-loop', 'loop'],
      ['preamp-cab', 'cab sim'],
    ],
  },
  {
    says: 'bass preamp; bass preamp di; bass di; bass di preamp; bass preamp pedal',
    boxes: [['bass-preamp-di', 'di; bass']],
  },
  { says: 'acoustic preamp; acoustic preamp di', boxes: [['acoustic-preamp', 'di; acoustic']] },
  { says: 'buffer; line buffer; buffer pedal; line driver', boxes: [['buffer', 'buffered; active']] },
  {
    says: 'tremolo; trem',
    boxes: [
      ['tremolo', 'mono; analog; optical'],
      ['stereo-tremolo', 'stereo'],
    ],
  },
  {
    says: 'chorus; ensemble; chorus ensemble',
    boxes: [
      ['chorus', 'analog; mono'],
      ['stereo-chorus-pedal', 'stereo; analog'],
      ['stereo-modulation', 'stereo; midi; digital'],
    ],
  },
  {
    says: 'phaser; phase shifter; phase',
    boxes: [
      ['phaser', 'mono; analog'],
      ['stereo-modulation', 'stereo; midi'],
    ],
  },
  {
    says: 'flanger',
    boxes: [
      ['flanger', 'mono; analog'],
      ['stereo-modulation', 'stereo; midi'],
    ],
  },
  {
    says: 'vibrato; vibe',
    boxes: [
      ['vibrato', 'mono; analog'],
      ['stereo-modulation', 'stereo; midi'],
    ],
  },
  {
    says: 'rotary; rotary speaker; rotary sim; rotary simulator; rotary speaker sim',
    boxes: [['rotary', 'stereo; mono']],
  },
  { says: 'ring mod; ring modulator', boxes: [['ring-modulator']] },
  { says: 'modulation; mod', boxes: [['stereo-modulation', 'stereo; midi; digital']] },
  {
    says: 'delay; echo; delay pedal',
    boxes: [
      ['analog-delay', 'analog; mono'],
      ['stereo-delay', 'stereo; midi; digital; dual'],
      ['mono-delay', 'mono; midi; digital'],
      ['tape-echo', 'tape'],
    ],
  },
  {
    says: 'delay reverb; reverb delay; delay and reverb in one; reverb and delay in one; ambience box; delay reverb combo',
    boxes: [['delay-reverb', 'stereo; digital']],
  },
  {
    says: 'reverb; verb; reverb pedal',
    boxes: [
      ['spring-reverb', 'spring; mono; analog'],
      ['hall-reverb', 'hall; digital'],
      ['stereo-reverb', 'stereo; midi; digital'],
    ],
  },
  { says: 'freeze pedal; note hold; infinite sustain; sound retainer', boxes: [['hold']] },
  {
    says: 'looper; loop pedal; loop recorder; looper pedal; phrase looper',
    boxes: [
      ['looper', 'mono'],
      ['stereo-looper', 'stereo'],
      ['looper-station', '2 track; 3 track; multi track; dual'],
    ],
  },
  { says: 'loop station; looper station', boxes: [['looper-station']] },
  {
    says: 'modeller; modeler; amp and effects modeller; guitar processor; guitar modeller',
    boxes: [
      ['modeller', '1 loop; loop; stereo; midi; expression'],
      ['modeller-two-loops', '2 loop; large; stereo; midi'],
      ['amp-modeller', 'no loop; stereo'],
    ],
  },
  {
    says: 'multi effect; multi; multi fx; multi effect pedal; effect processor; fx processor; effect unit; multi effect unit; multi effect board',
    boxes: [
      ['modeller', '1 loop; loop; stereo; midi'],
      ['multi-two-loops', '2 loop; stereo; midi'],
      ['acoustic-multi', 'acoustic'],
    ],
  },
  {
    says: 'amp sim; amp simulator; amp modeller; amp in a box; amp simulation; pedal amp',
    boxes: [['amp-modeller', 'stereo']],
  },
  {
    says: 'cab sim; cabinet sim; cabinet simulation; cabinet simulator; cab simulator; speaker sim; speaker simulator; ir loader; ir; impulse loader; impulse response loader',
    boxes: [
      ['cab-sim', 'mono; digital'],
      ['stereo-cab-sim', 'stereo; digital'],
    ],
  },
  { says: 'drum machine; rhythm machine; beat machine; rhythm box', boxes: [['drum-machine']] },
  {
    says: 'switcher; loop switcher; pedal switcher; true bypass switcher; looper switcher; loop switching system; effect switcher; programmable switcher; loop selector; pedalboard switcher',
    counts: 'loop',
    boxes: [
      ['switcher-8', '8 loop; midi'],
      ['switcher-8-fixed', '8 loop; midi; fixed'],
      ['switcher-8-insert', '8 loop; midi; insert'],
      ['switcher-8-stereo', '8 loop; midi; stereo'],
      ['switcher-10', '10 loop; midi'],
      ['switcher-6', '6 loop; midi'],
      ['switcher-4', '4 loop; midi; small'],
      ['switcher-5-plain', '5 loop; no midi'],
      ['loop-1', '1 loop; no midi'],
      ['loop-2', '2 loop; no midi'],
    ],
  },
  {
    says: 'bypass box; bypass looper; true bypass box; true bypass looper',
    asks: true,
    counts: 'loop',
    boxes: [
      ['loop-1', '1 loop'],
      ['loop-2', '2 loop'],
      ['switcher-5-plain', '5 loop'],
    ],
  },
  {
    says: 'true bypass loop; bypass loop',
    counts: 'loop',
    boxes: [
      ['loop-1', '1 loop'],
      ['loop-2', '2 loop'],
    ],
  },
  {
    says: 'blend box; blender; blend loop; parallel mixer; wet dry blender; parallel loop; blend pedal',
    boxes: [['blend-loop']],
  },
  {
    says: 'aby; ab; ab box; aby box; ab switch; aby switch; amp selector; amp switch; ab pedal; amp splitter; ab amp switch',
    counts: 'way',
    boxes: [
      ['ab-out', '2 way; 2 amp'],
      ['abc-out', '3 way; 3 amp'],
    ],
  },
  { says: 'abc; abc box; abc switch; three amp selector', boxes: [['abc-out']] },
  {
    says: 'guitar selector; instrument selector; guitar switcher; instrument switcher; input selector; two guitar input; ab for guitar; aby for guitar',
    boxes: [
      ['ab-in', '2 input'],
      ['ab-in-both', 'mix'],
    ],
  },
  { says: 'kill switch; mute switch; mute pedal; killswitch; mute foot switch', boxes: [['kill-switch']] },
  {
    says: 'tuner; tuner pedal; pedal tuner; floor tuner',
    boxes: [
      ['tuner', 'buffered; bass'],
      ['tuner-true', 'true bypass'],
      ['tuner-tap', 'tap; rack'],
    ],
  },
  {
    says: 'volume; volume pedal; volume treadle',
    boxes: [
      ['volume', 'passive; mono'],
      ['volume-active', 'active; buffered'],
      ['volume-stereo', 'stereo'],
    ],
  },
  {
    says: 'expression; expression pedal; expression treadle; exp',
    boxes: [['expression'], ['expression-reversed', 'reversed']],
  },
  {
    says: 'midi controller; midi foot controller; foot controller; midi floor; midi floor board; midi board; midi pedal board; midi pedalboard; midi foot; midi foot switch; midi floor controller; floor controller; midi switcher',
    boxes: [
      ['midi-controller', 'midi'],
      ['midi-controller-exp', 'midi; expression; large'],
      ['mini-pc', 'midi; small'],
      ['mini-cc', 'midi; control change'],
    ],
  },
  {
    says: 'relay box; midi relay; midi relay box; midi to contact; midi amp switcher; midi switching interface; relay interface; midi to relay',
    boxes: [
      ['midi-relays', 'midi'],
      ['midi-relays-double', 'midi; stereo'],
    ],
  },
  {
    says: 'foot switch; footswitch; button box; channel switch; amp foot switch; channel foot switch; boost foot switch; pedal switch; tap switch; tap pedal; foot pedal switch',
    counts: 'button',
    boxes: [
      ['contact-1', '1 button; latching'],
      ['contact-2', '2 button; dual'],
    ],
  },
  { says: 'clock', asks: true, boxes: [['tempo', 'midi'], ['timeline'], ['drum-machine']] },
  { says: 'tap tempo; midi clock; click sender; tempo source; metronome; click', boxes: [['tempo', 'midi']] },
  { says: 'song list; tablet; set list tablet', boxes: [['song-list']] },
  { says: 'sequencer; timeline; show computer; show control', boxes: [['timeline']] },
  { says: 'midi thru; midi thru box; midi splitter; midi through; midi split', boxes: [['midi-thru', 'midi']] },
  { says: 'midi merge; midi merger; midi merge box', boxes: [['midi-merge', 'midi']] },
  { says: 'midi interface; usb midi; usb midi interface', boxes: [['midi-interface', 'midi']] },
  {
    says: 'head; amp head; guitar head; amplifier head; guitar amp head',
    counts: 'channel',
    boxes: [
      ['valve-head', 'valve; 2 channel; loop; serial; master'],
      ['plain-amp', 'valve; no loop; 1 channel; vintage; no master'],
      ['one-channel-amp', 'valve; 1 channel; small; loop; serial'],
      ['three-channel-head', 'valve; 3 channel; loop; serial'],
      ['midi-head', 'valve; midi; 2 channel; loop'],
      ['double-switch-head', 'valve; boost; 2 channel; loop'],
      ['parallel-loop-head', 'valve; parallel; loop; 2 channel'],
    ],
  },
  {
    says: 'amp; guitar amp; amplifier; guitar amplifier; electric guitar amp',
    asks: true,
    counts: 'channel',
    boxes: [
      ['valve-head', 'valve; 2 channel; loop; serial; master'],
      ['combo-two-channel', 'valve; 2 channel; loop'],
      ['combo', 'valve; 1 channel; loop'],
      ['one-channel-amp', 'valve; 1 channel; small; loop; serial'],
      ['plain-amp', 'valve; no loop; vintage; no master'],
      ['three-channel-head', 'valve; 3 channel; loop'],
      ['midi-head', 'valve; midi; loop'],
      ['double-switch-head', 'valve; boost; loop'],
      ['parallel-loop-head', 'valve; parallel; loop'],
    ],
  },
  {
    says: 'combo; combo amp; guitar combo; guitar combo amp',
    counts: 'channel',
    boxes: [
      ['combo', 'valve; 1 channel; loop'],
      ['combo-two-channel', 'valve; 2 channel; loop'],
    ],
  },
  {
    says: 'bass head; bass amp; bass amp head; bass amplifier; bass stack head',
    boxes: [['bass-head', 'solid state']],
  },
  { says: 'bass combo; bass combo amp', boxes: [['bass-combo', 'solid state']] },
  { says: 'acoustic amp; acoustic combo; acoustic guitar amp', boxes: [['acoustic-amp', 'acoustic; solid state']] },
  {
    says: 'power amp; power amplifier; poweramp',
    boxes: [
      ['power-amp', 'solid state; mono'],
      ['stereo-power-amp', 'solid state; stereo; rack'],
    ],
  },
  {
    says: 'cab; cabinet; speaker cab; speaker cabinet; extension cab; extension cabinet; guitar cab; guitar cabinet; speaker box',
    counts: 'speaker',
    boxes: [
      ['cab-212', '2x12 speaker; closed'],
      ['cab-112', '1x12 speaker; small; closed'],
      ['cab-212-open', '2x12 speaker; open'],
      ['cab-412', '4x12 speaker; closed; large'],
      ['cab-410', '4x10 speaker; bass'],
      ['cab-115', '1x15 speaker; bass'],
      ['cab-stereo', '2x12 speaker; stereo'],
    ],
  },
  {
    says: 'bass cab; bass cabinet; bass speaker; bass speaker cab',
    counts: 'speaker',
    boxes: [
      ['cab-410', '4x10 speaker; bass'],
      ['cab-115', '1x15 speaker; bass'],
    ],
  },
  {
    says: 'load box; dummy load; reactive load; loadbox; load; resistive load',
    boxes: [['load-box'], ['load-sim', 'cab sim']],
  },
  { says: 'attenuator; power soak; power attenuator', boxes: [['attenuator']] },
  { says: 'line out box; line out; speaker tap', boxes: [['line-out']] },
  {
    says: 'frfr; full range; full range speaker; powered speaker; powered monitor; active speaker; powered cab; active monitor; powered cabinet; frfr speaker; frfr cab; active cab; pa speaker',
    boxes: [['powered-speaker', 'active']],
  },
  {
    says: 'mixer',
    asks: true,
    counts: 'channel',
    boxes: [
      ['desk', '8 channel'],
      ['desk-16', '16 channel; large'],
      ['mixer-4', '4 channel; line; mono'],
      ['mixer-stereo', 'stereo; line'],
    ],
  },
  {
    says: 'desk; mixing desk; foh; front of house; pa; house; console; sound desk; pa system; house desk; foh desk; house pa; mixing console',
    counts: 'channel',
    boxes: [
      ['desk', ''],
      ['desk-16', '16 channel; large'],
    ],
  },
  {
    says: 'line mixer; summing mixer; summing box; submixer; sub mixer; rack mixer; mini mixer; keyboard mixer',
    counts: 'channel',
    boxes: [
      ['mixer-4', '4 channel; mono'],
      ['mixer-stereo', 'stereo'],
    ],
  },
  {
    says: 'snake; stage snake',
    asks: true,
    counts: 'way',
    boxes: [
      ['multicore', 'supply'],
      ['xlr-multicore', 'xlr'],
      ['stage-box', ''],
    ],
  },
  {
    says: 'multicore; loom; multi core',
    counts: 'way',
    boxes: [
      ['multicore', ''],
      ['xlr-multicore', 'xlr'],
    ],
  },
  { says: 'stage box; stagebox', counts: 'way', boxes: [['stage-box']] },
  { says: 'wedge; floor monitor; stage monitor; monitor wedge; monitor', boxes: [['wedge']] },
  {
    says: 'in ear; iem; in ear monitor; in ear system; ear; ear monitor; in ear sender; wireless in ear; in ear pack; iem pack; iem system',
    boxes: [['in-ears', 'wireless; stereo']],
  },
  { says: 'headphone; phone; headphone amp; can', boxes: [['headphones', 'stereo']] },
  {
    says: 'interface',
    asks: true,
    boxes: [
      ['recorder', 'usb'],
      ['midi-interface', 'midi; usb'],
      ['jack-panel', 'jack'],
    ],
  },
  {
    says: 'audio interface; recorder; recording interface; sound card; usb interface; usb audio interface',
    boxes: [['recorder', 'stereo']],
  },
  {
    says: 'di; di box; direct box; direct injection; dibox; direct inject',
    boxes: [
      ['di', 'passive; mono'],
      ['di-active', 'active; mono'],
      ['di-stereo', 'stereo; dual; 2 channel'],
    ],
  },
  { says: 'reamp; reamp box; reamper; reamping box', boxes: [['reamp']] },
  {
    says: 'isolator; hum eliminator; hum isolator; ground loop isolator; isolation transformer; line isolator; hum remover; ground isolator',
    boxes: [
      ['isolator', 'mono'],
      ['isolator-stereo', 'stereo; dual'],
    ],
  },
  {
    says: 'splitter; signal splitter; split box; buffered splitter; buffered split; line splitter; active splitter',
    counts: 'way',
    boxes: [
      ['splitter', '2 way; buffered; active'],
      ['splitter-4', '4 way; 4 output; buffered; active'],
      ['splitter-transformer', 'isolated; transformer'],
      ['splitter-frequency', 'frequency'],
    ],
  },
  { says: 'crossover; frequency splitter; bi amp crossover', boxes: [['splitter-frequency']] },
  { says: 'y cable; y lead; y split; y splitter cable; y jack; passive y', boxes: [['y-split']] },
  { says: 'insert cable; insert lead', boxes: [['insert-lead']] },
  { says: 'patchbay; patch bay; jack panel; patch panel; junction box; jack patch panel', boxes: [['jack-panel']] },
  {
    says: 'supply; power supply; psu; brick; power brick; psu brick; pedal supply; pedal power supply; power supply unit; pedal board supply; power unit; pedalboard supply',
    counts: 'output',
    boxes: [
      ['supply', '10 output; isolated; switched'],
      ['supply-8', '8 output; isolated; switched'],
      ['supply-5', '5 output; isolated; small; switched'],
      ['supply-high-current', 'high current; isolated'],
    ],
  },
  { says: 'daisy chain; daisychain; daisy chain cable; daisy chain lead', boxes: [['daisy-chain']] },
  {
    says: 'adaptor; adapter; wall wart; power adaptor; power adapter; mains adaptor; mains adapter; wallwart; plug in supply',
    boxes: [
      ['adaptor', '9v; dc; negative'],
      ['adaptor-ac', 'ac'],
    ],
  },
  { says: 'battery; 9v battery; 9 volt battery', boxes: [['battery', '9v']] },
  { says: 'battery bank; power bank; rechargeable supply; battery pack', boxes: [['battery-bank']] },
  {
    says: 'power strip; mains strip; extension; extension lead; distribution board; mains block; mains board; mains distribution; power board; extension cable; multi plug; mains extension',
    counts: 'way',
    boxes: [['mains-strip', '4 way; 6 way; switched']],
  },
];

/** One word for two boxes that belong together. */
export const STACKS: Readonly<Record<string, readonly string[]>> = {
  'half stack': ['head', '4x12'],
  'full stack': ['head', '2 4x12'],
  'bass stack': ['bass head', '4x10'],
};
