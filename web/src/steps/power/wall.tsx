import { useAsked } from '../../shared/rig-context.js';

const named = (boxes: readonly { readonly code: string; readonly name: string }[]): string =>
  boxes.map((b) => `${b.code} ${b.name}`).join(', ');

/** What goes into the wall, and what has to be charged, with the usual caution. */
export const WallAndBatteries = () => {
  const mains = useAsked(['mains'], (worker) => worker.answers.mains());
  if (!mains || (mains.plugs.length === 0 && mains.batteries.length === 0)) return null;
  const { plugs, sockets, atWall, watts, unsaid, batteries } = mains;
  return (
    <div className="power-below">
      {plugs.length > 0 && (
        <section className="card">
          <h2>At the wall</h2>
          <p>
            {plugs.length} mains {plugs.length === 1 ? 'plug' : 'plugs'}: {named(plugs)}.{' '}
            {sockets > 0 && `${sockets} sockets come along. `}
            <strong>
              {atWall} {atWall === 1 ? 'goes' : 'go'} into the wall
            </strong>
            {watts > 0 && `, ${watts} W in all`}
            {watts > 0 && unsaid > 0 && ` without ${unsaid} that say nothing`}.
          </p>
          <p className="soft">
            Never lift or defeat the protective earth. Use residual-current protection. A mains lead that has to be cut
            or plugged anew belongs to a qualified person; follow your local electrical code.
          </p>
        </section>
      )}
      {batteries.length > 0 && (
        <section className="card">
          <h2>To charge</h2>
          <ul>
            {batteries.map((b) => (
              <li key={b.device}>
                <span className="mono">{b.code}</span> {b.name}
                {b.hours !== undefined && `: about ${b.hours.toFixed(1)} hours`}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
};
