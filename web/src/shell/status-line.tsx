import { Button } from '@mantine/core';
import type { SoundView } from '@yunta/core/derive/views/view';
import { useLocation, useNavigate } from 'react-router';
import { isPressing } from '../shared/findings.js';
import { useAsked, useRig } from '../shared/rig-context.js';
import { Headline } from '../shared/verdict.js';

const changes = (count: number): string => `${count} ${count === 1 ? 'change waits' : 'changes wait'}`;

/** What is to be seen to first: a sound that cannot sound, or can come back wrong. */
const worstOf = (sounds: readonly SoundView[]): SoundView | undefined =>
  sounds.find((s) => s.verdict === 'cannot sound') ??
  sounds.find((s) => s.verdict === 'broken') ??
  sounds.find((s) => s.verdict === 'undecided');

/** One sentence, always: does every sound come back, and what is worst now. */
export const StatusLine = ({ openFindings, count }: { openFindings: () => void; count: number }) => {
  const { view, state, derived, hookup } = useRig();
  const tests = useAsked(['standing tests'], (worker) => worker.answers.standingTests());
  const failing = tests?.find((t) => t.is !== 'holds');
  const navigate = useNavigate();
  const inProof = useLocation().pathname.endsWith('/proof');
  const { troubles = [], waiting = [] } = state.session ?? {};
  const worst = view && worstOf(view.sounds);
  const finding = view?.findings.find(isPressing);
  return (
    <footer className="status" aria-live="polite">
      <div className="says">
        {!hookup && <span>This rig has no hook-up yet: make one above, then wire it.</span>}
        {!view &&
          hookup &&
          (derived.fault ? (
            <span className="broken">The computation stopped: {derived.fault}. Your rig is safe; reload the page.</span>
          ) : (
            'Computing …'
          ))}
        {view && view.tally.sounds === 0 && (
          <span>
            No sounds yet.{' '}
            {view.columns.length === 0 ? 'Add boxes in Kit and wire them in Routing.' : 'Add the first in Sounds.'}
          </span>
        )}
        {view && view.tally.sounds > 0 && <Headline tally={view.tally} limbs={view.limbs} />}
        {failing && (
          <span className="broken">
            {' '}
            Test “{failing.name}” {failing.is === 'fails' ? 'fails' : 'cannot be played'}: {failing.text}.
          </span>
        )}
        {worst && (
          <span>
            {' '}
            “{worst.name}”
            {worst.verdict === 'broken' && worst.shortest
              ? ` can come back with ${worst.shortest.text} wrong, after ${worst.shortest.steps
                  .slice(1)
                  .map((s) => s.text)
                  .join(', ')}.`
              : `: ${worst.because}`}
          </span>
        )}
        {!worst && finding && <span> {finding.why}</span>}
        {!state.online && state.why && (
          <span className="broken">
            {' '}
            {state.why.title}. {state.why.detail}
            {waiting.length ? ` ${changes(waiting.length)} in this browser.` : ''}
          </span>
        )}
        {!state.online && !state.why && (
          <span className="broken">
            {' '}
            The server is away{waiting.length ? `; ${changes(waiting.length)} in this browser and will be sent` : ''}.
          </span>
        )}
        {state.complaint && (
          <span role="alert" className="broken">
            {' '}
            {state.complaint}
          </span>
        )}
      </div>
      <div className="tools">
        {troubles.length > 0 && <span className="broken">{troubles.length} to settle</span>}
        {derived.older && view && <span className="soft">computing …</span>}
        <Button variant="default" size="xs" onClick={openFindings}>
          {count} {count === 1 ? 'finding' : 'findings'}
        </Button>
        {worst && !inProof && (
          <Button variant="default" size="xs" onClick={() => void navigate('proof')}>
            {worst.verdict === 'broken' ? 'Show the steps' : 'Show why'}
          </Button>
        )}
      </div>
    </footer>
  );
};
