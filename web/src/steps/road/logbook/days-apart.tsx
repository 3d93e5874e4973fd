import { Button } from '@mantine/core';
import { deltaOf } from '@yunta/core/change/delta';
import { difference } from '@yunta/core/change/diff';
import { readDay } from '@yunta/core/edits/open-points';
import { LONGEST } from '@yunta/core/rig/limits';
import { sayRefusal } from '@yunta/core/rig/result';
import { newRig, type Rig } from '@yunta/core/rig/rig';
import { sayChange } from '@yunta/core/sheets/change-words';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../../../session/api.js';
import { useRig } from '../../../shared/rig-context.js';
import { SaidChanges } from '../../../shared/said-changes.js';
import { TextField } from '../../../shared/text-field.js';
import { today } from '../../../shared/today.js';

const NOTHING_YET = newRig('nothing');

/** The rig as it was when a day ended; nothing where it was not there yet. */
const rigOn = async (rigId: string, day: string): Promise<Rig> => {
  const last = await api.lastBy(rigId, new Date(`${day}T23:59:59.999`));
  return last ? api.at(rigId, last.revision) : NOTHING_YET;
};

/** What stands otherwise at the end of one day than at the end of another. */
export const DaysApart = () => {
  const [from, setFrom] = useState('');
  const [to, setTo] = useState(today());
  const [asked, ask] = useState<readonly [string, string]>();
  const [wrong, setWrong] = useState<readonly [string, string]>(['', '']);
  const compare = (): void => {
    const days = [readDay(from), readDay(to)] as const;
    const said = ([a]: readonly [(typeof days)[number]]) => (a.ok ? '' : a.error.map(sayRefusal).join(' '));
    setWrong([said([days[0]]), said([days[1]])]);
    ask(days[0].ok && days[1].ok ? [days[0].value, days[1].value] : undefined);
  };
  return (
    <section className="card" aria-label="Two days">
      <h2>Two days beside each other</h2>
      <form
        className="logbook-days"
        onSubmit={(e) => {
          e.preventDefault();
          compare();
        }}
      >
        <TextField
          size="xs"
          label="End of"
          placeholder={today()}
          most={LONGEST.label}
          value={from}
          error={wrong[0] || undefined}
          onChange={(e) => setFrom(e.currentTarget.value)}
        />
        <TextField
          size="xs"
          label="End of the other"
          most={LONGEST.label}
          value={to}
          error={wrong[1] || undefined}
          onChange={(e) => setTo(e.currentTarget.value)}
        />
        <Button type="submit" size="xs" variant="default" disabled={from.trim() === ''}>
          Compare
        </Button>
      </form>
      {asked && <Apart from={asked[0]} to={asked[1]} />}
    </section>
  );
};

const Apart = ({ from, to }: { from: string; to: string }) => {
  const { rigId, rig } = useRig();
  const { data, isError } = useQuery({
    queryKey: ['days apart', rigId, from, to],
    queryFn: () => Promise.all([rigOn(rigId, from), rigOn(rigId, to)]),
    retry: 0,
  });
  if (isError) return <p className="broken">The server does not answer; how the rig was is with it.</p>;
  if (!data) return <p className="soft">Reading …</p>;
  const [then, later] = data;
  if (then === NOTHING_YET && later === NOTHING_YET) return <p>The rig was not there yet.</p>;
  return (
    <div role="status">
      {then === NOTHING_YET && <p className="soft">On {from} the rig was not there yet.</p>}
      <SaidChanges changes={sayChange(rig, deltaOf(then, difference(then, later)))} />
    </div>
  );
};
