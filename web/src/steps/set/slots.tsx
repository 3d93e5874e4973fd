import { Button, MultiSelect, NumberInput, Select } from '@mantine/core';
import { callersIn } from '@yunta/core/edits/calls';
import { bankChangesNow, changeTo, leastMoved, slotsOfRig, type SlotsOfRig } from '@yunta/core/plan/slots/of-rig';
import { costOf, type SlotsCost } from '@yunta/core/plan/slots/problem';
import { theId, type Id } from '@yunta/core/rig/ids';
import { all, partOf } from '@yunta/core/rig/rig';
import type { SetList } from '@yunta/core/rig/show';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useRig } from '../../shared/rig-context.js';
import { useSlotsPlan, type SlotsPlanning } from './use-slots-plan.js';

const stompsText = ({ stomps, bankPresses }: SlotsCost): string =>
  `${stomps} ${stomps === 1 ? 'stomp' : 'stomps'}, ${bankPresses === 0 ? 'no bank key' : `${bankPresses} of them bank keys`}`;

/**
 * Where sounds stand on the controller, so that the songs need the fewest stomps: what it is now, what it could be, and
 * which sounds would move.
 */
export const SlotsRoom = ({ list }: { list: SetList | undefined }) => {
  const { rig } = useRig();
  const callers = callersIn(rig).filter((c) => c.by === 'slot' && !c.isScene);
  const [chosen, choose] = useState<string>();
  const [kept, keep] = useState<readonly Id<'sound'>[]>([]);
  const [banks, use] = useState<number>();
  const caller = callers.find((c) => `${c.device} ${c.memory}` === chosen) ?? callers[0];
  const setup = useMemo(() => {
    const songs = list ? list.songs.flatMap((id) => partOf(rig, id) ?? []) : all(rig, 'song');
    const found = caller && slotsOfRig(rig, caller, songs, new Set(kept), banks);
    return found && { songs, of: found };
  }, [rig, list, caller?.device, caller?.memory, kept, banks]); // eslint-disable-line react-hooks/exhaustive-deps -- a caller is told by its box and memory
  if (!caller) return <p className="soft">No box of this rig calls sounds from slots.</p>;
  if (!setup)
    return (
      <p className="soft">
        No song calls a sound of {caller.code} yet. Type the cues of the songs in <Link to="?show=songs">Songs</Link>,
        and this tells where their sounds are best stored.
      </p>
    );
  return (
    <div className="slots-room">
      <div className="sheet-tools">
        {callers.length > 1 && (
          <Select
            size="xs"
            aria-label="Slots of which box"
            allowDeselect={false}
            data={callers.map((c) => ({ value: `${c.device} ${c.memory}`, label: `${c.code} ${c.memory}` }))}
            value={`${caller.device} ${caller.memory}`}
            onChange={(v) => v && choose(v)}
          />
        )}
        <MultiSelect
          size="xs"
          aria-label="Sounds that stay where they are"
          placeholder={kept.length ? '' : 'sounds that stay where they are'}
          w={300}
          searchable
          data={setup.of.sounds.map((s) => ({ value: s.id, label: s.name }))}
          value={[...kept]}
          onChange={(ids) => keep(ids.map((id) => theId('sound', id)))}
        />
        <NumberInput
          size="xs"
          w={130}
          aria-label="Banks to use"
          prefix="banks to use: "
          min={1}
          max={Math.ceil(setup.of.memory.size / setup.of.problem.switches)}
          value={setup.of.problem.banks}
          onChange={(v) => use(Number(v) || undefined)}
        />
      </div>
      <Plan
        key={`${caller.device} ${caller.memory} ${setup.of.problem.banks} ${kept.join()}`}
        setup={setup.of}
        songs={setup.songs}
        code={caller.code}
      />
    </div>
  );
};

const Plan = ({
  setup,
  songs,
  code,
}: {
  setup: SlotsOfRig;
  songs: Parameters<typeof bankChangesNow>[1];
  code: string;
}) => {
  const { state, start, stop, forget } = useSlotsPlan();
  const now = costOf(setup.problem, setup.now);
  const changes = bankChangesNow(setup, songs);
  const isBetter = state.best !== undefined && state.best.stomps < now.stomps;
  return (
    <>
      <section className="card">
        <h2>As it stands</h2>
        <p>
          {songs.length} {songs.length === 1 ? 'song' : 'songs'} from {code}: <strong>{stompsText(now)}</strong>.
        </p>
        {changes.length > 0 && (
          <ul className="bank-changes">
            {changes.map((c, i) => (
              <li key={`${c.song} ${i}`}>
                {c.title}: {c.from} to {c.to}, {c.presses} {c.presses === 1 ? 'bank key' : 'bank keys'}
              </li>
            ))}
          </ul>
        )}
        {changes.length === 0 && <p className="soft">No song needs a bank key: this cannot be bettered.</p>}
      </section>
      {changes.length > 0 && (
        <section className="card" aria-live="polite">
          <h2>Fewest stomps</h2>
          <Begin state={state} start={() => start(setup.problem)} stop={stop} />
          {state.best && (
            <p>
              <strong>{stompsText(state.best)}</strong>
              {state.best.bound >= state.best.stomps
                ? `; fewer are not possible in ${setup.problem.banks} ${setup.problem.banks === 1 ? 'bank' : 'banks'}.`
                : state.is === 'planning'
                  ? ' so far.'
                  : `; at least ${state.best.bound} are needed, as far as it is proved.`}
            </p>
          )}
          {state.is !== 'planning' && state.best && !isBetter && (
            <p className="soft">That is no better than it stands: nothing needs to move.</p>
          )}
          {state.is !== 'planning' && isBetter && <Moves setup={setup} state={state} done={forget} />}
        </section>
      )}
    </>
  );
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
          {state.is === 'stopped' && 'Stopped; this is the best that was found.'}
          {state.is === 'failed' && 'The planner could not work here. Reload the page and try once more.'}
        </span>
      </>
    )}
  </p>
);

/** Which sounds go where, before anything is changed. */
const Moves = ({ setup, state, done }: { setup: SlotsOfRig; state: SlotsPlanning; done: () => void }) => {
  const { rig, edit } = useRig();
  const change = useMemo(
    () => changeTo(rig, setup, leastMoved(setup, state.best?.places ?? [])),
    [rig, setup, state.best],
  );
  const carryOut = (): void => {
    const many = change.moves.length;
    if (edit(change.edit, `Slots for the fewest stomps, ${many} ${many === 1 ? 'sound' : 'sounds'}`).length === 0)
      done();
  };
  return (
    <>
      <table className="plain">
        <caption className="visually-hidden">Sounds that would move</caption>
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
        </tbody>
      </table>
      <p className="soft">
        {change.retype.length
          ? `Typed in already, and to be typed again then: ${change.retype.join(', ')}.`
          : 'Nothing of it is typed in yet.'}
      </p>
      <Button size="xs" onClick={carryOut}>
        Move {change.moves.length} {change.moves.length === 1 ? 'sound' : 'sounds'}
      </Button>
    </>
  );
};
