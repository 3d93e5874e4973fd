import type { Consequences } from '@yunta/core/derive/views/consequences';

import { VERDICT_WORDS } from '@yunta/core/recall/words/verdict-words';
import { VERDICT_CLASSES } from './verdict.js';

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
      {would.verdicts.map((v) => (
        <p key={v.sound} style={{ margin: '6px 0 0' }}>
          “{v.name}”: {VERDICT_WORDS[v.before]} now, then{' '}
          <strong className={VERDICT_CLASSES[v.after]}>{VERDICT_WORDS[v.after]}</strong>.
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
