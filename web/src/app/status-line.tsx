import { Button } from '@mantine/core';
import { useLocation, useNavigate } from 'react-router';
import { isPressing } from './findings.js';
import { useAsked, useRig } from './rig-context.js';

const changes = (count: number): string => `${count} ${count === 1 ? 'change waits' : 'changes wait'}`;

/** One sentence, always: is every sound proved, and what is worst now. */
export const StatusLine = ({ openFindings, count }: { openFindings: () => void; count: number }) => {
  const { view, state, derived, hookup } = useRig();
  const tests = useAsked(['standing tests'], (worker) => worker.standingTests());
  const failing = tests?.find((t) => t.is !== 'holds');
  const navigate = useNavigate();
  const inProof = useLocation().pathname.endsWith('/proof');
  const { troubles = [], waiting = [] } = state.session ?? {};
  const worst = view?.sounds.find((s) => s.verdict === 'broken');
  const finding = view?.findings.find(isPressing);
  const proved = view && view.tally.sounds > 0 && view.tally.proved === view.tally.sounds;
  return (
    <footer className="status" aria-live="polite">
      <div className="says">
        {!hookup && <span>This rig has no hook-up yet: make one above, then wire it.</span>}
        {!view && hookup && (derived.fault ? <span className="broken">The computation stopped: {derived.fault}. Your rig is safe; reload the page.</span> : 'Computing …')}
        {view && view.tally.sounds === 0 && <span>No sounds yet. {view.columns.length === 0 ? 'Add boxes in Kit and wire them in Routing.' : 'Add the first in Sounds.'}</span>}
        {view && view.tally.sounds > 0 && <span className={proved ? 'proved' : 'broken'}>{view.tally.proved} of {view.tally.sounds} sounds proved.</span>}
        {failing && <span className="broken"> Test “{failing.name}” {failing.is === 'fails' ? 'fails' : 'cannot be played'}: {failing.text}.</span>}
        {worst?.wrong[0] && <span> “{worst.name}” can come back with {worst.wrong[0].text} wrong, after {worst.wrong[0].steps.slice(1).map((s) => s.text).join(', ')}.</span>}
        {!worst && finding && <span> {finding.why}</span>}
        {view?.tally.undecided ? <span className="broken"> {view.tally.undecided} not decided.</span> : null}
        {!state.online && state.why && <span className="broken"> {state.why.title}. {state.why.detail}{waiting.length ? ` ${changes(waiting.length)} in this browser.` : ''}</span>}
        {!state.online && !state.why && <span className="broken"> The server is away{waiting.length ? `; ${changes(waiting.length)} in this browser and will be sent` : ''}.</span>}
        {state.complaint && <span role="alert" className="broken"> {state.complaint}</span>}
      </div>
      <div className="tools">
        {troubles.length > 0 && <span className="broken">{troubles.length} to settle</span>}
        {derived.older && view && <span className="soft">computing …</span>}
        <Button variant="default" size="xs" onClick={openFindings}>{count} {count === 1 ? 'finding' : 'findings'}</Button>
        {worst && !inProof && <Button variant="default" size="xs" onClick={() => void navigate('proof')}>Show the steps</Button>}
      </div>
    </footer>
  );
};
