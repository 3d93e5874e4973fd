import { insertsOf, theOutput, theInput } from '../edits/wire.js';
import { theItem, theFirst, surely } from '../known/the.js';
import type { Device } from '../rig/device.js';
import { shareLoop } from './amp-points.js';
import type { Crew, Outlet } from './crew.js';
import {
  begun,
  choice,
  FRONT,
  hasSwitcher,
  INSTRUMENT,
  question,
  tuned,
  TUNER,
  tunedLast,
  usual,
  type StartingPoint,
} from './questions.js';

/** Every box in a loop of its own, the last loop shared by those for which none is left. */
const inLoops = (c: Crew, switcher: Device, boxes: readonly Device[]): void => {
  const loops = insertsOf(switcher).filter((i) => /^loop/.test(i.id));
  const alone = boxes.length <= loops.length ? boxes : boxes.slice(0, loops.length - 1);
  alone.forEach((box, i) => c.inLoop(switcher, theItem(loops, i), box, `${box.name}: in a loop of its own`));
  const shared = boxes.slice(alone.length);
  if (shared.length) shareLoop(c, switcher, theItem(loops, alone.length), shared);
};

/** A DI for each way to the desk: the stereo one, or two that the kit has. */
const throughDi = (c: Crew, ends: readonly Outlet[]): readonly Outlet[] => {
  const why = 'balanced and isolated';
  const long = 'the DI makes the long way balanced';
  const isPair = ends.length > 1 && (c.could('stereo di') > 0 || c.could('di') < 2);
  const pair = isPair ? c.cast('stereo di', why) : undefined;
  return ends.map((e, i): Outlet => {
    const di = pair ?? c.cast('di', why);
    c.lead(e.device, e.jack, di, pair ? theItem(['in-l', 'in-r'], i) : 'in', long);
    return { device: di, jack: pair ? theItem(['out-l', 'out-r'], i) : 'out' };
  });
};

/** The lead that stays clean and the lead that is driven, beside each other to the desk. */
export const TWO_DIS: StartingPoint = {
  key: 'two-dis',
  name: 'Two DIs side by side',
  says: 'The instrument is split: one side clean and always there, one through your pedals; two desk channels.',
  questions: [
    INSTRUMENT,
    question(
      'live',
      'What does the clean side carry?',
      choice('clean', 'The instrument as it is', 'whatever happens on the board, the house has something'),
      choice('compressed', 'The instrument, compressed', 'even lows under a driven side'),
    ),
    TUNER,
  ],
  wire: (c, a) => {
    const first = tunedLast(c, begun(c, a), a);
    const split = c.cast('splitter with a transformer', 'two ways from one instrument, their earths kept apart');
    c.lead(first, theOutput(first).id, split, 'in', 'the whole signal comes to the split');
    const compressor = a('live') === 'compressed' ? c.maybe('bass compressor', 'keeps the clean side even') : undefined;
    const even =
      a('live') === 'compressed' ? (compressor ?? c.get('compressor', 'keeps the clean side even')) : undefined;
    const driven = [
      ...c.pedals('before the gain', 'on the driven side', ['distortion']),
      ...c.pedals('after it', 'on the driven side', []),
    ];
    c.lead(split, 'out1', theFirst(driven), theInput(theFirst(driven)).id, 'the driven side');
    const end = c.chain(theFirst(driven), driven.slice(1), usual);
    if (even) c.lead(split, 'out2', even, theInput(even).id, 'the clean side');
    const clean: Outlet = even ? { device: even, jack: theOutput(even).id } : { device: split, jack: 'out2' };
    const desk = c.cast('desk', 'where the house hears it');
    [{ device: end, jack: theOutput(end).id }, clean].forEach((from, i) => {
      const di = c.cast('di', i ? 'the clean side, always live' : 'the driven side');
      c.lead(from.device, from.jack, di, 'in', i ? 'the clean side' : 'the driven side');
      c.lead(di, 'out', desk, `ch${i + 1}`, 'to the desk');
    });
  },
};

export const AMP_LESS: StartingPoint = {
  key: 'amp-less',
  name: 'Amp-less, straight to the desk',
  says: 'No amp on stage: a preamp and a cabinet simulation on the floor, and balanced leads to the desk.',
  questions: [
    INSTRUMENT,
    question(
      'sides',
      'Mono or stereo?',
      choice('stereo', 'Stereo', 'echoes to both sides; needs two desk channels'),
      choice('mono', 'Mono', 'one channel, the same for everybody in the room'),
    ),
    question(
      'simulation',
      'Where does the cabinet simulation stand?',
      choice('early', 'In the preamp', 'school of the real room: what a cabinet would have done comes before the room'),
      choice(
        'last',
        'Last, in its own box',
        'school of the loaded cabinet: everything goes through the speaker, as with effects in front of an amp',
      ),
    ),
    question(
      'di',
      'How does it leave for the desk?',
      choice('di', 'Through DI boxes', 'isolated, and at a level that any desk takes'),
      choice('straight', 'Straight', 'one box less; earths meet at the desk'),
    ),
    {
      ...question(
        'switcher',
        'What takes the pedals in and out?',
        choice('feet', 'Your feet, on each box', 'no switcher to carry and to type into'),
        choice('switcher', 'A loop switcher', 'one stomp calls a sound, as with the amp'),
      ),
      byKit: (rig) => (hasSwitcher(rig) ? 'switcher' : undefined),
    },
    TUNER,
  ],
  wire: (c, a) => {
    const early = a('simulation') === 'early';
    const stereo = a('sides') === 'stereo';
    const first = begun(c, a);
    const switcher =
      a('switcher') === 'switcher' ? c.cast('switcher', 'takes pedals and preamp in and out') : undefined;
    const front = c.pedals('before the gain', 'before the preamp', FRONT);
    const last = switcher ? tunedLast(c, first, a) : tunedLast(c, c.chain(first, front, usual), a);
    const preamp = early
      ? c.cast('preamp with cabinet simulation', 'gain and cabinet in one')
      : c.cast('preamp', 'the gain');
    if (switcher) {
      c.lead(last, theOutput(last).id, switcher, 'in', 'the whole signal into the switcher');
      inLoops(c, switcher, [...front, preamp]);
    } else c.lead(last, theOutput(last).id, preamp, 'in', 'into the preamp');
    const late = c.pedals(
      'after it',
      'after the gain',
      stereo ? ['stereo-delay', 'stereo-reverb'] : ['mono-delay', 'hall-reverb'],
    );
    const [left, right] = c.stereoChain(
      switcher
        ? { device: switcher, left: 'out' }
        : { device: preamp, left: preamp.jacks.find((j) => j.id === 'xlr' && late.length === 0)?.id ?? 'out' },
      late,
      usual,
    );
    let ends: readonly Outlet[] = [left, ...(stereo && right ? [right] : [])];
    if (!early) {
      const simulation = c.cast(
        ends.length > 1 ? 'stereo cabinet simulation' : 'cabinet simulation',
        'in place of the cabinet',
      );
      const into = ends.length > 1 ? ['in-l', 'in-r'] : ['in'];
      ends.forEach((e, i) =>
        c.lead(e.device, e.jack, simulation, theItem(into, i), 'into the cabinet simulation, last in the chain'),
      );
      ends = ends.map((_, i) => ({
        device: simulation,
        jack: ends.length > 1 ? theItem(['out-l', 'out-r'], i) : 'out',
      }));
    }
    const desk = c.cast('desk', 'where the house hears it');
    if (a('di') === 'di' && early) ends = throughDi(c, ends);
    else if (a('di') === 'di')
      c.notes.push('The cabinet simulation has balanced outputs of its own; a DI after it would change nothing.');
    ends.forEach((e, i) => c.lead(e.device, e.jack, desk, `ch${i + 1}`, 'to the desk'));
  },
};

export const BASS_SPLIT: StartingPoint = {
  key: 'bass-split',
  name: 'Bass split by frequency',
  says: 'The lows stay clean and even, the highs go through fuzz and preamp.',
  questions: [
    question(
      'join',
      'How do lows and highs meet?',
      choice('splitter', 'In the splitter', 'one signal, one channel, always in balance'),
      choice('desk', 'At the desk, on two channels', 'the engineer balances them; the preamp leaves by its own XLR'),
    ),
    TUNER,
  ],
  wire: (c, a) => {
    const bass = c.cast('bass', 'where the sound begins');
    const first = tunedLast(c, tuned(c, bass, a), a);
    const splitter = c.cast('frequency splitter', 'parts lows from highs');
    const [compressor, fuzz, preamp] = [
      c.cast('bass compressor', 'keeps the lows even'),
      c.cast('bass fuzz', 'grit on the highs only'),
      c.cast('bass preamp', 'colours the highs'),
    ];
    c.lead(first, theOutput(first).id, splitter, 'in', 'the whole bass into the splitter');
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

export const MODELLER: StartingPoint = {
  key: 'modeller',
  name: 'A modeller as the amp, pedals in its loops',
  says: 'The modeller plays the amp and the cabinet; your own pedals stand in its loops.',
  questions: [
    INSTRUMENT,
    question(
      'drives',
      'Where do your drives stand?',
      choice('loop', 'In the first loop', 'the modeller takes them in and out by program'),
      choice('front', 'In front', 'school of the first gain: they see the guitar itself; the foot switches them'),
    ),
    question(
      'out',
      'Where does it go?',
      choice('desk', 'To the desk, in stereo', 'the house hears what the ears hear'),
      choice('speaker', 'To a full-range speaker', 'something that moves air behind you'),
    ),
    TUNER,
  ],
  wire: (c, a) => {
    const modeller = c.cast('modeller', 'amp, cabinet and effects in one');
    const front = c.pedals('before the gain', 'your own drives', ['low-drive', 'fuzz']);
    const late = c.pedals('after it', 'your own effects', ['analog-delay']);
    const first = begun(c, a);
    const last = tunedLast(c, a('drives') === 'front' ? c.chain(first, front, usual) : first, a);
    c.lead(last, theOutput(last).id, modeller, 'in', 'into the modeller');
    const loop = (n: 1 | 2, boxes: readonly Device[], why: string): void => {
      if (boxes.length === 0) return;
      c.lead(modeller, `send${n}`, theFirst(boxes), theInput(theFirst(boxes)).id, why);
      const end = c.chain(theFirst(boxes), boxes.slice(1), usual);
      c.lead(end, theOutput(end).id, modeller, `return${n}`, 'back into the modeller');
    };
    if (a('drives') === 'loop') loop(1, front, 'first loop: before the amp of the modeller');
    loop(2, late, 'second loop: after it');
    if (a('out') === 'desk') {
      const desk = c.cast('desk', 'where the house hears it');
      const xlr = modeller.jacks.some((j) => j.id === 'xlr-l');
      c.lead(modeller, xlr ? 'xlr-l' : 'out-l', desk, 'ch1', 'left to the desk');
      c.lead(modeller, xlr ? 'xlr-r' : 'out-r', desk, 'ch2', 'right to the desk');
    } else
      c.lead(
        modeller,
        'out-l',
        c.cast('wet amp', 'a speaker that adds no colour'),
        'in',
        'with only the left plugged it carries both sides',
      );
  },
};

export const LOOPER: StartingPoint = {
  key: 'looper',
  name: 'Looper station with a desk',
  says: 'One person, many layers: guitar, percussion and voice, looped and mixed.',
  questions: [
    INSTRUMENT,
    question(
      'place',
      'Where does the looper stand?',
      choice('loop', "In the amp's loop", 'layers keep the sound they were played with, and come from the amp'),
      choice('before', 'Before the amp', 'school of the pedal: layers change with the amp'),
    ),
    question(
      'percussion',
      'Percussion too?',
      choice('yes', 'Yes, on its own output', 'a second input and the sub output keep it out of the amp'),
      choice('no', 'No', 'guitar only'),
    ),
    question(
      'voice',
      'A voice?',
      choice('yes', 'Yes, straight to the desk', 'it is not looped'),
      choice('no', 'No', 'no microphone'),
    ),
    TUNER,
  ],
  wire: (c, a) => {
    const last = tunedLast(
      c,
      c.chain(begun(c, a), c.pedals('before the gain', 'before the amp', ['low-drive']), usual),
      a,
    );
    const amp = c.cast('amp with a loop', 'the guitar, and what was looped of it');
    const looper = c.cast('looper station', 'keeps the layers');
    if (a('place') === 'loop') {
      c.lead(last, theOutput(last).id, amp, 'in', 'into the front of the amp');
      c.lead(amp, 'send', looper, 'in1', 'after the gain, into the looper');
      c.lead(looper, 'main-l', amp, 'return', 'layers and guitar back into the power amp');
    } else {
      c.lead(last, theOutput(last).id, looper, 'in1', 'into the looper');
      c.lead(looper, 'main-l', amp, 'in', 'layers and guitar into the amp');
    }
    const desk = surely(c.speakers(amp, true));
    if (a('percussion') === 'yes') {
      c.lead(c.cast('percussion', 'the second hand'), 'out', looper, 'in2', 'the second input');
      const di = c.cast('di', 'percussion to the desk');
      c.lead(looper, 'sub', di, 'in', 'the sub output keeps percussion out of the amp');
      c.lead(di, 'out', desk, 'ch2', 'to the desk');
    }
    if (a('voice') === 'yes') c.lead(c.cast('voice', 'the voice'), 'out', desk, 'ch3', 'straight to the desk');
  },
};

export const TIMELINE: StartingPoint = {
  key: 'timeline',
  name: 'Driven by a timeline, no stomps',
  says: 'A computer plays the show and calls every sound; the hands stay on the strings.',
  questions: [
    INSTRUMENT,
    question(
      'tone',
      'What makes the tone?',
      choice('modeller', 'A modeller to the desk', 'one box that the timeline can set whole'),
      choice('amp', 'An amp with a loop', 'programmable effects in its loop'),
    ),
    question(
      'fallback',
      'A switcher as a second way?',
      choice('no', 'No', 'the timeline is trusted'),
      choice('yes', 'Yes, a small one', 'if the computer stops, the foot can go on'),
    ),
    TUNER,
  ],
  wire: (c, a) => {
    c.cast('timeline', 'sends the program changes, cue by cue');
    const first = begun(c, a);
    const switcher = a('fallback') === 'yes' ? c.cast('switcher of four', 'the second way') : undefined;
    const front = c.pedals('before the gain', 'before the gain', switcher ? ['low-drive'] : ['midi-overdrive']);
    if (switcher) {
      c.lead(first, theOutput(first).id, switcher, 'in', 'the switcher takes the whole signal');
      insertsOf(switcher).forEach((loop, i) => {
        const box = front[i];
        if (box) c.inLoop(switcher, loop, box, `${box.name} in a loop`);
      });
    }
    const last = tunedLast(c, switcher ?? c.chain(first, front, usual), a);
    if (a('tone') === 'modeller') {
      const modeller = c.cast('modeller without loops', 'amp, cabinet and effects in one');
      const desk = c.cast('desk', 'where the house hears it');
      c.lead(last, theOutput(last).id, modeller, 'in', 'into the modeller');
      c.lead(modeller, 'out-l', desk, 'ch1', 'left to the desk');
      c.lead(modeller, 'out-r', desk, 'ch2', 'right to the desk');
      return;
    }
    const amp = c.cast('amp with a loop', 'makes it loud');
    const late = [c.cast('stereo delay', 'set by the timeline'), c.cast('stereo reverb', 'set by the timeline')];
    c.lead(last, theOutput(last).id, amp, 'in', 'into the amp');
    c.lead(amp, 'send', theFirst(late), theInput(theFirst(late)).id, 'the preamp leaves by the send');
    c.chain(theFirst(late), late.slice(1), usual);
    c.lead(theItem(late, 1), theOutput(theItem(late, 1)).id, amp, 'return', 'back into the power amp');
    c.speakers(amp, true);
  },
};
