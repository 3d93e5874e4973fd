import { Button } from '@mantine/core';
import type { FailureView } from '@yunta/core/derive/views/fails';
import { grouped } from '@yunta/core/known/grouped';
import { useState } from 'react';
import { Paper, usePrinting } from '../../shared/paper/paper.js';
import { useRig } from '../../shared/rig-context.js';

/** Every failure that silences something, with its way out, to lie in the case: it is worked out when it is printed. */
export const FailuresPaper = () => {
  const { ask } = useRig();
  const [fails, setFails] = useState<readonly FailureView[]>();
  const [busy, setBusy] = useState(false);
  const print = async () => {
    setBusy(true);
    setFails(await ask.answers.fails());
    setBusy(false);
    // The paper stands in the page by the next task.
    setTimeout(() => window.print());
  };
  return (
    <>
      <Button
        variant="default"
        size="sm"
        aria-label="Print what to do when something dies"
        loading={busy}
        onClick={() => void print()}
      >
        Print
      </Button>
      {fails && <OnPaper fails={fails} />}
    </>
  );
};

/** A lead that is put in the place of the one that broke is all it takes. */
const isReplaced = ({ lead, way }: FailureView): boolean =>
  lead !== undefined && way?.leads === 1 && way.steps.length === 1 && way.sounds.every((s) => s.is === 'whole');

const OnPaper = ({ fails }: { fails: readonly FailureView[] }) => {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
  const hard = fails.filter((f) => f.counts.silent + f.counts['partly silent'] + f.counts['not called'] > 0);
  const cautions = [...new Set(hard.flatMap((f) => f.way?.caution ?? []))];
  const [leads, others] = [hard.filter(isReplaced), hard.filter((f) => !isReplaced(f))];
  return (
    <Paper title="When something dies">
      <table className="plain tight road-paper">
        <thead>
          <tr>
            <th>what</th>
            <th>lost</th>
            <th>do this</th>
            <th>then</th>
          </tr>
        </thead>
        <tbody>
          {others.map((f) => (
            <tr key={f.key}>
              <td>{f.text}</td>
              <td>{f.says}</td>
              <td>
                {f.way ? (
                  <>
                    <Heed caution={f.way.caution} among={cautions} /> {f.way.steps.join(' ')}
                  </>
                ) : (
                  f.needs
                )}
              </td>
              <td>{f.way?.says}</td>
            </tr>
          ))}
          {[...grouped(leads, (f) => `${f.says} ${f.way?.caution ?? ''}`)].map(([key, [first, ...more]]) => (
            <tr key={key}>
              <td>A lead breaks: {[first, ...more].map((f) => f.lead).join(', ')}</td>
              <td>{first.says}</td>
              <td>
                <Heed caution={first.way?.caution} among={cautions} /> Put another lead in its place.
              </td>
              <td>Every sound is as it is.</td>
            </tr>
          ))}
        </tbody>
      </table>
      <ol className="road-heed">
        {cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ol>
    </Paper>
  );
};

/** The number of a caution below the table. */
const Heed = ({ caution, among }: { caution: string | undefined; among: readonly string[] }) =>
  caution === undefined ? null : <strong>Heed {among.indexOf(caution) + 1}.</strong>;
