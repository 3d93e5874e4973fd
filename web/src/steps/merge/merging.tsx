import { Button } from '@mantine/core';
import { taking, type Difference } from '@yunta/core/change/compare';
import type { Refusal } from '@yunta/core/rig/result';
import { sayRefusal } from '@yunta/core/rig/result';
import { useState } from 'react';
import { ConsequencesText } from '../../shared/consequences-text.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { DifferenceTable } from './difference-table.js';
import { atFirst, keyOf } from './groups.js';
import type { Other } from './use-other.js';

interface MergingProps {
  readonly other: Other;
  readonly differences: readonly Difference[];
  readonly leave: () => void;
}

/** What is taken and what is left; what both changed has to be decided before anything is done. */
const useTaken = (differences: readonly Difference[]) => {
  const [taken, setTaken] = useState(() => atFirst(differences));
  const [decided, setDecided] = useState<ReadonlySet<string>>(new Set());
  const take = (keys: readonly string[], isTaken: boolean) => {
    setDecided(new Set([...decided, ...keys]));
    setTaken(new Set(isTaken ? [...taken, ...keys] : [...taken].filter((key) => !keys.includes(key))));
  };
  const chosen = differences.filter((d) => taken.has(keyOf(d)));
  const undecided = differences.filter((d) => d.by === 'both' && !decided.has(keyOf(d)));
  return { taken, decided, take, chosen, undecided };
};

const counted = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

export const Merging = ({ other, differences, leave }: MergingProps) => {
  const { rig, edit } = useRig();
  const [refused, setRefused] = useState<readonly Refusal[]>([]);
  const { taken, decided, take, chosen, undecided } = useTaken(differences);
  const of = (by: Difference['by']) => differences.filter((d) => d.by === by);
  const [theirs, both, mine, unknown] = [of('theirs'), of('both'), of('mine'), of('unknown')];
  const change = taking(rig, other.rig, chosen);
  const would = useAsked(
    ['consequences of merging', other.name, ...chosen.map(keyOf)],
    (worker) => worker.answers.consequences(change),
    chosen.length > 0,
  );
  const table = { mine: rig, theirs: other.rig, taken, take };
  const merge = () => {
    const refusals = edit(change, `Taken from ${other.name}: ${counted(chosen.length, 'change', 'changes')}`);
    setRefused(refusals);
    if (refusals.length === 0) leave();
  };
  if (differences.length === 0)
    return <p className="merge-same">“{other.name}” holds the very same as this rig. There is nothing to take.</p>;
  return (
    <>
      <p>
        {other.base
          ? `“${other.name}” and this rig come from the same one. Since they parted ${counted(theirs.length, 'thing', 'things')} changed there, ${counted(mine.length, 'thing', 'things')} here, ${counted(both.length, 'thing', 'things')} in both.`
          : `“${other.name}” and this rig differ in ${counted(differences.length, 'thing', 'things')}. They know of no common beginning here, so nobody can say who changed what: tick what you want.`}
      </p>
      {both.length > 0 && (
        <section className="card" aria-labelledby="both">
          <h2 id="both">Both of you changed these</h2>
          <div className="merge-all">
            <Button size="compact-sm" variant="default" onClick={() => take(both.map(keyOf), false)}>
              Keep all of mine
            </Button>
            <Button size="compact-sm" variant="default" onClick={() => take(both.map(keyOf), true)}>
              Keep all of theirs
            </Button>
          </div>
          <DifferenceTable {...table} differences={both} isChoice decided={decided} />
        </section>
      )}
      {theirs.length + unknown.length > 0 && (
        <section className="card" aria-labelledby="theirs">
          <h2 id="theirs">{other.base ? 'Changed there' : 'Otherwise there'}</h2>
          <DifferenceTable {...table} differences={[...theirs, ...unknown]} />
        </section>
      )}
      {mine.length > 0 && (
        <details className="card">
          <summary>{counted(mine.length, 'thing', 'things')} changed only here stay as they are</summary>
          <DifferenceTable {...table} differences={mine} />
        </details>
      )}
      <section className="card merge-do" aria-label="What this does">
        {chosen.length > 0 && <ConsequencesText would={would} />}
        {refused.map((r) => (
          <p key={r.wrong} role="alert" className="broken">
            {sayRefusal(r)}
          </p>
        ))}
        <div className="merge-all">
          <Button disabled={chosen.length === 0 || undecided.length > 0} onClick={merge}>
            {undecided.length
              ? `${undecided.length} to decide first`
              : `Take ${counted(chosen.length, 'change', 'changes')}`}
          </Button>
          <Button variant="default" onClick={leave}>
            Leave it
          </Button>
          <span className="soft">It is one change. It can be undone.</span>
        </div>
      </section>
    </>
  );
};
