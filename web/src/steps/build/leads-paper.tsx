import { shoppingFor, type CutsOfKind, type LeadView } from '@yunta/core/derive/views/leads';
import { Paper, usePrinting } from '../../shared/paper/paper.js';
import { plugsText } from './lead-table.js';
import { CutsOf } from './to-do.js';

/** Leads, cuts and what to buy, to lie on the bench. */
export const LeadsPaper = ({ leads, cuts }: { leads: readonly LeadView[]; cuts: readonly CutsOfKind[] }) => {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
  return (
    <Paper title="Leads">
      <h2>To buy</h2>
      <ul>
        {shoppingFor(leads, cuts).map(({ what, many }) => (
          <li key={what}>
            ☐ {many} × {what}
          </li>
        ))}
      </ul>
      {cuts.map((kind) => (
        <CutsOf key={kind.of} kind={kind} />
      ))}
      <table className="plain tight">
        <thead>
          <tr>
            <th>lead</th>
            <th>kind, plugs</th>
            <th>m</th>
            <th>is</th>
          </tr>
        </thead>
        <tbody>
          {leads.map((l) => (
            <tr key={l.cable}>
              <td>
                ☐ {l.from} → {l.to} {l.label}
              </td>
              <td>
                {l.kind}, {plugsText(l)}
              </td>
              <td>{l.m}</td>
              <td>{l.is}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Paper>
  );
};
