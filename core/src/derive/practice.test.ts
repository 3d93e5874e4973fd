import { askCbc } from '../../testing/cbc.js';
import { frontEnds } from '../electric/front/front-end.js';
import { alongs } from '../electric/levels/along.js';
import { wetEnds } from '../electric/levels/wet-ways.js';
import { arrivals } from '../signal/graph/arrivals.js';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PRACTICE } from '../../testing/practice.js';
import { SMALL, smallRig } from '../../testing/small-rig.js';
import { soundDetail } from './views/sound-detail.js';
import { readRigFile, writeRigFile } from '../formats/rig-file.js';
import { transitions } from '../recall/verdict/transitions.js';
import type { Id, Ref } from '../rig/ids.js';
import { partOf, rigOf, everyPart, soundsInOrder, type Part, type Rig } from '../rig/rig.js';
import { deriveOnce, type Derived } from './steps/deriver.js';
import { planPower, powerAsked, powerOf } from './views/power.js';
import { speakersOf } from './views/speakers-view.js';
import { typeIn } from './views/type-in.js';
import { viewOf } from './views/view.js';

const FOLDER = join(__dirname, '../../../examples/practice');
const opened = (file: string): Rig => {
  const read = readRigFile(readFileSync(join(FOLDER, `${file}.json`), 'utf8'));
  if (!read.ok) throw new Error(JSON.stringify(read.error[0]));
  return read.value;
};
const derived = (file: string): Derived => deriveOnce(opened(file), SMALL)!;
const grave = (d: Derived): readonly string[] =>
  d.judgement.findings.filter((f) => f.severity !== 'note').map((f) => f.code);
const why = (d: Derived, code: string): string =>
  d.judgement.findings
    .filter((f) => f.code === code)
    .map((f) => f.why)
    .join(' ');

test.each(PRACTICE.map((p) => [p.file, p.rig] as const))(
  '%s stands in examples/practice as it is said here',
  (file, rig) => expect(readFileSync(join(FOLDER, `${file}.json`), 'utf8')).toBe(writeRigFile(rig)),
);

describe('covers on plain pedals: no controller at all', () => {
  const d = derived('covers-on-plain-pedals');
  const view = viewOf(d);
  test('no sound comes back by itself, and each says which switches the foot has to hit', () => {
    expect(view.tally).toMatchObject({ sounds: 7, proved: 0, 'left to hands': 7 });
    expect(view.sounds.find((s) => s.name === 'Chorus')!.byFoot).toEqual(
      expect.arrayContaining(['CMP on/off to on', 'CHO on/off to on', 'DLY on/off to off']),
    );
  });
  test('from sound to sound between one and seven things, the most from Chorus to Wah solo', () => {
    const name = (id: Id<'sound'>): string => partOf(d.rig, id)!.name;
    const counts = transitions(d.compilation, d.modelled)
      .filter((t) => t.from !== t.to)
      .map((t) => ({ from: name(t.from), to: name(t.to), n: t.hands.length }));
    expect([Math.min(...counts.map((c) => c.n)), Math.max(...counts.map((c) => c.n))]).toEqual([1, 7]);
    expect(counts.find((c) => c.from === 'Clean' && c.to === 'Chorus')!.n).toBe(1);
    expect(counts.filter((c) => c.n === 7).map((c) => `${c.from} to ${c.to}`)).toContain('Chorus to Wah solo');
  });
  test('what it finds is about the order of the boxes, not about a controller that is not there', () =>
    expect(grave(d).filter((c) => c.startsWith('recall.') || c.startsWith('midi.'))).toEqual([]));
});

describe('a modeller alone', () => {
  const d = derived('modeller-alone');
  test('one stomp calls a sound in a preset, all come back, and nothing is left to the foot', () => {
    expect(viewOf(d).tally).toMatchObject({ sounds: 4, proved: 4 });
    expect(viewOf(d).sounds.map((s) => s.byFoot)).toEqual([[], [], [], []]);
    expect(grave(d)).toEqual([]);
  });
  test('what to dial in, preset by preset and scene by scene', () => {
    const [box] = typeIn(d);
    expect(box!.isController).toBe(false);
    expect(box!.slots.map((s) => s.shown)).toEqual(['1A', '1B', '1C', '1C scene 1', '1C scene 2']);
    expect(box!.slots[4]!.lines.map((l) => l.text)).toEqual(
      expect.arrayContaining(['on: drive, delay; the others off', 'drive gain 60 %', 'amp B', 'delay mix 30 %']),
    );
  });
});

describe('a modeller by four cables that also commands', () => {
  const d = derived('modeller-that-commands');
  test('one stomp loads its preset, the reverb behind it and the channel of the amp', () => {
    const lead = d.compilation.sounds.get('sound:lead')!.stored[0]!.program;
    expect(lead.acts.map((a) => ('send' in a && 'pc' in a.send ? a.send.pc : undefined))).toContain(5);
    expect(lead.contents).toMatchObject({ ctl1: 'closed', drive: 'on' });
    // The wah is the player's: a foot may have left it on.
    expect(d.answers.get('sound:lead')!.hands.map((h) => h.control)).toEqual(['device:wah.on']);
  });
});

describe('expression three ways', () => {
  test('a passive pedal on an insert lead is right, and the mix stays what the sheet says until the pedal moves', () => {
    const d = derived('expression-on-an-insert-lead');
    expect(grave(d).filter((c) => c === 'wire.expression' || c === 'wire.direction')).toEqual([]);
    expect([...d.compilation.sounds.values()][0]!.wants.find((w) => w.control === 'device:dly.mix')!.value).toBe(35);
    expect(soundDetail(d, [...d.compilation.sounds.keys()][0]!)!.ownPedals).toEqual([
      expect.stringMatching(/^The pedal at DLY exp moves DLY mix from 10 \(heel\) to 60 % \(toe\)\./),
    ]);
    expect(
      d.modelled.system.variables
        .find((v) => v.id === 'device:dly.mix')!
        .domain.every((v) => !/^\d+$/.test(v) || Number(v) <= 100),
    ).toBe(true);
  });
  test('an active pedal in the loop stands after the gain', () =>
    expect(why(derived('volume-in-the-loop'), 'order.volume-place')).toContain(
      'turns the level down while the tails ring on',
    ));
  test('the same active pedal on the insert lead is refused, with the reason at the pedal', () => {
    const d = derived('expression-by-an-active-pedal');
    expect(d.judgement.findings.find((f) => f.code === 'wire.expression')!.evidence).toContain('device:vol');
    expect(why(d, 'wire.expression')).toContain(
      'Active volume pedal is active: it cannot stand in for an expression pedal',
    );
  });
});

describe('three amps, any two', () => {
  const d = derived('three-amps-any-two');
  const ends = (name: string) =>
    d.compilation.sounds
      .get(soundsInOrder(d.rig).find((s) => s.name === name)!.id)!
      .trace.reaches.map((r) => r.end.ref)
      .sort();
  test('which amps and whether the desk sound in each sound', () => {
    expect(ends('Verse')).toEqual(['device:caba.air', 'device:foh.#house']);
    expect(ends('Wide')).toEqual(['device:caba.air', 'device:cabb.air', 'device:foh.#house']);
    expect(ends('Wall')).toEqual(['device:caba.air', 'device:cabb.air', 'device:cabc.air', 'device:foh.#house']);
    expect(ends('Solo')).toEqual(['device:cabb.air', 'device:cabc.air', 'device:foh.#house']);
  });
  test('which channels of the desk sound in each sound', () => {
    const channels = (name: string) => {
      const { trace } = d.compilation.sounds.get(soundsInOrder(d.rig).find((s) => s.name === name)!.id)!;
      return arrivals(
        trace,
        trace.wiring.ends.find((e) => e.ref === 'device:foh.#house')!,
      );
    };
    expect(['Verse', 'Wide', 'Wall', 'Solo'].map(channels)).toEqual([
      ['ch1'],
      ['ch1', 'ch2'],
      ['ch1', 'ch2', 'ch3'],
      ['ch2', 'ch3'],
    ]);
  });
  test('one stomp sends what the selector needs, and nothing but the boost in its loop is left to the foot', () => {
    expect([...d.answers.values()].map((a) => a.is)).not.toContain('cannot sound');
    expect(
      [...d.answers.values()].every((a) => a.isCalled && a.hands.every((h) => h.control === 'device:bst.on')),
    ).toBe(true);
  });
  test('an amp whose speaker cable is pulled has no load, by name, and the way to its microphone is noticed', () => {
    const rig = opened('three-amps-any-two');
    const without = rigOf(
      everyPart(rig).filter((p) => p.kind !== 'cable' || !p.ends.includes('device:ampb.speaker' as Ref)),
    );
    const cut = deriveOnce(without, SMALL)!;
    expect(why(cut, 'wire.no-load')).toContain('One-channel amp (AMPB)');
  });
});

describe('two basses, two DIs', () => {
  test('both come to the desk', () =>
    expect(grave(derived('two-basses-two-dis')).filter((c) => c.startsWith('wire.'))).toEqual([]));
  test('a pulled lead is noticed although the other still sounds', () => {
    const d = derived('two-dis-one-pulled');
    expect(d.compilation.sounds.values().next().value!.problems).toEqual([]);
    expect(why(d, 'wire.lost-output')).toContain(
      'DI box (D2) is fed by Splitter, jack out2, and what comes out of it is heard nowhere',
    );
  });
  test('both sides come to the desk at the same time and the same way up; one upside down would be found', () => {
    const d = derived('two-basses-two-dis');
    const [along] = alongs(d.compilation.sounds.get('sound:dirt')!.trace, d.rig);
    expect([along!.outputs.map((o) => o.ms), along!.meetings]).toEqual([
      [
        [4, 4],
        [4, 4],
      ],
      [],
    ]);
    const turned = (part: Part): Part =>
      part.kind === 'device' && part.id === 'device:d2'
        ? {
            ...part,
            chains: part.chains.map((c) => ({
              ...c,
              slots: c.slots.map((s) => (s.is === 'block' ? { ...s, polarity: { invertedWhen: [] } } : s)),
            })),
          }
        : part;
    const upsideDown = deriveOnce(rigOf([...everyPart(d.rig)].map(turned)), SMALL)!;
    expect(why(upsideDown, 'comb.parallel')).toContain('one of them upside down');
  });
});

describe('wet, dry, wet', () => {
  const d = derived('wet-dry-wet');
  test('the wet sides carry no dry but in the one sound whose delay stands at 60 %, and that is said of it alone', () => {
    const found = d.judgement.findings.filter((f) => f.code === 'comb.dry-in-wet');
    expect(found.map((f) => f.evidence)).toEqual([expect.arrayContaining(['device:dly', 'sound:leak'])]);
    expect(found[0]!.evidence).not.toContain('sound:far');
    expect(found[0]!.why).toContain('stands at 60 %');
    const { trace } = d.compilation.sounds.get('sound:echo')!;
    const wet = alongs(trace, d.rig).flatMap((along) => wetEnds(d.rig, trace, along));
    expect(wet.map((w) => [w.end.device, w.carriesDry])).toEqual([
      ['device:left', false],
      ['device:righ', false],
    ]);
  });
  test('nothing of speaker level comes to the pedal, and its place is said: wet against dry', () => {
    expect(grave(d).filter((c) => c.startsWith('wire.'))).toEqual([]);
    const says = why(d, 'order.volume-place');
    expect(says).toContain('sets how much of Closed 2×12 cabinet (LEFT) and Closed 2×12 cabinet (RIGH) is heard');
    expect(says).toContain('against Closed 2×12 cabinet (DRY), which it does not touch');
  });
  test('every tap has its load, and each wet cabinet stands what it gets', () => {
    expect(speakersOf(d).map((t) => [t.text, t.ohm, t.loads.map((l) => [l.text, l.gets, l.stands])])).toEqual([
      ['Two-channel valve head 50 W, speaker', 8, [['Load box', 50, 100]]],
      ['Stereo power amp, speaker-l', 8, [[expect.stringContaining('2×12'), 100, 130]]],
      ['Stereo power amp, speaker-r', 8, [[expect.stringContaining('2×12'), 100, 130]]],
    ]);
  });
});

/** Who is fed by which outputs, and who is left, as the room Power says it. */
const power = (d: Derived, chains = false) => {
  const problem = powerAsked(d.rig, d.hookup, chains);
  return powerOf(d.rig, d.hookup, problem, planPower(problem, askCbc)!);
};

describe('rack, panel, multicore', () => {
  const d = derived('rack-panel-multicore');
  test('the way leads through a loop within a loop, and out over the multicore and back', () => {
    const { trace } = d.compilation.sounds.get('sound:wall')!;
    const stages = alongs(trace, d.rig)[0]!.stages.map((s) => s.stage);
    expect(stages).toEqual([
      'device:mx2.tuner',
      'device:dst.distortion',
      'device:mod.modulation',
      'device:hed.lead',
      'device:hed.power',
      'device:cab.cabinet',
    ]);
  });
  test('passive metres are added up through the panel, and through a multicore where it is passive', () => {
    const { trace } = d.compilation.sounds.get('sound:clean')!;
    const [front] = frontEnds(d.rig, trace);
    expect([front!.metres, front!.bypassed]).toEqual([expect.closeTo(6.9, 9), ['device:cmp']]);
    expect(why(d, 'load.treble')).toContain('6.9 m of cable (725 pF)');
    const long = deriveOnce(
      smallRig({
        boxes: { g: 'humbucker', mul: 'multicore', a: 'combo' },
        leads: ['g.out>mul.in1 6', 'mul.out1>a.in 0.5'],
        with: (part) =>
          part.kind === 'device' && part.id === 'device:mul'
            ? { ...part, figures: { ...part.figures, metres: 15 } }
            : part,
        sounds: { Clean: ['a.preamp'] },
      }),
      SMALL,
    )!;
    expect(frontEnds(long.rig, long.compilation.sounds.get('sound:clean')!.trace)[0]!.metres).toBeCloseTo(21.5, 9);
  });
  test('outputs are counted, three joined for one box, one turned; what does not fit says why, and what to buy', () => {
    const here = power(d);
    expect(here.outputs).toMatchObject({ there: 8, used: 8, needed: 9 });
    const fed = here.supplies.flatMap((s) =>
      s.outputs.flatMap((o) => o.boxes.map((b) => [b.code, o.joinedWith.length])),
    );
    expect(fed.filter(([code]) => code === 'MX2')).toHaveLength(3);
    expect(
      here.supplies.flatMap((s) => s.outputs.flatMap((o) => o.boxes)).find((b) => b.code === 'LOW')!.adapters,
    ).toEqual(['turns the polarity']);
    expect(here.left).toMatchObject([
      {
        code: 'MOD',
        why: 'no output gives alternating current',
        buy: 'an output of 12 V AC with 200 mA or more',
      },
    ]);
  });
});

describe('fly kit against the clock', () => {
  const d = derived('fly-kit');
  test('ten of eleven boxes want supply, five outputs are there, and with the lead of several plugs all are fed', () => {
    const here = power(d);
    expect([here.boxes, here.outputs.there, here.left.length, here.byChains]).toEqual([10, 5, 5, 5]);
    const chained = power(d, true);
    expect(chained.left).toEqual([]);
    expect(chained.mixed).toEqual([]);
  });
  test('the buffer of the tuner spares the coil all that stands behind it', () => {
    const { trace } = d.compilation.sounds.get('sound:waves')!;
    expect(frontEnds(d.rig, trace)[0]).toMatchObject({ metres: 5, bypassed: [] });
  });
});
