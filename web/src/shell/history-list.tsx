import { Button, TextInput } from '@mantine/core';
import { deltaOf } from '@yunta/core/change/delta';
import { difference } from '@yunta/core/change/diff';
import { LONGEST } from '@yunta/core/rig/limits';
import { sayChange } from '@yunta/core/sheets/change-words';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { all } from '@yunta/core/rig/rig';
import { api, HISTORY_PAGE, type HistoryEntry } from '../session/api.js';
import { newPartId } from '../session/ids.js';
import { fits, TextField } from '../shared/text-field.js';
import { agoText, byWhom, dayText, hourText } from '../shared/ago-text.js';
import { SaidChanges } from '../shared/said-changes.js';
import { useRig } from '../shared/rig-context.js';

/** A change that only marks a moment is called so. */
const MARK = 'Mark: ';

interface Line {
  readonly newest: HistoryEntry;
  /** How often in a row the same was done. */
  readonly times: number;
}

interface Day {
  readonly name: string;
  readonly lines: readonly Line[];
}

/** Changes by day, the newest first; what was done several times in a row is one line. */
export const byDay = (entries: readonly HistoryEntry[], now: Date): readonly Day[] => {
  const days: { name: string; lines: Line[] }[] = [];
  for (const entry of entries) {
    const name = dayText(entry.when, now);
    let day = days[days.length - 1];
    if (day?.name !== name) days.push((day = { name, lines: [] }));
    const last = day.lines[day.lines.length - 1];
    const isNext = last !== undefined && last.newest.revision - last.times === entry.revision;
    if (isNext && last.newest.label === entry.label)
      day.lines[day.lines.length - 1] = { ...last, times: last.times + 1 };
    else day.lines.push({ newest: entry, times: 1 });
  }
  return days;
};

interface HistoryListProps {
  readonly entries: readonly HistoryEntry[];
  readonly revision: number;
  readonly goBack: (revision: number) => void;
  readonly isGoing: boolean;
}

/** What was done, day by day; what it changed in words, and the way back to how the rig was after it. */
export const HistoryList = ({ entries, revision, goBack, isGoing }: HistoryListProps) => {
  const [words, setWords] = useState('');
  const wanted = words.trim().toLowerCase();
  const days = byDay(
    entries.filter((e) => e.label.toLowerCase().includes(wanted)),
    new Date(),
  );
  return (
    <>
      <TextInput
        aria-label="Find a change"
        placeholder="a box, a sound, a word"
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
      />
      {days.length === 0 && wanted && <p className="soft">No change that was loaded speaks of “{words.trim()}”.</p>}
      {days.map((day) => (
        <section key={day.name} className="history-day">
          <h3>{day.name}</h3>
          <ol>
            {day.lines.map((line) => (
              <HistoryLine
                key={line.newest.revision}
                line={line}
                isNow={line.newest.revision === revision}
                goBack={goBack}
                isGoing={isGoing}
              />
            ))}
          </ol>
        </section>
      ))}
    </>
  );
};

interface HistoryLineProps extends Pick<HistoryListProps, 'goBack' | 'isGoing'> {
  readonly line: Line;
  readonly isNow: boolean;
}

const HistoryLine = ({ line: { newest, times }, isNow, goBack, isGoing }: HistoryLineProps) => {
  const [opened, open] = useState(false);
  const isMark = newest.label.startsWith(MARK);
  return (
    <li className={isMark ? 'mark' : ''}>
      <time dateTime={newest.when}>{hourText(newest.when)}</time>
      <div className="history-what">
        <span>
          {newest.label}
          {times > 1 && <span className="soft"> {times} times</span>}
          <span className="soft">{byWhom(newest.who)}</span>
        </span>
        {opened &&
          (isMark ? (
            <SinceThen revision={newest.revision} />
          ) : (
            <WhatChanged from={newest.revision - times} to={newest.revision} />
          ))}
      </div>
      <Button
        size="compact-xs"
        variant="default"
        aria-expanded={opened}
        aria-label={isMark ? `${newest.label}: what changed since` : `What changed in revision ${newest.revision}`}
        onClick={() => open(!opened)}
      >
        {isMark ? 'What changed since' : 'What changed'}
      </Button>
      {isNow ? (
        <span className="soft">as it is now</span>
      ) : (
        <Button
          size="compact-xs"
          variant="default"
          aria-label={`Back to revision ${newest.revision}`}
          disabled={isGoing}
          onClick={() => goBack(newest.revision)}
        >
          Back to here
        </Button>
      )}
    </li>
  );
};

/** What some changes changed, in the words of the sheets. */
const WhatChanged = ({ from, to }: { from: number; to: number }) => {
  const { rigId, rig } = useRig();
  const { data, isError } = useQuery({
    queryKey: ['changes', rigId, from, to],
    queryFn: async () => (await api.journal(rigId, from)).filter((j) => j.revision <= to),
    staleTime: Infinity,
    retry: 0,
  });
  if (isError) return <p className="broken">The server does not answer; what changed is with it.</p>;
  if (!data) return <p className="soft">Reading …</p>;
  return <SaidChanges changes={data.flatMap((j) => sayChange(rig, j.delta))} />;
};

/** What stands otherwise now than it did at a mark, however often it went to and fro in between. */
const SinceThen = ({ revision }: { revision: number }) => {
  const { rigId, rig } = useRig();
  const { data: then, isError } = useQuery({
    queryKey: ['rig at', rigId, revision],
    queryFn: () => api.at(rigId, revision),
    staleTime: Infinity,
    retry: 0,
  });
  if (isError) return <p className="broken">The server does not answer; what was then is with it.</p>;
  if (!then) return <p className="soft">Reading …</p>;
  return <SaidChanges changes={sayChange(rig, deltaOf(then, difference(then, rig)))} />;
};

/** The mark of an evening that was played. */
const GIG = 'gig';

/** Sets a note in the log, so that the moment is found again by its name. */
const useMark = () => {
  const { edit } = useRig();
  return (text: string) =>
    edit(
      {
        put: [{ kind: 'logEntry', id: newPartId('logEntry'), when: new Date().toISOString(), text, about: [] }],
        remove: [],
      },
      `${MARK}${text}`,
    );
};

/** The revision of the last evening that was played, however far back. */
const lastGig = async (rigId: string): Promise<HistoryEntry | null> => {
  for (let before: number | undefined; ;) {
    const page = await api.history(rigId, before);
    const gig = page.find((e) => e.label === `${MARK}${GIG}`);
    if (gig || page.length < HISTORY_PAGE) return gig ?? null;
    before = page.at(-1)?.revision;
  }
};

/** What stands otherwise than at the last gig. */
export const SinceTheLastGig = () => {
  const { rig, rigId } = useRig();
  const [opened, open] = useState(false);
  const gigs = all(rig, 'logEntry').filter((note) => note.text === GIG);
  const last = gigs.sort((a, b) => a.when.localeCompare(b.when)).at(-1);
  const { data: gig } = useQuery({
    queryKey: ['last gig', rigId, last?.id],
    queryFn: () => lastGig(rigId),
    enabled: opened && last !== undefined,
    retry: 0,
  });
  if (!last) return null;
  return (
    <div className="since-gig">
      <Button size="compact-sm" variant="default" aria-expanded={opened} onClick={() => open(!opened)}>
        What changed since the last gig
      </Button>{' '}
      <span className="soft">{agoText(last.when, new Date())}</span>
      {opened && gig && <SinceThen revision={gig.revision} />}
    </div>
  );
};

/** Marks a moment: by a name, or as a gig. */
export const SetMark = () => {
  const mark = useMark();
  const [name, setName] = useState('');
  return (
    <form
      className="one-line"
      onSubmit={(e) => {
        e.preventDefault();
        if (!fits(name, LONGEST.name)) return;
        mark(name.trim());
        setName('');
      }}
    >
      <TextField
        size="xs"
        most={LONGEST.name}
        aria-label="Name of a mark"
        placeholder="before the ferry tour"
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <Button type="submit" size="xs" variant="default" disabled={!fits(name, LONGEST.name)}>
        Set a mark
      </Button>
      <Button size="xs" variant="default" onClick={() => mark(GIG)}>
        Played a gig
      </Button>
    </form>
  );
};
