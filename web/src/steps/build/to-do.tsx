import type { CutsOfKind, Shopping } from '@yunta/core/derive/views/leads';
import { LOST_AT_A_PLUG } from '@yunta/core/derive/views/leads';

/** What is to be bought before build day. */
export const ToBuy = ({ shopping, unsaid }: { shopping: readonly Shopping[]; unsaid: number }) => (
  <section className="card" aria-label="To buy">
    <h2>To buy before build day</h2>
    {shopping.length === 0 ? (
      <p className="proved">Nothing: every lead is there.</p>
    ) : (
      <ul>
        {shopping.map(({ what, many }) => (
          <li key={what}>
            <strong className="mono">{many} ×</strong> {what}
          </li>
        ))}
      </ul>
    )}
    {unsaid > 0 && (
      <p className="soft">
        {unsaid === 1 ? 'One lead has' : `${unsaid} leads have`} no length yet. Lay the boxes out, measure, and write it
        beside the lead.
      </p>
    )}
  </section>
);

/** What is cut of which reel. */
export const CutList = ({ cuts }: { cuts: readonly CutsOfKind[] }) => {
  if (cuts.length === 0) return null;
  return (
    <section className="card" aria-label="Cut list" aria-live="polite">
      <h2>Cut list</h2>
      {cuts.map((kind) => (
        <CutsOf key={kind.of} kind={kind} />
      ))}
      <p className="soft">
        {LOST_AT_A_PLUG * 100} cm more are cut for each plug (assumed). A mains lead is never made at home: leave it to
        a qualified person.
      </p>
    </section>
  );
};

export const CutsOf = ({ kind: { of, reels, without, offcuts, isProved } }: { kind: CutsOfKind }) => (
  <>
    <h3>{of} cable</h3>
    <ol>
      {reels.map((reel, i) => (
        <li key={`${reel.m} ${i}`}>
          Of {reel.m} m: {reel.pieces.map((p) => `${p.m} m (${p.lead})`).join(', ')}.{' '}
          <span className="soft">{reel.left} m are left.</span>
        </li>
      ))}
    </ol>
    {without.length > 0 && (
      <p className="broken">No cable for {without.map((w) => `${w.lead}, ${w.m} m`).join('; ')}.</p>
    )}
    {reels.length > 0 && (
      <p>
        {offcuts} m are left over. {isProved ? 'No way to cut opens less cable.' : 'Better ways may exist.'}
      </p>
    )}
  </>
);
