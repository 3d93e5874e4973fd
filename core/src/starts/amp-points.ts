import { insertsOf, theOutput, theInput } from '../edits/wire.js';
import { theFirst } from '../known/the.js';
import type { Device, Insert } from '../rig/device.js';
import type { Crew } from './crew.js';
import {
  type StartingPoint,
  INSTRUMENT,
  HEARD,
  begun,
  stillInFront,
  tunedLast,
  hasWireless,
  TUNER,
  FRONT,
  usual,
  question,
  choice,
  VOLUME,
  volumePedal,
} from './questions.js';

export const STRAIGHT: StartingPoint = {
  key: 'straight',
  name: 'Straight into an amp',
  says: 'Everything in one line, in front of the amp.',
  questions: [INSTRUMENT, HEARD, TUNER],
  wire: (c, a) => {
    const last = c.chain(
      begun(c, a),
      [
        ...c.pedals('before the gain', 'before the amp', FRONT),
        ...c.pedals('after it', 'last before the amp', ['analog-delay']),
      ],
      usual,
    );
    const amp = c.cast('amp', 'makes it loud');
    const end = tunedLast(c, last, a);
    c.lead(end, theOutput(end).id, amp, 'in', 'the chain ends in the amp; its loop closes by itself');
    c.speakers(amp, a('heard') === 'house');
  },
};

export const FRONT_AND_LOOP: StartingPoint = {
  key: 'front-and-loop',
  name: 'Front and loop',
  says: "Drives before the amp, echo and reverb in its loop, so that they come after the amp's own gain.",
  questions: [
    INSTRUMENT,
    question(
      'modulation',
      'Where does modulation stand?',
      choice('loop', 'In the loop', 'school of the clean swirl: wide, after the gain'),
      choice('front', 'In front', 'school of the thick swirl: the gain grinds what it moves'),
    ),
    VOLUME('loop'),
    HEARD,
    TUNER,
  ],
  wire: (c, a) => {
    const front = c.pedals('before the gain', 'before the gain of the amp', FRONT);
    const late = c.pedals('after it', 'after the gain of the amp', ['chorus', 'analog-delay', 'hall-reverb']);
    const moves = (d: Device) =>
      d.chains.some((x) =>
        x.slots.some((s) => s.is === 'block' && (s.stage === 'modulation' || s.stage === 'tremolo')),
      );
    const inFront = a('modulation') === 'front' ? late.filter(moves) : [];
    const volume = volumePedal(c, a);
    const first = begun(c, a, { volume });
    const last = c.chain(first, [...front, ...inFront, ...stillInFront(c, a, volume)], usual);
    const amp = c.cast('amp with a loop', 'its loop takes what belongs after the gain');
    const end = tunedLast(c, last, a);
    c.lead(end, theOutput(end).id, amp, 'in', 'into the front of the amp');
    const inLoop = [...(volume && a('volume') === 'loop' ? [volume] : []), ...late.filter((d) => !inFront.includes(d))];
    if (inLoop.length) {
      c.lead(amp, 'send', theFirst(inLoop), theInput(theFirst(inLoop)).id, 'the preamp leaves by the send');
      const back = c.chain(theFirst(inLoop), inLoop.slice(1), usual);
      c.lead(back, theOutput(back).id, amp, 'return', 'back into the power amp');
    }
    c.speakers(amp, a('heard') === 'house');
  },
};

/** Several boxes in one loop: the switcher takes them in and out together. */
export const shareLoop = (c: Crew, switcher: Device, loop: Insert, boxes: readonly Device[]): void => {
  const first = theFirst(boxes);
  const names = boxes.map((b) => b.name).join(' and ');
  c.notes.push(`No loop is left for each of ${names}. They share one; which of them sounds, a foot on the box says.`);
  c.lead(switcher, theFirst(loop.send).at, first, theInput(first).id, `${names}: in one loop`);
  const last = c.chain(first, boxes.slice(1), (box) => `${box.name}: in the same loop`);
  c.lead(last, theOutput(last).id, switcher, theFirst(loop.return).at, 'back from the shared loop');
};

export const FOUR_CABLES: StartingPoint = {
  key: 'four-cable',
  name: 'Four cables with a switcher',
  says: "Every pedal in a loop of its own, and the amp's preamp in one of them: drives before it, echoes after it, all from one foot switch.",
  questions: [
    INSTRUMENT,
    {
      ...question(
        'air',
        'Cable or wireless?',
        choice('cable', 'Cable', 'nothing to charge'),
        choice('wireless', 'Wireless', 'free to walk; its receiver is also a buffer'),
      ),
      byKit: (rig) => (hasWireless(rig) ? 'wireless' : undefined),
    },
    VOLUME('front'),
    question(
      'size',
      'How many loops?',
      choice('eight', 'Eight', 'room for drives, the amp and effects'),
      choice('four', 'Four', 'a small board'),
    ),
    HEARD,
    TUNER,
  ],
  wire: (c, a) => {
    const switcher = c.cast(
      a('size') === 'four' ? 'switcher of four' : 'switcher',
      'takes every pedal in and out, and sends MIDI',
    );
    const volume = volumePedal(c, a);
    const first = begun(c, a, { air: a('air') === 'wireless' ? 'asked for' : 'none', volume });
    const before = tunedLast(c, c.chain(first, stillInFront(c, a, volume), usual), a);
    const amp = c.cast('amp with a loop', 'gives its preamp to the switcher');
    c.lead(before, theOutput(before).id, switcher, 'in', 'third of the four cables: the guitar into the switcher');
    const loops = [...insertsOf(switcher)].filter((i) => /^loop/.test(i.id));
    const room = loops.length - 1 - (volume && a('volume') === 'loop' ? 1 : 0);
    const front = c.pedals(
      'before the gain',
      'before the gain',
      room > 4 ? ['compressor', 'low-drive', 'high-drive'] : ['low-drive'],
    );
    const left = Math.max(0, room - front.length);
    const late = c.pedals(
      'after it',
      'after the preamp',
      (room > 4 ? ['stereo-modulation', 'stereo-delay', 'stereo-reverb'] : ['stereo-delay', 'stereo-reverb']).slice(
        0,
        left,
      ),
    );
    const ownLoop = (box: Device, why: string): boolean => {
      const loop = loops.shift();
      if (loop) c.inLoop(switcher, loop, box, why);
      return loop !== undefined;
    };
    const alone = front.slice(0, front.length > room ? Math.max(0, room - 1) : room);
    const shared = front.slice(alone.length);
    for (const box of alone) ownLoop(box, `${box.name}: before the gain of the amp`);
    const sharedLoop = shared.length ? loops.shift() : undefined;
    if (sharedLoop) shareLoop(c, switcher, sharedLoop, shared);
    const loop = loops.shift();
    if (!loop) return void c.notes.push('Four cables need a loop for the amp, and none is left.');
    c.lead(switcher, theFirst(loop.send).at, amp, 'in', 'first of the four cables: into the front of the amp');
    c.lead(amp, 'send', switcher, theFirst(loop.return).at, 'second: the preamp comes back to the switcher');
    if (volume && a('volume') === 'loop') ownLoop(volume, 'the volume pedal as a master, after the gain');
    const behind = late.filter((box) => !ownLoop(box, `${box.name}: after the preamp`));
    for (const box of behind)
      c.notes.push(
        `No loop is left for ${box.name}. It goes behind the switcher, where its own switch or MIDI turns it.`,
      );
    const [next, ...others] = behind;
    if (next) c.lead(switcher, 'out', next, theInput(next).id, `${next.name}: behind the switcher`);
    const last = next ? c.chain(next, others, (box) => `${box.name}: behind it`) : switcher;
    c.lead(last, next ? theOutput(last).id : 'out', amp, 'return', 'fourth: into the power amp');
    c.speakers(amp, a('heard') === 'house');
  },
};

export const TWO_AMPS: StartingPoint = {
  key: 'two-amps',
  name: 'Two amps, A/B',
  says: 'One instrument into two amps, one at a time or both.',
  questions: [
    INSTRUMENT,
    question(
      'split',
      'One at a time, or both?',
      choice('either', 'One or the other', 'an A/B box; the foot chooses'),
      choice(
        'both',
        'Both, isolated',
        'a transformer keeps the earths of the two amps apart, against hum; never lift the safety earth of an amp',
      ),
    ),
    HEARD,
    TUNER,
  ],
  wire: (c, a) => {
    const last = c.chain(
      begun(c, a),
      [
        ...c.pedals('before the gain', 'shared by both amps', FRONT),
        ...c.pedals('after it', 'shared by both amps', []),
      ],
      usual,
    );
    const both = a('split') === 'both';
    const split = both
      ? c.cast('splitter with a transformer', 'feeds both amps without joining their earths')
      : c.cast('A/B box', 'chooses the amp');
    const end = tunedLast(c, last, a);
    c.lead(end, theOutput(end).id, split, 'in', 'the whole signal comes to the split');
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

export const WET_DRY: StartingPoint = {
  key: 'wet-dry',
  name: 'Wet and dry',
  says: 'The amp stays dry; echo and reverb come from speakers of their own.',
  questions: [
    INSTRUMENT,
    question(
      'tap',
      'Where is the wet signal taken?',
      choice('speaker', 'From the speaker line', 'school of the whole amp: power amp and all, through a line-out box'),
      choice('send', "From the amp's send", 'school of the preamp: cleaner, no power amp in it'),
    ),
    question(
      'sides',
      'How many wet speakers?',
      choice('stereo', 'Two', 'wet left and right, dry in the middle'),
      choice('mono', 'One', 'wet beside dry'),
    ),
    HEARD,
    TUNER,
  ],
  wire: (c, a) => {
    const pedals = c.chain(begun(c, a), c.pedals('before the gain', 'before the amp', FRONT), usual);
    const last = tunedLast(c, pedals, a);
    const amp = c.cast(a('tap') === 'send' ? 'amp with a loop' : 'amp', 'the dry side');
    c.lead(last, theOutput(last).id, amp, 'in', 'into the amp');
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
      if (a('sides') !== 'stereo') {
        const isolator = c.cast('isolator', 'keeps the earths of both amps apart, so that they do not hum');
        c.lead(amp, 'send', isolator, 'in', 'from the preamp of the dry side');
        from = { device: isolator, left: 'out' };
      }
      c.notes.push(
        'A plug in the send leaves the return as it is on most amps; on one whose send breaks the loop the dry side falls silent.',
      );
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
