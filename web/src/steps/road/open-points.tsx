import '../../shared/day-check.css';
import { Button, Checkbox, NativeSelect } from '@mantine/core';
import {
  addPoint,
  closePoint,
  dayAfter,
  doneAgain,
  pointsOf,
  readDay,
  USUAL_UPKEEP,
} from '@yunta/core/edits/open-points';
import { isId, type AnyId } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { sayRefusal } from '@yunta/core/rig/result';
import { all, partOf } from '@yunta/core/rig/rig';
import type { LogEntry } from '@yunta/core/rig/show';
import { useState } from 'react';
import { Link } from 'react-router';
import { newPartId } from '../../session/ids.js';
import { personHere } from '../../session/person.js';
import { Paper, PrintButton, usePrinting } from '../../shared/paper/paper.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { TextField } from '../../shared/text-field.js';
import { today } from '../../shared/today.js';
import { YourName } from '../../shared/your-name.js';

/** What is still to be done or decided: a part on order, tubes to change, a lead for now. */
export const OpenPoints = () => {
  const { rig } = useRig();
  const points = pointsOf(rig);
  const open = points.filter((p) => !p.point?.done);
  const late = open.filter(isLate);
  return (
    <section className="card road-points">
      <div className="day-check-head">
        <YourName />
        {points.length > 0 && <PrintButton what="open points" />}
      </div>
      <NewPoint />
      <p role="status">
        <strong>{open.length} open</strong>
        {late.length > 0 && <span className="broken">, {late.length} overdue</span>}
      </p>
      {points.length === 0 && (
        <p className="soft">
          Nothing is open. Write down what must not be forgotten: a part on order, something to decide at rehearsal,
          tubes or strings to change by a day.
        </p>
      )}
      <ul className="day-lines">
        {points.map((entry) => (
          <Point key={entry.id} entry={entry} />
        ))}
      </ul>
      <ForNow />
      <Upkeep points={points} />
      <OnPaper points={open} />
    </section>
  );
};

/** Leads that are in for tonight: to be made right, or taken out again. */
const ForNow = () => {
  const leads = useAsked(['leads'], (worker) => worker.answers.leads())?.filter((l) => l.forNow) ?? [];
  if (leads.length === 0) return null;
  return (
    <>
      <h2>Leads for now</h2>
      <ul className="road-for-now">
        {leads.map((l) => (
          <li key={l.cable}>
            <span className="mono">
              {l.from} → {l.to}
            </span>
            {l.label ? `, ${l.label}` : ''}
          </li>
        ))}
      </ul>
      <p className="soft">
        They were plugged for tonight. <Link to="../build?show=leads">Say that they are there for good</Link> when they
        are right.
      </p>
    </>
  );
};

/** What usually comes up again and again, one press each. */
const Upkeep = ({ points }: { points: readonly LogEntry[] }) => {
  const { edit } = useRig();
  const there = new Set(points.filter((p) => p.point?.everyDays).map((p) => p.text));
  const more = USUAL_UPKEEP.filter((u) => !there.has(u.text));
  if (more.length === 0) return null;
  return (
    <details>
      <summary>Upkeep that comes again</summary>
      <p className="soft">
        As people usually do it; change how often as you find it. Nobody opens a valve amp who is not qualified: it
        holds dangerous voltage even when it is unplugged.
      </p>
      <div className="road-upkeep">
        {more.map(({ text, everyDays }) => (
          <Button
            key={text}
            size="compact-sm"
            variant="default"
            onClick={() =>
              edit(
                addPoint(newPartId('logEntry'), {
                  text,
                  when: new Date().toISOString(),
                  by: personHere(),
                  due: dayAfter(today(), everyDays),
                  everyDays,
                }),
                `Upkeep: ${text}`,
              )
            }
          >
            {text}, every {everyDays} days
          </Button>
        ))}
      </div>
    </details>
  );
};

const isLate = ({ point }: LogEntry): boolean => point?.due !== undefined && !point.done && point.due < today();

const useAbout = () => {
  const { rig } = useRig();
  return ({ about, by, point }: LogEntry): string => {
    const [first] = about;
    const part = first && partOf(rig, first);
    return [
      part && 'name' in part ? part.name : '',
      point?.due ? `${point.done ? 'was due' : 'due'} ${point.due}` : '',
      point?.everyDays && !point.done ? `again ${point.everyDays} days after` : '',
      by ? `written by ${by}` : '',
      point?.done ? `done by ${point.done.by || 'somebody'}` : '',
    ]
      .filter(Boolean)
      .join(', ');
  };
};

const Point = ({ entry }: { entry: LogEntry }) => {
  const { edit } = useRig();
  const about = useAbout();
  const tick = (isDone: boolean): void => {
    const said = `${entry.text.slice(0, LONGEST.label)}: ${isDone ? 'done' : 'open again'}`;
    const done = { by: personHere(), when: new Date().toISOString() };
    edit(isDone ? doneAgain(entry, newPartId('logEntry'), done) : closePoint(entry, undefined), said);
  };
  return (
    <li>
      <Checkbox
        size="md"
        checked={entry.point?.done !== undefined}
        label={`${isLate(entry) ? 'Overdue: ' : ''}${entry.text}`}
        description={about(entry)}
        onChange={(e) => tick(e.currentTarget.checked)}
      />
    </li>
  );
};

const NOTHING = 'nothing in particular';
const MOST_DAYS = 3650;

/** One line, what it is about, and by when. */
const NewPoint = () => {
  const { rig, edit } = useRig();
  const [text, write] = useState('');
  const [due, setDue] = useState('');
  const [every, setEvery] = useState('');
  const [about, setAbout] = useState<AnyId>();
  const [wrong, setWrong] = useState('');
  const [wrongDays, setWrongDays] = useState('');
  const add = (): void => {
    const day = due.trim() ? readDay(due) : undefined;
    if (day && !day.ok) return setWrong(day.error.map(sayRefusal).join(' '));
    const everyDays = every.trim() ? Number(every.trim().replace(/\s*days?$/i, '')) : undefined;
    if (everyDays !== undefined && !(Number.isInteger(everyDays) && everyDays > 0 && everyDays <= MOST_DAYS))
      return setWrongDays(`Write whole days from 1 to ${MOST_DAYS}.`);
    const point = {
      text: text.trim(),
      when: new Date().toISOString(),
      by: personHere(),
      about,
      due: day?.value ?? (everyDays === undefined ? undefined : dayAfter(today(), everyDays)),
      everyDays,
    };
    const refused = edit(addPoint(newPartId('logEntry'), point), `Open: ${point.text.slice(0, LONGEST.label)}`);
    setWrong(refused.map(sayRefusal).join(' '));
    if (refused.length) return;
    write('');
    setDue('');
    setEvery('');
  };
  return (
    <form
      className="road-new-point"
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) add();
      }}
    >
      <TextField
        size="sm"
        label="What must not be forgotten"
        placeholder="Volume pot of the delay is on order"
        most={LONGEST.line}
        value={text}
        onChange={(e) => write(e.currentTarget.value)}
      />
      <NativeSelect
        size="sm"
        label="About"
        value={about ?? NOTHING}
        data={[NOTHING, ...all(rig, 'device').map((d) => ({ value: d.id, label: d.name }))]}
        onChange={(e) => setAbout(isId(e.currentTarget.value) ? e.currentTarget.value : undefined)}
      />
      <TextField
        size="sm"
        label="By which day"
        placeholder={today()}
        most={LONGEST.label}
        value={due}
        error={wrong || undefined}
        onChange={(e) => {
          setDue(e.currentTarget.value);
          setWrong('');
        }}
      />
      <TextField
        size="sm"
        label="Again after, days"
        placeholder="once"
        most={LONGEST.label}
        value={every}
        error={wrongDays || undefined}
        onChange={(e) => {
          setEvery(e.currentTarget.value);
          setWrongDays('');
        }}
      />
      <Button type="submit" size="sm" variant="default" disabled={text.trim() === ''}>
        Write down
      </Button>
    </form>
  );
};

const OnPaper = ({ points }: { points: readonly LogEntry[] }) => {
  const about = useAbout();
  if (!usePrinting()) return null;
  return (
    <Paper title="Open points">
      <table className="plain tight">
        <tbody>
          {points.map((p) => (
            <tr key={p.id}>
              <td>☐</td>
              <td>{p.text}</td>
              <td>{about(p)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Paper>
  );
};
