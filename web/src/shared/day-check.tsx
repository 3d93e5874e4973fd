import './day-check.css';
import { Checkbox, NativeSelect } from '@mantine/core';
import { lineCheckOn, tickLine } from '@yunta/core/edits/line-checks';
import type { LineCheck } from '@yunta/core/rig/hookup';
import { useState } from 'react';
import { personHere } from '../session/person.js';
import { Paper, PrintButton, usePrinting } from './paper/paper.js';
import { useRig } from './rig-context.js';
import { today } from './today.js';
import { YourName } from './your-name.js';

/** A line to be ticked; it is ticked by its words. */
export interface DayLine {
  readonly group: string;
  readonly text: string;
  /** How it must be, or what should be heard. */
  readonly should: string;
}

interface DayCheckProps {
  /** What it is. @example 'Line check' */
  readonly title: string;
  readonly lines: readonly DayLine[];
  /** Headings, in their order. */
  readonly groups: readonly string[];
}

/** Lines that are ticked off on a day, each with who did it, on a phone as on paper. Kept per day. */
export const DayCheck = ({ title, lines, groups }: DayCheckProps) => {
  const { hookup } = useRig();
  const [asked, ask] = useState<string>();
  if (!hookup) return null;
  const days = [...new Set([today(), ...(hookup.lineChecks ?? []).map((c) => c.on)])];
  const day = days.find((d) => d === asked) ?? today();
  const check = lineCheckOn(hookup, day);
  const done = lines.filter((l) => check?.ticked[l.text]).length;
  return (
    <section className="card day-check">
      <div className="day-check-head">
        <NativeSelect
          size="sm"
          aria-label={`${title} of which day`}
          value={day}
          data={days.map((d) => ({ value: d, label: d === today() ? `today, ${d}` : d }))}
          onChange={(e) => ask(e.currentTarget.value)}
        />
        <YourName />
        <PrintButton what={`the ${title.toLowerCase()}`} />
      </div>
      <p role="status">
        <strong className={done === lines.length ? 'proved' : ''}>
          {done} of {lines.length} ticked
        </strong>
        {done < lines.length && `; next: ${lines.find((l) => !check?.ticked[l.text])?.text ?? ''}`}
      </p>
      {groups.map((group) => (
        <Group
          key={group}
          title={title}
          group={group}
          lines={lines.filter((l) => l.group === group)}
          day={day}
          check={check}
        />
      ))}
      <OnPaper title={`${title}, ${day}`} lines={lines} check={check} />
    </section>
  );
};

interface GroupProps {
  readonly title: string;
  readonly group: string;
  readonly lines: readonly DayLine[];
  readonly day: string;
  readonly check: LineCheck | undefined;
}

const Group = ({ title, group, lines, day, check }: GroupProps) => {
  const { hookup, edit } = useRig();
  if (lines.length === 0 || !hookup) return null;
  const tick = (text: string, isTicked: boolean): void => {
    const how = isTicked ? { by: personHere(), when: new Date().toISOString() } : undefined;
    edit(tickLine(hookup, day, text, how), `${title}: ${text}`);
  };
  return (
    <>
      <h2>{group}</h2>
      <ul className="day-lines">
        {lines.map((line) => {
          const how = check?.ticked[line.text];
          return (
            <li key={line.text}>
              <Checkbox
                size="md"
                checked={how !== undefined}
                label={line.text}
                description={how ? `${line.should}. Ticked by ${how.by || 'somebody'}` : line.should}
                onChange={(e) => tick(line.text, e.currentTarget.checked)}
              />
            </li>
          );
        })}
      </ul>
    </>
  );
};

const OnPaper = ({ title, lines, check }: Pick<DayCheckProps, 'title' | 'lines'> & Pick<GroupProps, 'check'>) => {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
  return (
    <Paper title={title}>
      <table className="plain tight">
        <tbody>
          {lines.map((l) => (
            <tr key={l.text}>
              <td>{check?.ticked[l.text] ? '☑' : '☐'}</td>
              <td>{l.text}</td>
              <td>{l.should}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Paper>
  );
};
