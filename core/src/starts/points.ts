import { inOf, insertsOf, outOf } from '../edits/wire.js';
import type { Device } from '../rig/device.js';
import { all, type Rig } from '../rig/rig.js';
import type { Crew } from './crew.js';

export interface Choice {
  readonly value: string;
  readonly label: string;
  /** Why one would; for a question of taste, whose school it is. */
  readonly because: string;
}

export interface Question {
  readonly id: string;
  readonly ask: string;
  /** The usual answer first. */
  readonly choices: readonly [Choice, ...Choice[]];
  /** What the kit answers by itself. */
  readonly byKit?: (rig: Rig) => string | undefined;
}

export type Answer = (question: string) => string;

/** A way to begin: a few questions, and how the boxes are wired then. Common practice throughout; practitioners differ where a question says so. */
export interface StartingPoint {
  readonly key: string;
  readonly name: string;
  readonly says: string;
  /** At most five. */
  readonly questions: readonly Question[];
  readonly wire: (crew: Crew, answer: Answer) => void;
}

const question = (id: string, ask: string, ...choices: readonly [Choice, ...Choice[]]): Question => ({ id, ask, choices });
const choice = (value: string, label: string, because: string): Choice => ({ value, label, because });

const hasSource = (rig: Rig, what: string): boolean => all(rig, 'device').some((d) => d.ends?.some((e) => e.is === 'source' && e.what === what));
const INSTRUMENT: Question = {
  ...question('instrument', 'What is in the hands?', choice('guitar', 'Guitar', 'a guitar starts the chain'), choice('bass', 'Bass', 'a bass starts the chain')),
  byKit: (rig) => (hasSource(rig, 'bass') && !hasSource(rig, 'guitar') ? 'bass' : undefined),
};
const HEARD = question('heard', 'Who hears the cabinet?', choice('house', 'The house, by a microphone', 'with a microphone the desk carries it'), choice('room', 'The room', 'in a small room the cabinet is loud enough'));
const VOLUME = (first: 'loop' | 'front') => {
  const loop = choice('loop', 'After the gain', 'school of the master: it turns the level down and leaves the gain as it is');
  const front = choice('front', 'Before the gain', "school of the guitar's knob: it cleans the sound up as it turns down");
  const none = choice('none', 'No volume pedal', 'the hand on the guitar will do');
  return question('volume', 'Where does the volume pedal act?', ...(first === 'loop' ? [loop, front, none] as const : [front, loop, none] as const));
};

const FRONT = ['compressor', 'low-drive'];
const usual = (box: Device): string => `${box.name}: its usual place in the order`;
const instrument = (c: Crew, a: Answer): Device => c.cast(a('instrument') === 'bass' ? 'bass' : 'guitar', 'where the sound begins');
const tuned = (c: Crew, from: Device): Device => {
  const tuner = c.cast('tuner', 'tuned in silence, always in the path');
  return c.chain(from, [tuner], () => 'the tuner mutes all that comes after it');
};

const STRAIGHT: StartingPoint = {
  key: 'straight', name: 'Straight into an amp', says: 'Everything in one line, in front of the amp.', questions: [INSTRUMENT, HEARD],
  wire: (c, a) => {
    const last = c.chain(tuned(c, instrument(c, a)), [...c.pedals('before the gain', 'before the amp', FRONT), ...c.pedals('after it', 'last before the amp', ['analog-delay'])], usual);
    const amp = c.cast('amp', 'makes it loud');
    c.lead(last, outOf(last)!.id, amp, 'in', 'the chain ends in the amp; its loop closes by itself');
    c.speakers(amp, a('heard') === 'house');
  },
};

const FRONT_AND_LOOP: StartingPoint = {
  key: 'front-and-loop', name: 'Front and loop', says: "Drives before the amp, echo and reverb in its loop, so that they come after the amp's own gain.",
  questions: [
    INSTRUMENT,
    question('modulation', 'Where does modulation stand?', choice('loop', 'In the loop', 'school of the clean swirl: wide, after the gain'), choice('front', 'In front', 'school of the thick swirl: the gain grinds what it moves')),
    VOLUME('loop'), HEARD,
  ],
  wire: (c, a) => {
    const front = c.pedals('before the gain', 'before the gain of the amp', FRONT);
    const late = c.pedals('after it', 'after the gain of the amp', ['chorus', 'analog-delay', 'hall-reverb']);
    const moves = (d: Device) => d.chains.some((x) => x.slots.some((s) => s.is === 'block' && (s.stage === 'modulation' || s.stage === 'tremolo')));
    const inFront = a('modulation') === 'front' ? late.filter(moves) : [];
    const volume = a('volume') === 'none' ? undefined : c.cast('volume', 'level under the foot');
    const last = c.chain(tuned(c, instrument(c, a)), [...front, ...inFront, ...(volume && a('volume') === 'front' ? [volume] : [])], usual);
    const amp = c.cast('amp with a loop', 'its loop takes what belongs after the gain');
    c.lead(last, outOf(last)!.id, amp, 'in', 'into the front of the amp');
    const inLoop = [...(volume && a('volume') === 'loop' ? [volume] : []), ...late.filter((d) => !inFront.includes(d))];
    if (inLoop.length) {
      c.lead(amp, 'send', inLoop[0]!, inOf(inLoop[0]!)!.id, 'the preamp leaves by the send');
      const end = c.chain(inLoop[0]!, inLoop.slice(1), usual);
      c.lead(end, outOf(end)!.id, amp, 'return', 'back into the power amp');
    }
    c.speakers(amp, a('heard') === 'house');
  },
};

const FOUR_CABLES: StartingPoint = {
  key: 'four-cable', name: 'Four cables with a switcher', says: "Every pedal in a loop of its own, and the amp's preamp in one of them: drives before it, echoes after it, all from one foot switch.",
  questions: [
    INSTRUMENT, question('air', 'Cable or wireless?', choice('cable', 'Cable', 'nothing to charge'), choice('wireless', 'Wireless', 'free to walk; its receiver is also a buffer')),
    VOLUME('front'), question('size', 'How many loops?', choice('eight', 'Eight', 'room for drives, the amp and effects'), choice('four', 'Four', 'a small board')), HEARD,
  ],
  wire: (c, a) => {
    const switcher = c.cast(a('size') === 'four' ? 'switcher of four' : 'switcher', 'takes every pedal in and out, and sends MIDI');
    const wireless = a('air') === 'wireless' ? [c.cast('wireless', 'no cable to the floor')] : [];
    const volume = a('volume') === 'none' ? undefined : c.cast('volume', 'level under the foot');
    const first = tuned(c, c.chain(instrument(c, a), wireless, usual));
    const before = c.chain(first, volume && a('volume') === 'front' ? [volume] : [], usual);
    const amp = c.cast('amp with a loop', 'gives its preamp to the switcher');
    c.lead(before, outOf(before)!.id, switcher, 'in', 'third of the four cables: the guitar into the switcher');
    const loops = [...insertsOf(switcher)].filter((i) => /^loop/.test(i.id));
    const room = loops.length - 1 - (volume && a('volume') === 'loop' ? 1 : 0);
    const front = c.pedals('before the gain', 'before the gain', room > 4 ? ['compressor', 'low-drive', 'high-drive'] : ['low-drive']);
    const left = Math.max(0, room - front.length);
    const late = c.pedals('after it', 'after the preamp', (room > 4 ? ['stereo-modulation', 'stereo-delay', 'stereo-reverb'] : ['stereo-delay', 'stereo-reverb']).slice(0, left));
    const put = (box: Device, why: string): void => {
      const loop = loops.shift();
      if (!loop) return void c.notes.push(`No loop is left for ${box.name}.`);
      c.inLoop(switcher, loop, box, why);
    };
    for (const box of front) put(box, `${box.name}: before the gain of the amp`);
    const loop = loops.shift();
    if (!loop) return void c.notes.push('Four cables need a loop for the amp, and none is left.');
    c.lead(switcher, loop.send[0]!.at, amp, 'in', 'first of the four cables: into the front of the amp');
    c.lead(amp, 'send', switcher, loop.return[0]!.at, 'second: the preamp comes back to the switcher');
    if (volume && a('volume') === 'loop') put(volume, 'the volume pedal as a master, after the gain');
    for (const box of late) put(box, `${box.name}: after the preamp`);
    c.lead(switcher, 'out', amp, 'return', 'fourth: into the power amp');
    c.speakers(amp, a('heard') === 'house');
  },
};

const AMP_LESS: StartingPoint = {
  key: 'amp-less', name: 'Amp-less, straight to the desk', says: 'No amp on stage: a preamp and a cabinet simulation on the floor, and balanced leads to the desk.',
  questions: [
    INSTRUMENT, question('sides', 'Mono or stereo?', choice('stereo', 'Stereo', 'echoes to both sides; needs two desk channels'), choice('mono', 'Mono', 'one channel, the same for everybody in the room')),
    question('simulation', 'Where does the cabinet simulation stand?', choice('early', 'In the preamp, before echo and reverb', 'school of the real room: what a cabinet would have done comes before the room'), choice('last', 'Last, in a box of its own', 'school of the loaded cabinet: everything goes through the speaker, as with effects in front of an amp')),
    question('di', 'How does it leave for the desk?', choice('di', 'Through DI boxes', 'isolated, and at a level that any desk takes'), choice('straight', 'Straight', 'one box less; earths meet at the desk')),
  ],
  wire: (c, a) => {
    const early = a('simulation') === 'early';
    const stereo = a('sides') === 'stereo';
    const last = c.chain(tuned(c, instrument(c, a)), c.pedals('before the gain', 'before the preamp', FRONT), usual);
    const preamp = early ? c.cast('preamp with cabinet simulation', 'gain and cabinet in one') : c.cast('preamp', 'the gain');
    c.lead(last, outOf(last)!.id, preamp, 'in', 'into the preamp');
    const late = c.pedals('after it', 'after the gain', stereo ? ['stereo-delay', 'stereo-reverb'] : ['mono-delay', 'hall-reverb']);
    const [left, right] = c.stereoChain({ device: preamp, left: preamp.jacks.find((j) => j.id === 'xlr' && late.length === 0)?.id ?? 'out' }, late, usual);
    let ends = [left, ...(stereo && right ? [right] : [])];
    if (!early) {
      const simulation = c.cast(ends.length > 1 ? 'stereo cabinet simulation' : 'cabinet simulation', 'in place of the cabinet');
      const into = ends.length > 1 ? ['in-l', 'in-r'] : ['in'];
      ends.forEach((e, i) => c.lead(e.device, e.jack, simulation, into[i]!, 'into the cabinet simulation, last in the chain'));
      ends = ends.map((_, i) => ({ device: simulation, jack: ends.length > 1 ? ['out-l', 'out-r'][i]! : 'out' }));
    }
    const desk = c.cast('desk', 'where the house hears it');
    if (a('di') === 'di' && early) {
      const di = c.cast(ends.length > 1 ? 'stereo di' : 'di', 'balanced and isolated');
      ends.forEach((e, i) => c.lead(e.device, e.jack, di, ends.length > 1 ? ['in-l', 'in-r'][i]! : 'in', 'the DI makes the long way balanced'));
      ends = ends.map((_, i) => ({ device: di, jack: ends.length > 1 ? ['out-l', 'out-r'][i]! : 'out' }));
    } else if (a('di') === 'di') c.notes.push('The cabinet simulation has balanced outputs of its own; a DI after it would change nothing.');
    ends.forEach((e, i) => c.lead(e.device, e.jack, desk, `ch${i + 1}`, 'to the desk'));
  },
};

const TWO_AMPS: StartingPoint = {
  key: 'two-amps', name: 'Two amps, A/B', says: 'One instrument into two amps, one at a time or both.',
  questions: [INSTRUMENT, question('split', 'One at a time, or both?', choice('either', 'One or the other', 'an A/B box; the foot chooses'), choice('both', 'Both, isolated', 'a transformer keeps the earths of the two amps apart, against hum; never lift the safety earth of an amp')), HEARD],
  wire: (c, a) => {
    const last = c.chain(tuned(c, instrument(c, a)), [...c.pedals('before the gain', 'shared by both amps', FRONT), ...c.pedals('after it', 'shared by both amps', [])], usual);
    const both = a('split') === 'both';
    const split = both ? c.cast('splitter with a transformer', 'feeds both amps without joining their earths') : c.cast('A/B box', 'chooses the amp');
    c.lead(last, outOf(last)!.id, split, 'in', 'the whole signal comes to the split');
    if (!both) c.oneEndAtATime();
    let desk: Device | undefined;
    (both ? ['out1', 'out2'] : ['a', 'b']).forEach((out, i) => {
      const amp = c.cast('amp', i ? 'the second amp' : 'the first amp');
      if (i && !both) c.waiting.push(amp.id);
      c.lead(split, out, amp, 'in', i ? 'into the second amp' : 'into the first amp');
      desk = c.speakers(amp, a('heard') === 'house', i + 1, desk);
    });
  },
};

const WET_DRY: StartingPoint = {
  key: 'wet-dry', name: 'Wet and dry', says: 'The amp stays dry; echo and reverb come from speakers of their own.',
  questions: [
    INSTRUMENT, question('tap', 'Where is the wet signal taken?', choice('speaker', 'From the speaker line', 'school of the whole amp: power amp and all, through a line-out box'), choice('send', "From the amp's send", 'school of the preamp: cleaner, no power amp in it')),
    question('sides', 'How many wet speakers?', choice('stereo', 'Two', 'wet left and right, dry in the middle'), choice('mono', 'One', 'wet beside dry')), HEARD,
  ],
  wire: (c, a) => {
    const last = c.chain(tuned(c, instrument(c, a)), c.pedals('before the gain', 'before the amp', FRONT), usual);
    const amp = c.cast(a('tap') === 'send' ? 'amp with a loop' : 'amp', 'the dry side');
    c.lead(last, outOf(last)!.id, amp, 'in', 'into the amp');
    const late = [c.cast('stereo delay', 'the wet side'), c.cast('stereo reverb', 'the wet side')];
    const cabinet = c.cast('cabinet', 'the dry speaker, and the load of the amp');
    let from: { device: Device; left: string };
    if (a('tap') === 'speaker') {
      const tap = c.cast('line out', 'takes a line signal off the speaker line');
      c.lead(amp, 'speaker', tap, 'in', 'a speaker lead; the box passes the power on and needs its cabinet');
      c.lead(tap, 'through', cabinet, 'in', 'the cabinet is the load: a valve amp must not run without it');
      from = { device: tap, left: 'line' };
    } else {
      c.lead(amp, 'speaker', cabinet, 'in', 'a speaker lead; a valve amp must not run without its load');
      from = { device: amp, left: 'send' };
      c.notes.push('A plug in the send leaves the return as it is on most amps; on one whose send breaks the loop the dry side falls silent.');
    }
    const [left, right] = c.stereoChain(from, late, usual);
    if (a('sides') === 'stereo' && right) {
      const wet = c.cast('stereo wet amps', 'power and speakers for the wet sides');
      c.lead(left.device, left.jack, wet, 'in-l', 'the wet side, left');
      c.lead(right.device, right.jack, wet, 'in-r', 'the wet side, right');
    } else {
      const wet = c.cast('wet amp', 'power and speaker for the wet side');
      c.lead(left.device, left.jack, wet, 'in', 'the wet side, in one speaker');
    }
    if (a('heard') === 'house') c.microphoneFor(cabinet);
  },
};

const BASS_SPLIT: StartingPoint = {
  key: 'bass-split', name: 'Bass split by frequency', says: 'The lows stay clean and even, the highs go through fuzz and preamp.',
  questions: [
    question('join', 'How do lows and highs meet?', choice('splitter', 'In the splitter', 'one signal, one channel, always in balance'), choice('desk', 'At the desk, on two channels', 'the engineer balances them; the preamp leaves by its own XLR')),
  ],
  wire: (c, a) => {
    const bass = c.cast('bass', 'where the sound begins');
    const first = tuned(c, bass);
    const splitter = c.cast('frequency splitter', 'parts lows from highs');
    const [compressor, fuzz, preamp] = [c.cast('bass compressor', 'keeps the lows even'), c.cast('bass fuzz', 'grit on the highs only'), c.cast('bass preamp', 'colours the highs')];
    c.lead(first, outOf(first)!.id, splitter, 'in', 'the whole bass into the splitter');
    c.lead(splitter, 'low-send', compressor, 'in', 'lows: compressed, never driven');
    c.lead(compressor, 'out', splitter, 'low-return', 'lows come back');
    c.lead(splitter, 'high-send', fuzz, 'in', 'highs: fuzz first');
    c.lead(fuzz, 'out', preamp, 'in', 'then the preamp');
    const desk = c.cast('desk', 'where the house hears it');
    const di = c.cast('di', 'balanced and isolated');
    if (a('join') === 'desk') c.lead(preamp, 'xlr', desk, 'ch2', 'highs on a channel of their own');
    else c.lead(preamp, 'out', splitter, 'high-return', 'highs come back');
    c.lead(splitter, 'out', di, 'in', a('join') === 'desk' ? 'the lows go on' : 'joined again');
    c.lead(di, 'out', desk, 'ch1', 'to the desk');
  },
};

const MODELLER: StartingPoint = {
  key: 'modeller', name: 'A modeller as the amp, pedals in its loops', says: 'The modeller plays the amp and the cabinet; your own pedals stand in its loops.',
  questions: [
    INSTRUMENT, question('drives', 'Where do your drives stand?', choice('loop', 'In the first loop', 'the modeller takes them in and out by program'), choice('front', 'In front', 'school of the first gain: they see the guitar itself; the foot switches them')),
    question('out', 'Where does it go?', choice('desk', 'To the desk, in stereo', 'the house hears what the ears hear'), choice('speaker', 'To a full-range speaker', 'something that moves air behind you')),
  ],
  wire: (c, a) => {
    const modeller = c.cast('modeller', 'amp, cabinet and effects in one');
    const front = c.pedals('before the gain', 'your own drives', ['low-drive', 'fuzz']);
    const late = c.pedals('after it', 'your own effects', ['analog-delay']);
    const first = tuned(c, instrument(c, a));
    const last = a('drives') === 'front' ? c.chain(first, front, usual) : first;
    c.lead(last, outOf(last)!.id, modeller, 'in', 'into the modeller');
    const loop = (n: 1 | 2, boxes: readonly Device[], why: string): void => {
      if (boxes.length === 0) return;
      c.lead(modeller, `send${n}`, boxes[0]!, inOf(boxes[0]!)!.id, why);
      const end = c.chain(boxes[0]!, boxes.slice(1), usual);
      c.lead(end, outOf(end)!.id, modeller, `return${n}`, 'back into the modeller');
    };
    if (a('drives') === 'loop') loop(1, front, 'first loop: before the amp of the modeller');
    loop(2, late, 'second loop: after it');
    if (a('out') === 'desk') {
      const desk = c.cast('desk', 'where the house hears it');
      const xlr = modeller.jacks.some((j) => j.id === 'xlr-l');
      c.lead(modeller, xlr ? 'xlr-l' : 'out-l', desk, 'ch1', 'left to the desk');
      c.lead(modeller, xlr ? 'xlr-r' : 'out-r', desk, 'ch2', 'right to the desk');
    } else c.lead(modeller, 'out-l', c.cast('wet amp', 'a speaker that adds no colour'), 'in', 'with only the left plugged it carries both sides');
  },
};

const LOOPER: StartingPoint = {
  key: 'looper', name: 'Looper station with a desk', says: 'One person, many layers: guitar, percussion and voice, looped and mixed.',
  questions: [
    INSTRUMENT, question('place', 'Where does the looper stand?', choice('loop', "In the amp's loop", 'layers keep the sound they were played with, and come from the amp'), choice('before', 'Before the amp', 'school of the pedal: layers change with the amp')),
    question('percussion', 'Percussion too?', choice('yes', 'Yes, on its own output', 'a second input and the sub output keep it out of the amp'), choice('no', 'No', 'guitar only')),
    question('voice', 'A voice?', choice('yes', 'Yes, straight to the desk', 'it is not looped'), choice('no', 'No', 'no microphone')),
  ],
  wire: (c, a) => {
    const last = c.chain(tuned(c, instrument(c, a)), c.pedals('before the gain', 'before the amp', ['low-drive']), usual);
    const amp = c.cast('amp with a loop', 'the guitar, and what was looped of it');
    const looper = c.cast('looper station', 'keeps the layers');
    if (a('place') === 'loop') {
      c.lead(last, outOf(last)!.id, amp, 'in', 'into the front of the amp');
      c.lead(amp, 'send', looper, 'in1', 'after the gain, into the looper');
      c.lead(looper, 'main-l', amp, 'return', 'layers and guitar back into the power amp');
    } else {
      c.lead(last, outOf(last)!.id, looper, 'in1', 'into the looper');
      c.lead(looper, 'main-l', amp, 'in', 'layers and guitar into the amp');
    }
    const desk = c.speakers(amp, true)!;
    if (a('percussion') === 'yes') {
      c.lead(c.cast('percussion', 'the second hand'), 'out', looper, 'in2', 'the second input');
      const di = c.cast('di', 'percussion to the desk');
      c.lead(looper, 'sub', di, 'in', 'the sub output keeps percussion out of the amp');
      c.lead(di, 'out', desk, 'ch2', 'to the desk');
    }
    if (a('voice') === 'yes') c.lead(c.cast('voice', 'the voice'), 'out', desk, 'ch3', 'straight to the desk');
  },
};

const TIMELINE: StartingPoint = {
  key: 'timeline', name: 'Driven by a timeline, no stomps', says: 'A computer plays the show and calls every sound; the hands stay on the strings.',
  questions: [
    INSTRUMENT, question('tone', 'What makes the tone?', choice('modeller', 'A modeller to the desk', 'one box that the timeline can set whole'), choice('amp', 'An amp with a loop', 'programmable effects in its loop')),
    question('fallback', 'A switcher as a second way?', choice('no', 'No', 'the timeline is trusted'), choice('yes', 'Yes, a small one', 'if the computer stops, the foot can go on')),
  ],
  wire: (c, a) => {
    c.cast('timeline', 'sends the program changes, cue by cue');
    const first = tuned(c, instrument(c, a));
    const switcher = a('fallback') === 'yes' ? c.cast('switcher of four', 'the second way') : undefined;
    const front = c.pedals('before the gain', 'before the gain', switcher ? ['low-drive'] : ['midi-overdrive']);
    if (switcher) {
      c.lead(first, outOf(first)!.id, switcher, 'in', 'the switcher takes the whole signal');
      insertsOf(switcher).forEach((loop, i) => {
        const box = front[i];
        if (box) c.inLoop(switcher, loop, box, `${box.name} in a loop`);
      });
    }
    const last = switcher ?? c.chain(first, front, usual);
    if (a('tone') === 'modeller') {
      const modeller = c.cast('modeller without loops', 'amp, cabinet and effects in one');
      const desk = c.cast('desk', 'where the house hears it');
      c.lead(last, outOf(last)!.id, modeller, 'in', 'into the modeller');
      c.lead(modeller, 'out-l', desk, 'ch1', 'left to the desk');
      c.lead(modeller, 'out-r', desk, 'ch2', 'right to the desk');
      return;
    }
    const amp = c.cast('amp with a loop', 'makes it loud');
    const late = [c.cast('stereo delay', 'set by the timeline'), c.cast('stereo reverb', 'set by the timeline')];
    c.lead(last, outOf(last)!.id, amp, 'in', 'into the amp');
    c.lead(amp, 'send', late[0]!, inOf(late[0]!)!.id, 'the preamp leaves by the send');
    c.chain(late[0]!, late.slice(1), usual);
    c.lead(late[1]!, outOf(late[1]!)!.id, amp, 'return', 'back into the power amp');
    c.speakers(amp, true);
  },
};

export const STARTING_POINTS: readonly StartingPoint[] = [STRAIGHT, FRONT_AND_LOOP, FOUR_CABLES, AMP_LESS, TWO_AMPS, WET_DRY, BASS_SPLIT, MODELLER, LOOPER, TIMELINE];
