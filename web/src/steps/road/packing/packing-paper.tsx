import type { CaseView } from '@yunta/core/board/packed';
import { Paper, usePrinting } from '../../../shared/paper/paper.js';
import { aboutThing, kilos } from './case-card.js';

/** A label for each case, to be seen from afar, with what belongs in it. */
export const PackingPaper = ({ cases, day }: { cases: readonly CaseView[]; day: string }) => {
  const isPrinting = usePrinting();
  if (!isPrinting || cases.length === 0) return null;
  return (
    <Paper title={`Cases, ${day}`}>
      {cases.map((one) => (
        <section key={one.case.id} className="packing-label">
          <h2>{one.case.name}</h2>
          <p>
            {[
              one.case.colour && `colour: ${one.case.colour}`,
              `owner: ${one.case.owner ?? '……………'}`,
              `on stage: ${one.case.side ?? '……………'}`,
              kilos(one.kg),
            ]
              .filter(Boolean)
              .join('   ·   ')}
          </p>
          {one.cautions.map((words) => (
            <p key={words}>
              <strong>{words}</strong>
            </p>
          ))}
          <table className="plain tight">
            <thead>
              <tr>
                <th>in</th>
                <th>back</th>
                <th>what</th>
                <th>about it</th>
              </tr>
            </thead>
            <tbody>
              {one.things.map((t) => (
                <tr key={t.name}>
                  <td>{t.out ? '☑' : '☐'}</td>
                  <td>{t.back ? '☑' : '☐'}</td>
                  <td>
                    {t.name}
                    {(t.thing.many ?? 1) > 1 ? ` × ${t.thing.many}` : ''}
                  </td>
                  <td>{aboutThing(t).join(', ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </Paper>
  );
};
