import { furthestOnTheWay } from '../../signal/graph/stops.js';
import { splitRef, type Id, type Ref } from '../../rig/ids.js';
import { pointText, stageText } from '../../recall/words/part-words.js';
import type { Check, CheckInputs } from '../check.js';
import { soundNames } from '../names.js';
import { grouped } from '../../known/grouped.js';

interface Unmet {
  readonly sound: Id<'sound'>;
  readonly stage: Ref;
  readonly is: 'unreached' | 'not out';
  readonly far: ReturnType<typeof furthestOnTheWay>;
}

export const unmetStage: Check = {
  code: 'wire.unmet-stage',
  title: 'A stage that the signal does not meet',
  severities: ['broken'],
  source:
    'the trace: on the way from the wanted source to the wanted ends the signal does not pass what the sound wants in, or passes what it wants out',
  *find({ rig, compilation }: CheckInputs) {
    const unmet = [...compilation.sounds.values()].flatMap((c) =>
      c.problems.flatMap((p): readonly Unmet[] =>
        p.is === 'unreached' || p.is === 'not out'
          ? [
              {
                sound: c.sound,
                stage: p.stage,
                is: p.is,
                far: p.is === 'unreached' ? furthestOnTheWay(c.trace, p.stage) : undefined,
              },
            ]
          : [],
      ),
    );
    const silent = new Set(
      [...compilation.sounds.values()]
        .filter((c) => c.problems.some((p) => p.is === 'silent' || p.is === 'unheard'))
        .map((c) => c.sound),
    );
    const told = unmet.filter((u) => u.is === 'not out' || !silent.has(u.sound) || !u.far || u.far.is === 'reached');
    for (const group of grouped(told, (u) => `${u.stage} ${u.is} ${u.far?.is} ${u.far?.at}`).values()) {
      const { stage, is, far } = group[0];
      const sounds = group.map((u) => u.sound);
      const box = splitRef(stage).device;
      const name = stageText(rig, stage);
      yield {
        severity: 'broken' as const,
        evidence: [box, ...sounds],
        about: `${stage} ${is}`,
        why:
          is === 'not out'
            ? `${name} is in the way of the signal in ${soundNames(rig, sounds)}, which ${sounds.length === 1 ? 'wants' : 'want'} it out; no setting takes it out.`
            : `${name} is wanted in ${soundNames(rig, sounds)}, but the signal does not meet it on its way. ${!far ? 'It has no cable here.' : far.is === 'reached' ? `It gets there, but from there no further than ${pointText(rig, far)}.` : `It comes as far as ${pointText(rig, far)}.`}`,
      };
    }
  },
};
