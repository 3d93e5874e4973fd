import { offers } from '../../edits/cables.js';
import { splitRef, theRef, type Id, type Ref } from '../../rig/ids.js';
import { stopsOf, stopText } from '../../recall/words/silence.js';
import type { Stop } from '../../signal/graph/stops.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, endName, listed, soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { plugIn } from '../ways-out.js';

export const silent: Check = {
  code: 'wire.silent',
  title: 'Not heard where it should be, or heard where it should not',
  severities: ['broken'],
  source: 'the trace: a wanted source has no path to a wanted end, or a way to one that was to be silent',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const cases = [...compilation.sounds.values()].flatMap((compiled) =>
      compiled.problems.flatMap((p): readonly Silence[] =>
        p.is === 'silent' ? [{ sound: compiled.sound, from: p.from, at: p.at, stops: stopsOf(compiled, p) }] : [],
      ),
    );
    for (const group of grouped(
      cases,
      (c) =>
        c.stops
          .map((s) => s.at)
          .sort()
          .join() || `${c.from} ${c.at}`,
    ).values()) {
      const { stops } = group[0];
      const [sounds, sources, places] = [
        [...new Set(group.map((c) => c.sound))],
        [...new Set(group.map((c) => c.from))],
        [...new Set(group.map((c) => c.at))],
      ];
      const where = listed([...new Set(stops.map((s) => stopText(rig, s)))]);
      const boxes = [...new Set(stops.map((s) => s.device))];
      const who = sources.map((r) => (r ? boxName(rig, splitRef(r).device) : 'No instrument'));
      yield {
        severity: 'broken',
        evidence: [...boxes, ...sounds],
        about: stops.length ? '' : `${sources.join()} ${places.join()}`,
        why: `${listed(who)} ${who.length === 1 ? 'is' : 'are'} not heard at ${listed(places.map((at) => endName(rig, at)))} in ${soundNames(rig, sounds)}. ${where ? `The signal stops at ${where}.` : 'Nothing leads there.'}`,
        remedies: () => stops.flatMap((s) => (s.because === 'nothing plugged in' ? nextOn(inputs, theRef(s.at)) : [])),
      };
    }
    const lacking = [...compilation.sounds.values()].flatMap((c) =>
      c.problems.flatMap((p) => (p.is === 'unheard' ? [{ sound: c.sound, lacks: p.lacks }] : [])),
    );
    for (const group of grouped(lacking, (l) => l.lacks).values()) {
      yield {
        severity: 'broken',
        evidence: group.map((l) => l.sound),
        about: group[0].lacks,
        why:
          group[0].lacks === 'an instrument'
            ? 'No instrument is plugged in here: nothing can sound.'
            : 'Nothing is plugged in here at which anybody could hear the instrument: a loudspeaker, a desk, in-ears.',
      };
    }
    const heard = [...compilation.sounds.values()].flatMap((c) =>
      c.problems.flatMap((p) => (p.is === 'not silent' ? [{ sound: c.sound, ...p }] : [])),
    );
    for (const group of grouped(heard, (h) => `${h.from} ${h.at}`).values()) {
      const { from, at } = group[0];
      const sounds = group.map((h) => h.sound);
      yield {
        severity: 'broken',
        evidence: [splitRef(from).device, splitRef(at).device, ...sounds],
        about: `heard ${from} ${at}`,
        why: `${boxName(rig, splitRef(from).device)} is heard at ${endName(rig, at)} in ${soundNames(rig, sounds)}; it was to be silent there.`,
      };
    }
  },
};

interface Silence {
  readonly sound: Id<'sound'>;
  readonly from: Ref;
  readonly at: Ref;
  readonly stops: readonly Stop[];
}

/** From where it stops to the jack that suits best. */
const nextOn = (inputs: CheckInputs, from: Ref): readonly Remedy[] => {
  const best = offers(inputs.rig, inputs.hookup.id, from).find((o) => !o.taken);
  return best ? plugIn(inputs, from, best.jack).map((r) => ({ ...r, promise: 'eases' as const })) : [];
};
