import { offers } from '../../edits/cables.js';
import { pointText } from '../../recall/words/part-words.js';
import type { Device } from '../../rig/device.js';
import { blocksIn } from '../../rig/domain.js';
import { theRef, splitRef, type Id, type Ref } from '../../rig/ids.js';
import { once } from '../../kept/kept.js';
import { partOf, thePart } from '../../rig/rig.js';
import { passable } from '../../signal/graph/passable.js';
import type { Wiring } from '../../signal/graph/wiring.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { boxName, listed } from '../names.js';
import { grouped } from '../../known/grouped.js';
import { plugIn } from '../ways-out.js';
import { theItem } from '../../known/the.js';

export const lostOutput: Check = {
  code: 'wire.lost-output',
  title: 'A way out that got lost',
  severities: ['doubt'],
  source:
    'the trace: a plugged place where people listen that no setting lets anything come to, or a box that is fed and leads nowhere, while something else still sounds',
  *find(inputs: CheckInputs) {
    const { rig, compilation } = inputs;
    const { wiring } = compilation.bearings.anatomy;
    const sounds = [...compilation.sounds.values()];
    if (sounds.some((c) => c.problems.some((p) => p.is === 'silent' || p.is === 'unheard'))) return;
    const unfed = grouped(unfedWays(wiring), (w) => w.begins.join());
    for (const ways of unfed.values()) {
      const { begins } = ways[0];
      const ends = [...new Set(ways.map((w) => w.at))];
      yield {
        severity: 'doubt' as const,
        evidence: [...new Set([...begins, ...ends].map((p) => theItem(wiring.points, p).device))],
        about: ends.map((p) => theItem(wiring.points, p).id).join(),
        why: `${listed(ends.map((p) => textAt(inputs, p)))} ${ends.length === 1 ? 'is' : 'are'} plugged, and nothing comes there: the way begins at ${listed(begins.map((p) => textAt(inputs, p)))}, to which no cable leads.`,
        remedies: () => begins.slice(0, 1).flatMap((p) => joined(inputs, theRef(theItem(wiring.points, p).id))),
      };
    }
    for (const { device, from, outs } of deadEnds(wiring)) {
      if (outs.length === 0 || isEndEnough(thePart(rig, device))) continue;
      yield {
        severity: 'doubt' as const,
        evidence: [device, theItem(wiring.points, from).device],
        about: `dead end ${theItem(wiring.points, from).id}`,
        why: `${boxName(rig, device)} is fed by ${textAt(inputs, from)}, and what comes out of it is heard nowhere: ${listed(outs.map((p) => textAt(inputs, p)))} ${outs.length === 1 ? 'has' : 'have'} no cable that leads on to where people listen.`,
        remedies: () => outs.slice(0, 1).flatMap((p) => joined(inputs, theRef(theItem(wiring.points, p).id))),
      };
    }
  },
};

/** A tuner is looked at, not listened to; a valve amp without its load is a danger of its own (wire.no-load). */
const isEndEnough = (device: Device): boolean =>
  device.figures.powerStage === 'valve' ||
  device.chains.some((c) => blocksIn(c.slots).some((b) => b.stage === 'tuner'));

const textAt = ({ rig, compilation }: CheckInputs, point: number): string => {
  const { device, id } = theItem(compilation.bearings.anatomy.wiring.points, point);
  return pointText(rig, { device, at: id });
};

interface UnfedWay {
  /** The plugged jack of the place where people listen. */
  readonly at: number;
  /** Open inputs at which the way there begins. */
  readonly begins: readonly number[];
}

/** Jacks of places where people listen that have a plug and that no source can come to. */
const unfedWays = once((wiring: Wiring): readonly UnfedWay[] => {
  const { points, into, from, edges, ends, plugged } = wiring;
  const { from: fed, to: leads } = passable(wiring);
  const heard = new Set(ends.filter((e) => e.end.is !== 'tuner').map((e) => e.device));
  return points.flatMap((p, at): readonly UnfedWay[] => {
    if (
      p.inside ||
      !heard.has(p.device) ||
      fed[at] ||
      !leads[at] ||
      !plugged.has(theRef(p.id)) ||
      !theItem(into, at).some((e) => theItem(edges, e).carries.by === 'cable')
    )
      return [];
    const seen = new Set([at]);
    for (const point of seen) for (const e of theItem(into, point)) seen.add(theItem(from, e));
    const begins = [...seen].filter(
      (q) => theItem(into, q).length === 0 && !theItem(points, q).inside && !plugged.has(theRef(theItem(points, q).id)),
    );
    return begins.length ? [{ at, begins }] : [];
  });
});

interface DeadEnd {
  readonly device: Id<'device'>;
  /** The jack that feeds it, of a box that does lead somewhere. */
  readonly from: number;
  readonly outs: readonly number[];
}

/**
 * Boxes that a box which is heard feeds, and that lead nowhere. Loads that swallow what a power stage gives, and boxes
 * on half a loop, are none.
 */
const deadEnds = once((wiring: Wiring): readonly DeadEnd[] => {
  const { points, edges, out, ends, inserts } = wiring;
  const { from: fed } = passable(wiring);
  const { to: leads } = passable(
    wiring,
    undefined,
    ends.map((e) => e.ref),
  );
  const leadsOn = new Set(points.flatMap((p, i) => (leads[i] ? [p.device] : [])));
  const sends = new Set(inserts.flatMap(({ device, insert }) => insert.send.map((t) => `${device}.${t.at}`)));
  const told = new Set<Id<'device'>>();
  return edges.flatMap(({ carries, from, to }): readonly DeadEnd[] => {
    const { device } = theItem(points, to);
    if (
      carries.by !== 'cable' ||
      !fed[from] ||
      sends.has(theItem(points, from).id) ||
      told.has(device) ||
      leadsOn.has(device) ||
      !leadsOn.has(theItem(points, from).device)
    )
      return [];
    told.add(device);
    const ahead = new Set([to]);
    for (const p of ahead) for (const e of theItem(out, p)) ahead.add(theItem(wiring.to, e));
    return [
      {
        device,
        from,
        outs: [...ahead].filter((p) => theItem(out, p).length === 0 && p !== to && !theItem(points, p).inside),
      },
    ];
  });
});

/** A cable between an open jack and the one that suits it best. */
const joined = (inputs: CheckInputs, open: Ref): readonly Remedy[] => {
  const best =
    partOf(inputs.rig, splitRef(open).device) && offers(inputs.rig, inputs.hookup.id, open).find((o) => !o.taken);
  return best ? plugIn(inputs, open, best.jack).map((r) => ({ ...r, promise: 'eases' as const })) : [];
};
