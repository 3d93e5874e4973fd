import { Button } from '@mantine/core';
import type { FailureView } from '@yunta/core/derive/views/fails';
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

const OnPaper = ({ fails }: { fails: readonly FailureView[] }) => {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
  const hard = fails.filter((f) => f.counts.silent + f.counts['partly silent'] + f.counts['not called'] > 0);
  return (
    <Paper title="When something dies">
      <table className="plain tight">
        <thead>
          <tr>
            <th>what</th>
            <th>lost</th>
            <th>do this</th>
            <th>then</th>
          </tr>
        </thead>
        <tbody>
          {hard.map((f) => (
            <tr key={f.key}>
              <td>{f.text}</td>
              <td>{f.says}</td>
              <td>
                {f.way ? (
                  <>
                    {f.way.caution && <em>{f.way.caution} </em>}
                    {f.way.steps.join(' ')}
                  </>
                ) : (
                  f.needs
                )}
              </td>
              <td>{f.way?.says}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Paper>
  );
};
