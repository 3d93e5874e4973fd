import { setWant } from '../../edits/sounds.js';
import { mixControl } from '../../electric/levels/mix.js';
import { wetEnds, type WetEnd, type WetStage } from '../../electric/levels/wet-ways.js';
import { grouped } from '../../known/grouped.js';
import { theFirst } from '../../known/the.js';
import { endText, stageText } from '../../recall/words/part-words.js';
import { ref, splitRef, type Id } from '../../rig/ids.js';
import { partOf, thePart, type Rig } from '../../rig/rig.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { alongsHere } from '../level/alongs-here.js';
import { boxName, listed, soundNames } from '../names.js';

interface Leaking {
  readonly sound: Id<'sound'>;
  readonly wet: WetEnd;
}

export const dryInWet: Check = {
  code: 'comb.dry-in-wet',
  title: 'Dry sound in a way that is wet in other sounds',
  severities: ['doubt'],
  source:
    'common practice: beside a dry amp the wet sides carry effects alone (mix 100 %), or dry and late dry add up to a comb',
  *find(inputs: CheckInputs) {
    const { rig } = inputs;
    const met = alongsHere(inputs).flatMap(({ sound, trace, along }) =>
      wetEnds(rig, trace, along).map((wet): Leaking => ({ sound, wet })),
    );
    const meant = new Set(met.filter(({ wet }) => !wet.carriesDry).map(({ wet }) => wet.end.ref));
    const leaking = met.filter(({ wet }) => meant.has(wet.end.ref) && wet.carriesDry && wet.through.length > 0);
    for (const alike of grouped(leaking, ({ wet }) => standing(rig, wet)).values()) {
      const { wet } = theFirst(alike);
      const sounds = [...new Set(alike.map((l) => l.sound))];
      const ends = [...new Set(alike.map((l) => `${endText(rig, l.wet.end.ref)}, ${boxName(rig, l.wet.end.device)}`))];
      yield {
        severity: 'doubt' as const,
        evidence: [...new Set(wet.through.map((s) => splitRef(s.stage).device)), ...sounds],
        why: `In ${soundNames(rig, sounds)} dry sound comes through to ${listed(ends.map((e) => `“${e}”`))}: ${standing(rig, wet)}. In other sounds that way is wet alone.`,
        remedies: () => onlyWet(rig, wet.through, sounds),
      };
    }
  },
};

const standing = (rig: Rig, { through }: WetEnd): string =>
  listed(
    through.map(({ stage, percent, isIn }) => {
      const mix = percent === undefined ? 'its mix is not said' : `stands at ${Math.round(percent)} %`;
      return `${stageText(rig, stage)} ${isIn ? mix : 'is out'}`;
    }),
  );

/** One stage on the way that is only wet is enough: the first that is in. */
const onlyWet = (rig: Rig, through: readonly WetStage[], sounds: readonly Id<'sound'>[]): readonly Remedy[] => {
  const stage = through.find((s) => s.isIn)?.stage ?? theFirst(through.map((s) => s.stage));
  const { device: id, name } = splitRef(stage);
  const device = thePart(rig, id);
  const control = mixControl(device, name);
  const put = sounds.flatMap((s) => {
    const sound = partOf(rig, s);
    return sound && control
      ? setWant(setWant(sound, { stage, is: 'in' }).put[0], { control: ref(id, control), is: 100 }).put
      : [];
  });
  return [
    {
      id: 'mix',
      label: `Want ${stageText(rig, stage)} at 100 % in ${soundNames(rig, sounds)}`,
      promise: 'clears',
      by: 'program',
      edit: { put, remove: [] },
    },
  ];
};
