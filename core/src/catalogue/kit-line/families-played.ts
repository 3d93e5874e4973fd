import type { Family } from './family.js';

/**
 * What people call instruments, effects and modellers, by family. Qualities are words of `words.ts`; a phrase that only one box of the catalogue
 * goes by (`Generic.says`) need not stand here. Usage is common practice, from memory.
 */
export const PLAYED: readonly Family[] = [
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
  {
    says: 'laptop; computer',
    asks: true,
    boxes: [['player', 'backing track'], ['timeline', 'timeline'], ['recorder']],
  },
  {
    says: 'microphone; mic; dynamic mic; condenser mic; condenser; vocal mic; dynamic microphone; condenser microphone; vocal microphone',
    boxes: [['microphone']],
  },
  { says: 'cab mic; guitar mic; amp mic; cabinet mic; speaker mic; mic on cab; mic on amp', boxes: [['cab-mic']] },
  {
    says: 'wireless; wireless receiver; wireless system; radio system; radio receiver; wireless guitar; wireless pack; transmitter; wireless transmitter; radio transmitter',
    boxes: [['wireless'], ['wireless-tuner', 'tuner; tuner out']],
  },
  {
    says: 'compressor; comp; compression; sustainer',
    boxes: [
      ['compressor', 'optical; analog'],
      ['bass-compressor', 'bass; multiband'],
      ['dual-compressor', 'dual'],
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
    counts: 'channel',
    boxes: [
      ['preamp-pedal', 'floor'],
      ['valve-preamp', 'valve'],
      ['preamp-di', 'cab sim; di'],
      ['acoustic-preamp', 'acoustic'],
      ['bass-preamp-di', 'bass; di'],
      ['preamp-loop', 'loop'],
      ['preamp-two-channel', '2 channel; loop; valve; floor'],
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
  {
    says: 'modulation; mod',
    boxes: [
      ['stereo-modulation', 'stereo; midi; digital'],
      ['preset-modulation', 'stereo; midi; digital; own switch'],
    ],
  },
  {
    says: 'delay; echo; delay pedal',
    boxes: [
      ['analog-delay', 'analog; mono'],
      ['stereo-delay', 'stereo; midi; digital; dual'],
      ['mono-delay', 'mono; midi; digital'],
      ['tape-echo', 'tape'],
      ['preset-delay', 'stereo; midi; digital; own switch'],
    ],
  },
  {
    says: 'delay reverb; reverb delay; delay and reverb in one; reverb and delay in one; ambience box; delay reverb combo',
    boxes: [
      ['delay-reverb', 'stereo; midi; digital'],
      ['preset-delay-reverb', 'stereo; midi; digital; own switch'],
    ],
  },
  {
    says: 'reverb; verb; reverb pedal',
    boxes: [
      ['spring-reverb', 'spring; mono; analog'],
      ['hall-reverb', 'hall; digital'],
      ['stereo-reverb', 'stereo; midi; digital'],
      ['preset-reverb', 'stereo; midi; digital; own switch'],
    ],
  },
  { says: 'freeze pedal; note hold; infinite sustain; sound retainer', boxes: [['hold']] },
  {
    says: 'looper; loop pedal; loop recorder; looper pedal; phrase looper',
    boxes: [
      ['looper', 'mono'],
      ['stereo-looper', 'stereo'],
      ['looper-station', '2 track; 3 track; multi track; dual; 2 output; 2 input'],
    ],
  },
  { says: 'loop station; looper station', boxes: [['looper-station', 'midi; stereo; multi track']] },
  {
    says: 'modeller; modeler; amp and effects modeller; guitar processor; guitar modeller',
    boxes: [
      ['modeller', '1 loop; loop; stereo; midi; expression; cab sim'],
      ['modeller-two-loops', '2 loop; large; stereo; midi; cab sim'],
      ['amp-modeller', 'no loop; stereo; cab sim'],
      ['modeller-rack', 'rack; 2 loop; loop; stereo; midi; cab sim; expression'],
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
    boxes: [
      ['amp-modeller', 'no loop; stereo; cab sim; midi'],
      ['amp-sim-loop', 'loop; 1 loop; stereo; cab sim; midi'],
    ],
  },
  {
    says: 'cab sim; cabinet sim; cabinet simulation; cabinet simulator; cab simulator; speaker sim; speaker simulator; ir loader; ir; impulse loader; impulse response loader',
    boxes: [
      ['cab-sim', 'mono; digital'],
      ['stereo-cab-sim', 'stereo; digital'],
    ],
  },
  { says: 'drum machine; rhythm machine; beat machine; rhythm box', boxes: [['drum-machine']] },
];
