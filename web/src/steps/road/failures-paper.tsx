import { Button } from '@mantine/core';
import type { FailuresSheet } from '@yunta/core/derive/views/failures-sheet';
import { Fragment, useState } from 'react';
import { Paper, usePrinting } from '../../shared/paper/paper.js';
import { useRig } from '../../shared/rig-context.js';

/** Every failure that silences something, with its way out, to lie in the case: it is worked out when it is printed. */
export const FailuresPaper = () => {
  const { ask } = useRig();
  const [sheet, setSheet] = useState<FailuresSheet>();
  const [busy, setBusy] = useState(false);
  const print = async () => {
    setBusy(true);
    setSheet(await ask.answers.failuresSheet());
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
      {sheet && <OnPaper sheet={sheet} />}
    </>
  );
};

const OnPaper = ({ sheet: { rows, cautions } }: { sheet: FailuresSheet }) => {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
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
          {rows.map(({ keys, what, lost, heed, hands, byHand, then }) => (
            <tr key={keys.join()}>
              <td>{what}</td>
              <td>{lost}</td>
              <td>
                {heed && <strong>Heed {heed}.</strong>} {hands}
                {byHand?.map(({ name, hands: moves }) => (
                  <Fragment key={name}>
                    {' '}
                    <strong>{name}:</strong> {moves.join(', ')}.
                  </Fragment>
                ))}
              </td>
              <td>{then}</td>
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
