import { someOf } from '@yunta/core/known/some-of';
import type { ChangedVerdict, Consequences } from '@yunta/core/derive/views/consequences';

import { VERDICT_WORDS } from '@yunta/core/recall/words/verdict-words';
import { VERDICT_CLASSES } from './verdict.js';

const MOST_NAMED = 3;

interface Alike extends Pick<ChangedVerdict, 'before' | 'after'> {
  readonly names: string[];
}

/** Sounds of which the same can be said, together. */
const alike = (verdicts: readonly ChangedVerdict[]): readonly Alike[] => {
  const groups: Alike[] = [];
  for (const { name, before, after } of verdicts) {
    const group = groups.find((g) => g.before === before && g.after === after);
    if (group) group.names.push(name);
    else groups.push({ before, after, names: [name] });
  }
  return groups;
};

/** What an edit would bring, before it is made; undefined while it is worked out. */
export const ConsequencesText = ({ would }: { would: Consequences | undefined }) => {
  if (!would)
    return (
      <p className="soft" style={{ margin: '6px 0 0' }}>
        Working out what it would do to every sound …
      </p>
    );
  if (would.refused)
    return (
      <p className="broken" style={{ margin: '6px 0 0' }}>
        {would.refused}
      </p>
    );
  return (
    <>
      {would.verdicts.length + would.brings.length + would.clears.length === 0 && (
        <p className="soft" style={{ margin: '6px 0 0' }}>
          Every sound comes back as it did before.
        </p>
      )}
      {alike(would.verdicts).map(({ names, before, after }) => (
        <p key={`${before} ${after}`} style={{ margin: '6px 0 0' }}>
          {names.length > 1 ? `${names.length} sounds, ` : ''}
          {someOf(
            names.map((name) => `“${name}”`),
            MOST_NAMED,
          )}
          : {names.length > 1 ? 'each ' : ''}
          {VERDICT_WORDS[before]} now, then <strong className={VERDICT_CLASSES[after]}>{VERDICT_WORDS[after]}</strong>.
        </p>
      ))}
      {would.brings.map((why) => (
        <p key={why} style={{ margin: '6px 0 0' }}>
          ● {why}
        </p>
      ))}
      {would.clears.length > 0 && (
        <p className="soft" style={{ margin: '6px 0 0' }}>
          Clears {would.clears.length} {would.clears.length === 1 ? 'finding' : 'findings'}.
        </p>
      )}
    </>
  );
};
