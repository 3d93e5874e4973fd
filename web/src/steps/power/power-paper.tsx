import type { Power } from '@yunta/core/derive/views/power';
import { Paper, usePrinting } from '../../shared/paper/paper.js';
import { countText } from '../../shared/outputs-text.js';

/** Which output feeds which box, to lie beside the board while it is plugged. */
export const PowerPaper = ({ power }: { power: Power }) => {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
  return (
    <Paper title="Power">
      <p>
        {countText(power)}.{power.special.length > 0 && ` To have at hand: ${power.special.join('; ')}.`}
      </p>
      {power.left.map((box) => (
        <p key={`${box.device} ${box.needs}`}>
          <strong>
            {box.code} {box.name} stays without
          </strong>
          : {box.why}. Needed: {box.buy}.
        </p>
      ))}
      {power.supplies.map((supply) => (
        <section key={supply.device}>
          <h2>
            {supply.code} {supply.name}
          </h2>
          <table className="plain">
            <thead>
              <tr>
                <th>output</th>
                <th>set to</th>
                <th>box</th>
                <th>takes</th>
                <th>lead</th>
              </tr>
            </thead>
            <tbody>
              {supply.outputs.map((output) => (
                <tr key={output.jack}>
                  <td>{output.label}</td>
                  <td>{output.volts}</td>
                  <td>{output.boxes.map((b) => `${b.code} ${b.name}`).join(', ') || 'free'}</td>
                  <td>
                    {output.boxes.length > 0 && `${output.takes} of `}
                    {output.gives} mA
                  </td>
                  <td>
                    {[
                      ...output.boxes.flatMap((b) => b.adapters),
                      ...(output.joinedWith.length ? [`joined with ${output.joinedWith.join(' and ')}`] : []),
                    ].join(', ')}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </Paper>
  );
};
