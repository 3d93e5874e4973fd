import { Button } from '@mantine/core';
import { changeTo, type SlotsChange } from '@yunta/core/plan/slots/change';
import { bankChangesNow, costNow, leastMoved, type SlotsOfRig } from '@yunta/core/plan/slots/of-rig';
import { faultsIn, type SlotsCost } from '@yunta/core/plan/slots/problem';
import { bankBySong, banksNeeded, type SlotWishes } from '@yunta/core/plan/slots/wishes';
import type { Song } from '@yunta/core/rig/show';
import { useMemo } from 'react';
import { newPartId } from '../../session/ids.js';
import { useRig } from '../../shared/rig-context.js';
import { useSlotsPlan, type PlacedSlots, type SlotsPlanning } from './use-slots-plan.js';

export const stompsText = ({ stomps, bankPresses }: SlotsCost): string =>
  `${stomps} ${stomps === 1 ? 'stomp' : 'stomps'}, ${bankPresses === 0 ? 'no bank key' : `${bankPresses} of them bank keys`}`;

const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

interface SlotsPlanProps {
  readonly setup: SlotsOfRig;
  readonly songs: readonly Song[];
  readonly wishes: SlotWishes;
  readonly code: string;
  /** Plans with so many banks; not where they are kept for an act. */
  readonly takeBanks: ((banks: number) => void) | undefined;
}

/** How the slots stand, and the fewest stomps that are possible with the wishes. */
export const SlotsPlan = ({ setup, songs, wishes, code, takeBanks }: SlotsPlanProps) => {
  const { rig } = useRig();
  const { state, start, stop, forget } = useSlotsPlan();
  const now = costNow(setup);
  const changes = bankChangesNow(setup, songs);
  const isOutside = setup.now.some(([, b]) => b < 0 || b >= setup.problem.banks);
  const hasWishes = wishes.roles || wishes.shoe || wishes.bankFor !== undefined || isOutside;
  const isBetter = state.best !== undefined && (hasWishes || state.best.stomps < now.stomps);
  const isBySong = wishes.bankFor === 'song';
  const needed = isBySong ? bankBySong(setup.problem).banks : banksNeeded(setup.problem);
  const tooFew = needed > (isBySong ? setup.mayUse : setup.problem.banks);
  return (
    <>
      <section className="card">
        <h2>As it stands</h2>
        <p>
          {many(songs.length, 'song', 'songs')} from {code}: <strong>{stompsText(now)}</strong>.
        </p>
        {changes.length > 0 && (
          <ul className="bank-changes">
            {changes.map((c, i) => (
              <li key={`${c.song} ${i}`}>
                {c.title}: {c.from} to {c.to}, {many(c.presses, 'bank key', 'bank keys')}
              </li>
            ))}
          </ul>
        )}
        {changes.length === 0 && <p className="soft">No song needs a bank key: this cannot be bettered.</p>}
        {faultsIn(setup.problem, setup.now) > 0 && <p>What you wish of the banks does not hold yet.</p>}
      </section>
      {tooFew ? (
        <section className="card">
          <h2>Fewest stomps</h2>
          <p className="broken" role="alert">
            That needs {isBySong ? '' : 'at least '}
            {needed} banks, and {isBySong ? setup.mayUse : setup.problem.banks}{' '}
            {isBySong ? 'are there for it' : 'are used'}.
          </p>
          {takeBanks && needed <= setup.mayUse && (
            <Button size="xs" onClick={() => takeBanks(needed)}>
              Use {needed} banks
            </Button>
          )}
        </section>
      ) : (
        (changes.length > 0 || hasWishes) && (
          <section className="card" aria-live="polite">
            <h2>Fewest stomps</h2>
            <Begin state={state} start={() => start({ rig, setup, songs, wishes })} stop={stop} />
            {state.best && (
              <p>
                <strong>{stompsText(state.best)}</strong>
                {bestText(state, wishes, setup)}
              </p>
            )}
            {state.placed?.switches && <Switches of={state.placed.switches} wishes={wishes} />}
            {state.is !== 'planning' && state.best && !isBetter && (
              <p className="soft">That is no better than it stands: nothing needs to move.</p>
            )}
            {state.is !== 'planning' && isBetter && <Moves setup={setup} songs={songs} state={state} done={forget} />}
          </section>
        )
      )}
    </>
  );
};

const bestText = ({ is, best }: SlotsPlanning, { bankFor }: SlotWishes, { problem }: SlotsOfRig): string => {
  if (!best) return '';
  if (bankFor === 'song') return ', with a bank for every song and its cues from the left.';
  if (best.bound >= best.stomps)
    return `; fewer are not possible in ${many(problem.banks, 'bank', 'banks')}${problem.copies > 1 ? ' with two slots a sound' : ''}.`;
  return is === 'planning' ? ' so far.' : `; at least ${best.bound} are needed, as far as it is proved.`;
};

const Switches = ({ of, wishes }: { of: NonNullable<PlacedSlots['switches']>; wishes: SlotWishes }) => {
  if (!wishes.roles && !wishes.shoe) return null;
  const proved = of.isProved ? '; no choice of switches is better' : '';
  return (
    <p>
      {wishes.roles &&
        (of.strays === 0
          ? 'Each role is on one switch in every bank. '
          : `${many(of.strays, 'sound stands', 'sounds stand')} away from the switch of its role${proved}. `)}
      {wishes.shoe &&
        (of.tight === 0
          ? 'No song needs two switches closer than a shoe.'
          : `${many(of.tight, 'time', 'times')} a song needs two switches closer than a shoe${proved}.`)}
    </p>
  );
};

const SAYS: Readonly<Partial<Record<SlotsPlanning['is'], string>>> = {
  stopped: 'Stopped; this is the best that was found.',
  failed: 'The planner could not work here. Reload the page and try once more.',
  impossible: 'No placement was found in which all of that holds. Use more banks, or wish for less.',
};

const Begin = ({ state, start, stop }: { state: SlotsPlanning; start: () => void; stop: () => void }) => (
  <p>
    {state.is === 'planning' ? (
      <>
        <Button size="xs" variant="default" onClick={stop}>
          Stop here
        </Button>{' '}
        <span className="soft">Looking for a better one …</span>
      </>
    ) : (
      <>
        <Button size="xs" onClick={start}>
          {state.is === 'at rest' ? 'Find the fewest' : 'Look again'}
        </Button>{' '}
        <span className="soft">
          {state.is === 'done' && `It took ${(state.seconds ?? 0).toFixed(1)} s.`}
          {SAYS[state.is]}
        </span>
      </>
    )}
  </p>
);

interface MovesProps {
  readonly setup: SlotsOfRig;
  readonly songs: readonly Song[];
  readonly state: SlotsPlanning;
  readonly done: () => void;
}

/** Which sounds and moves go where, before anything is changed. */
const Moves = ({ setup, songs, state, done }: MovesProps) => {
  const { rig, edit } = useRig();
  const change = useMemo(() => {
    const { places, moves } = state.placed ?? { places: leastMoved(setup, state.best?.places ?? []), moves: [] };
    const ids = new Map<number, Id>();
    let at = 0;
    return changeTo(rig, setup, songs, places, moves, () => idAt(ids, (at += 1)));
  }, [rig, setup, songs, state.best, state.placed]);
  const count = change.moves.length + change.copies.length + change.switches.length;
  if (count === 0) return <p className="soft">All of that holds as it stands: nothing needs to move.</p>;
  const carryOut = (): void => {
    if (edit(change.edit, `Slots for the fewest stomps, ${many(count, 'change', 'changes')}`).length === 0) done();
  };
  return (
    <>
      <ChangeTable change={change} />
      <p className="soft">
        {change.retype.length
          ? `Typed in already, and to be typed again then: ${change.retype.join(', ')}.`
          : 'Nothing of it is typed in yet.'}
      </p>
      <Button size="xs" onClick={carryOut}>
        {change.copies.length || change.switches.length
          ? `Carry out ${many(count, 'change', 'changes')}`
          : `Move ${many(count, 'sound', 'sounds')}`}
      </Button>
    </>
  );
};

type Id = ReturnType<typeof newPartId<'sound'>>;
/** The same ids each time the change is worked out, so that what is shown is what is done. */
const idAt = (ids: Map<number, Id>, at: number): Id => {
  const id = ids.get(at) ?? newPartId('sound');
  ids.set(at, id);
  return id;
};

const ChangeTable = ({ change }: { change: SlotsChange }) => (
  <table className="plain">
    <caption className="visually-hidden">What would move</caption>
    <thead>
      <tr>
        <th scope="col">sound</th>
        <th scope="col">from</th>
        <th scope="col">to</th>
      </tr>
    </thead>
    <tbody>
      {change.moves.map((m) => (
        <tr key={m.sound}>
          <th scope="row">{m.name}</th>
          <td className="mono">{m.from}</td>
          <td className="mono">
            <strong>{m.to}</strong>
          </td>
        </tr>
      ))}
      {change.copies.map((c) => (
        <tr key={c.name}>
          <th scope="row">{c.name}</th>
          <td>{c.of} once more</td>
          <td className="mono">
            <strong>{c.to}</strong>
          </td>
        </tr>
      ))}
      {change.switches.map((s) => (
        <tr key={`move ${s.name}`}>
          <th scope="row">{s.name}, a move</th>
          <td className="mono">{s.from}</td>
          <td className="mono">
            <strong>{s.to}</strong>
          </td>
        </tr>
      ))}
    </tbody>
  </table>
);
