import { aimIn, changeBy, changedLevel } from '../../plan/levels/match.js';
import { controlText } from '../../recall/words/words.js';
import { offBy, stepBetween, wishedStep } from '../../electric/levels/steps.js';
import { grouped } from '../../known/grouped.js';
import type { Id } from '../../rig/ids.js';
import { all, partOf } from '../../rig/rig.js';
import type { Sound } from '../../rig/sound.js';
import type { Check, CheckInputs, Remedy } from '../check.js';
import { listed } from '../names.js';
import { db } from './alongs-here.js';

/** What is missed by less is heard by nobody. */
const LEAST = 0.5;

export const step: Check = {
  code: 'level.step',
  title: 'A step between neighbouring sounds that nobody wants',
  severities: ['doubt'],
  source:
    'a stated wish, else common practice: a lead 3 to 6 dB over what stands before it, others within 2 dB; sounds without a measurement count as matched by ear, so only what differs is reckoned',
  *find(inputs: CheckInputs) {
    const { rig, hookup, compilation } = inputs;
    const traceOf = (id: Id<'sound'>) => compilation.sounds.get(id)?.trace;
    const missed = all(rig, 'song').flatMap(({ title, cues }) => {
      const sounds = cues.flatMap(({ call }) => ('sound' in call ? (partOf(rig, call.sound) ?? []) : []));
      return sounds.slice(1).flatMap((to, i) => {
        const from = sounds[i];
        if (!from || from.id === to.id) return [];
        const found = stepBetween(rig, hookup, traceOf, from.id, to.id);
        const off = found ? offBy(found.db, wishedStep(from, to)) : 0;
        return found && Math.abs(off) > LEAST ? [{ title, from, to, off, ...found }] : [];
      });
    });
    for (const here of grouped(missed, (m) => `${m.from.id} ${m.to.id}`).values()) {
      const { from, to, db: is, measured } = here[0];
      const wish = wishedStep(from, to);
      const songs = [...new Set(here.map((m) => m.title))];
      yield {
        severity: 'doubt' as const,
        evidence: [to.id, from.id],
        why: `From “${from.name}” to “${to.name}” it ${is < 0 ? 'falls' : 'lifts'} by ${db(is)} (${measured ? 'measured' : 'reckoned'}) in ${listed(songs)}; ${wishText(wish)} is wanted.`,
        remedies: () => waysTo(inputs, to, aimIn(wish, is) - is, measured),
      };
    }
  },
};

const waysTo = (
  { rig, hookup, compilation }: CheckInputs,
  sound: Sound,
  by: number,
  measured: boolean,
): readonly Remedy[] => {
  const { stores } = changeBy(rig, compilation.sounds.get(sound.id)?.trace, by);
  if (!stores)
    return [
      {
        id: 'hand',
        label: `Turn “${sound.name}” ${by < 0 ? 'down' : 'up'} by ${db(by)} behind what is driven`,
        promise: 'clears',
        by: 'hand',
      },
    ];
  const { control, value } = stores;
  return [
    {
      id: `level ${control.control}`,
      label: `Let “${sound.name}” have ${controlText(rig, control.control)} at ${value} instead of ${control.now}`,
      promise: measured ? 'eases' : 'clears',
      by: 'program',
      edit: changedLevel(hookup.id, sound, stores),
      ...(measured ? { note: 'what was measured of it is taken away: measure it again' } : {}),
    },
  ];
};

const wishText = ({ from, to }: { readonly from: number; readonly to: number }): string =>
  to > 0 && from < 0 ? `no more than ${Math.max(to, -from)} dB either way` : `${from} to ${to} dB`;
