import { Checkbox, NativeSelect } from '@mantine/core';
import { CHECK_GROUPS, type CheckLine } from '@yunta/core/derive/views/line-check';
import { lineCheckOn, tickLine } from '@yunta/core/edits/line-checks';
import type { LineCheck } from '@yunta/core/rig/hookup';
import { useState } from 'react';
import { personHere } from '../../session/person.js';
import { Paper, PrintButton, usePrinting } from '../../shared/paper/paper.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { today } from '../../shared/today.js';
import { YourName } from '../../shared/your-name.js';

/** Before the gig, line by line: what is taped, what comes to the desk, what each sound should be. Kept per day. */
export const LineChecks = () => {
  const { hookup } = useRig();
  const lines = useAsked(['line check'], (worker) => worker.answers.lineCheck());
  const [asked, ask] = useState<string>();
  if (!hookup) return null;
  const days = [...new Set([today(), ...(hookup.lineChecks ?? []).map((c) => c.on)])];
  const day = days.find((d) => d === asked) ?? today();
  const check = lineCheckOn(hookup, day);
  if (!lines) return <p className="soft">Working it out …</p>;
  const done = lines.filter((l) => check?.ticked[l.text]).length;
  return (
    <section className="card road-check">
      <div className="road-check-head">
        <NativeSelect
          size="sm"
          aria-label="Line check of which day"
          value={day}
          data={days.map((d) => ({ value: d, label: d === today() ? `today, ${d}` : d }))}
          onChange={(e) => ask(e.currentTarget.value)}
        />
        <YourName />
        <PrintButton what="the line check" />
      </div>
      <p role="status">
        <strong className={done === lines.length ? 'proved' : ''}>
          {done} of {lines.length} ticked
        </strong>
        {done < lines.length && `; next: ${lines.find((l) => !check?.ticked[l.text])?.text ?? ''}`}
      </p>
      {CHECK_GROUPS.map((group) => (
        <Group key={group} group={group} lines={lines.filter((l) => l.group === group)} day={day} check={check} />
      ))}
      <OnPaper lines={lines} day={day} check={check} />
    </section>
  );
};

const Group = ({
  group,
  lines,
  day,
  check,
}: {
  group: string;
  lines: readonly CheckLine[];
  day: string;
  check: LineCheck | undefined;
}) => {
  const { hookup, edit } = useRig();
  if (lines.length === 0 || !hookup) return null;
  return (
    <>
      <h2>{group}</h2>
      <ul className="road-lines">
        {lines.map((line) => {
          const how = check?.ticked[line.text];
          return (
            <li key={line.text}>
              <Checkbox
                size="md"
                checked={how !== undefined}
                label={line.text}
                description={how ? `${line.should}. Ticked by ${how.by || 'somebody'}` : line.should}
                onChange={(e) =>
                  edit(
                    tickLine(
                      hookup,
                      day,
                      line.text,
                      e.currentTarget.checked ? { by: personHere(), when: new Date().toISOString() } : undefined,
                    ),
                    `Line check: ${line.text}`,
                  )
                }
              />
            </li>
          );
        })}
      </ul>
    </>
  );
};

const OnPaper = ({ lines, day, check }: { lines: readonly CheckLine[]; day: string; check: LineCheck | undefined }) => {
  const isPrinting = usePrinting();
  if (!isPrinting) return null;
  return (
    <Paper title={`Line check, ${day}`}>
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
