import { Button } from '@mantine/core';
import type { LevelsView, SoundLine } from '@yunta/core/derive/views/levels';
import type { Id } from '@yunta/core/rig/ids';
import { useRig } from '../../shared/rig-context.js';
import { signed } from './scale.js';

/** How far the strip reaches to either side, in dB. */
const REACH = 12;
const at = (db: number): number => (100 * (Math.max(-REACH, Math.min(REACH, db)) + REACH)) / (2 * REACH);

/** All sounds beside each other on one strip of dB: where each lies, and where it is wanted. */
export const SoundSteps = ({
  levels,
  chosen,
  choose,
}: {
  levels: LevelsView;
  chosen: Id<'sound'>;
  choose: (id: Id<'sound'>) => void;
}) => {
  const { ask, edit } = useRig();
  const match = async () => {
    const change = await ask.answers.matched();
    if (change) edit(change, `Levels evened: ${levels.storable} numbers`);
  };
  return (
    <section className="card" aria-label="Sounds beside each other">
      <div className="levels-head">
        <h2>Sounds beside each other</h2>
        {levels.storable > 0 && (
          <Button size="xs" onClick={() => void match()}>
            Set {levels.storable === 1 ? 'the number' : `${levels.storable} numbers`}
          </Button>
        )}
      </div>
      <p className="soft">
        In dB. The bar is where a sound is wanted. ● lies inside it, ◆ elsewhere. What was not measured counts as
        matched by ear, but for trims, boosts and level knobs that differ.
      </p>
      <ul className="steps-list">
        {[...levels.sounds.filter((s) => s.off !== 0), ...levels.sounds.filter((s) => s.off === 0)].map((line) => (
          <Line key={line.id} line={line} isChosen={line.id === chosen} choose={() => choose(line.id)} />
        ))}
      </ul>
    </section>
  );
};

const Line = ({ line, isChosen, choose }: { line: SoundLine; isChosen: boolean; choose: () => void }) => {
  const { name, db, wish, off, measured, change } = line;
  const beside = off === 0 ? '' : `, ${Math.abs(off)} dB too ${off > 0 ? 'loud' : 'soft'}`;
  return (
    <li className={isChosen ? 'chosen' : ''}>
      <button type="button" aria-pressed={isChosen} onClick={choose}>
        <span className="steps-name">{name}</span>
        <span className="steps-strip" aria-hidden="true">
          <span className="steps-zero" />
          <span
            className="steps-wish"
            style={{ left: `${at(wish.from)}%`, width: `${at(wish.to) - at(wish.from)}%` }}
          />
          <span className={off === 0 ? 'steps-dot' : 'steps-dot is-off'} style={{ left: `${at(db)}%` }} />
        </span>
        <span className="mono steps-db">{signed(db)}</span>
        <span className="visually-hidden">
          dB, {measured ? 'measured' : 'reckoned'}
          {beside}
        </span>
      </button>
      {change && (
        <span className="steps-change">
          {Math.abs(off)} dB too {off > 0 ? 'loud' : 'soft'}: {change.text}
        </span>
      )}
    </li>
  );
};
