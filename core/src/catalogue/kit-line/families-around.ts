import type { Family } from './family.js';

/** What people call what the rest is plugged into: switching, control, amps, outputs, leads, supply. */
export const AROUND: readonly Family[] = [
  {
    says: 'switcher; loop switcher; pedal switcher; true bypass switcher; looper switcher; loop switching system; effect switcher; programmable switcher; loop selector; pedalboard switcher',
    counts: 'loop',
    boxes: [
      ['switcher-8', '8 loop; midi; orderable'],
      ['switcher-8-fixed', '8 loop; midi; fixed'],
      ['switcher-8-insert', '8 loop; midi; insert'],
      ['switcher-8-stereo', '8 loop; midi; stereo'],
      ['switcher-8-parallel', '8 loop; midi; parallel; orderable'],
      [
        'switcher-8-two-ins',
        '8 loop; midi; 2 input; 2 output; large; tuner out; mute; carry over; orderable; parallel; expression; 6 button',
      ],
      ['switcher-10', '10 loop; midi; orderable'],
      ['switcher-6', '6 loop; midi'],
      ['switcher-4', '4 loop; midi; small'],
      ['switcher-5-plain', '5 loop; no midi'],
      ['loop-1', '1 loop; no midi'],
      ['loop-2', '2 loop; no midi'],
      ['loop-rack-8', '8 loop; midi; rack'],
      ['loop-rack-4', '4 loop; midi; rack'],
    ],
  },
  {
    says: 'loop rack; rack switcher; rack loop switcher; rack loop; rack of loop; loop in a rack; rackmount switcher; rackmount loop switcher; rack on midi; midi rack; rack with midi',
    counts: 'loop',
    boxes: [
      ['loop-rack-8', '8 loop; midi; rack'],
      ['loop-rack-4', '4 loop; midi; rack'],
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
    says: 'aby; ab; ab box; aby box; ab switch; aby switch; amp selector; amp switch; amp switcher; ab pedal; amp splitter; ab amp switch',
    counts: 'way',
    boxes: [
      ['ab-out', '2 way; 2 amp'],
      ['abc-out', '3 way; 3 amp'],
      ['abc-any', '3 way; 3 amp; any'],
      ['ab-midi', '2 way; 2 amp; midi; any'],
      ['abc-midi', '3 way; 3 amp; midi; any'],
    ],
  },
  {
    says: 'abc; abc box; abc switch; three amp selector; three amp switcher; amp selector for three amps; amp switcher for three amps; amp selector for 3 amps; amp switcher for 3 amps; 3 amp selector; 3 amp switcher',
    boxes: [
      ['abc-out', '3 way; 3 amp'],
      ['abc-any', '3 way; 3 amp; any'],
      ['abc-midi', '3 way; 3 amp; midi; any'],
    ],
  },
  {
    says: 'guitar selector; instrument selector; guitar switcher; instrument switcher; input selector; two guitar input; ab for guitar; aby for guitar',
    boxes: [
      ['ab-in', '2 input'],
      ['ab-in-both', 'mix'],
    ],
  },
  {
    says: 'kill switch; mute switch; mute pedal; killswitch; mute foot switch; mute; mute box',
    boxes: [
      ['kill-switch', 'mute'],
      ['mute-tuner-out', 'tuner out; tuner'],
    ],
  },
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
      ['volume', 'passive; mono; tuner out'],
      ['volume-active', 'tuner out; active; buffered'],
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
      ['small-controller', 'midi; small; 4 button; 2 button'],
      ['mini-pc', 'midi'],
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
  {
    says: 'midi thru; midi thru box; midi splitter; midi through; midi split',
    counts: 'way',
    boxes: [['midi-thru', 'midi; 4 way']],
  },
  {
    says: 'midi box',
    asks: true,
    boxes: [
      ['midi-interface', 'midi'],
      ['midi-thru', 'midi; 4 way'],
      ['midi-merge', 'midi'],
    ],
  },
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
      ['tone-memory-head', 'valve; midi; tone memory; 3 channel; loop; boost'],
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
      ['tone-memory-head', 'valve; midi; tone memory; loop'],
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
    boxes: [
      ['load-box', 'line out'],
      ['load-sim', 'cab sim'],
    ],
  },
  { says: 'attenuator; power soak; power attenuator', boxes: [['attenuator'], ['load-box', 'line out']] },
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
      ['desk', ''],
      ['desk-16', '16 channel; large'],
      ['mixer-4', '4 channel; line; mono'],
      ['mixer-stereo', 'stereo; line'],
    ],
  },
  {
    says: 'desk; mixing desk; foh; front of house; pa; house; console; sound desk; pa system; house desk; foh desk; house pa; mixing console',
    counts: 'channel',
    boxes: [
      ['desk', '4 channel'],
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
  {
    says: 'patchbay; patch bay; jack panel; patch panel; junction box; jack patch panel; rack panel; panel',
    boxes: [['jack-panel']],
  },
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
      ['adaptor', 'dc'],
      ['adaptor-ac', 'ac'],
    ],
  },
  { says: 'battery; 9v battery; 9 volt battery', boxes: [['battery']] },
  { says: 'battery bank; power bank; rechargeable supply; battery pack', boxes: [['battery-bank']] },
  {
    says: 'power strip; mains strip; extension; extension lead; distribution board; mains block; mains board; mains distribution; power board; extension cable; multi plug; mains extension',
    counts: 'way',
    boxes: [['mains-strip', '4 way; 6 way; switched']],
  },
];
