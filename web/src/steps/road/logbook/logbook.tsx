import './logbook.css';
import { Button } from '@mantine/core';
import { logbookOf } from '@yunta/core/edits/logbook';
import { isId, type AnyId } from '@yunta/core/rig/ids';
import type { Photo } from '@yunta/core/rig/photo';
import { partName } from '@yunta/core/rig/invariants';
import { partOf } from '@yunta/core/rig/rig';
import type { LogEntry } from '@yunta/core/rig/show';
import { useState } from 'react';
import { dayText, hourText } from '../../../shared/ago-text.js';
import { Choice } from '../../../shared/choice.js';
import { useRig } from '../../../shared/rig-context.js';
import { YourName } from '../../../shared/your-name.js';
import { DaysApart } from './days-apart.js';
import { NewEntry } from './new-entry.js';

const EVERYTHING = 'everything';

/** What happened to the rig, by whom and when, with photographs; what differs between two days. */
export const Logbook = () => {
  const { rig } = useRig();
  const [about, setAbout] = useState<AnyId>();
  const entries = logbookOf(rig, about);
  const subjects = [...new Set(logbookOf(rig).flatMap((e) => e.about))].filter((id) => partOf(rig, id));
  return (
    <div className="road-both">
      <section className="card" aria-label="Logbook">
        <div className="day-check-head">
          <YourName />
          {subjects.length > 0 && (
            <Choice
              aria-label="What about"
              data={[EVERYTHING, ...subjects.map((id) => ({ value: id, label: partName(rig, id) }))]}
              value={about ?? EVERYTHING}
              choose={(id) => setAbout(isId(id) ? id : undefined)}
            />
          )}
        </div>
        {entries.length === 0 && (
          <p className="soft">
            Nothing is written yet. Write down what failed, what was changed and why, and photograph how knobs and leads
            stand.
          </p>
        )}
        <ol className="logbook-entries">
          {entries.map((entry) => (
            <li key={entry.id}>{entry.kind === 'photo' ? <Picture photo={entry} /> : <Entry entry={entry} />}</li>
          ))}
        </ol>
      </section>
      <div className="logbook-side">
        <NewEntry />
        <DaysApart />
      </div>
    </div>
  );
};

/** When, by whom, about what. */
const Heading = ({ entry }: { entry: LogEntry | Photo }) => {
  const { rig } = useRig();
  const about = entry.about.filter((id) => partOf(rig, id)).map((id) => partName(rig, id));
  return (
    <span className="soft">
      {dayText(entry.when, new Date())}, {hourText(entry.when)}
      {entry.by ? `, ${entry.by}` : ''}
      {about.length > 0 && `, about ${about.join(', ')}`}
    </span>
  );
};

const Entry = ({ entry }: { entry: LogEntry }) => (
  <>
    <p className="logbook-text">
      {entry.broke && <strong className="broken">Failed: {entry.broke}. </strong>}
      {entry.point && <strong className="proved">Done: </strong>}
      {entry.text}
    </p>
    <Heading entry={entry} />
    <Remove entry={entry} what={entry.text} />
  </>
);

const Picture = ({ photo }: { photo: Photo }) => {
  const [large, enlarge] = useState(false);
  const what = photo.text || 'A photograph';
  return (
    <>
      <button
        type="button"
        className={`logbook-picture ${large ? 'large' : ''}`}
        aria-expanded={large}
        aria-label={`${what}: ${large ? 'smaller' : 'larger'}`}
        onClick={() => enlarge(!large)}
      >
        <img src={`data:image/jpeg;base64,${photo.jpeg}`} width={photo.px[0]} height={photo.px[1]} alt={what} />
      </button>
      <p className="logbook-text">{photo.text}</p>
      <Heading entry={photo} />
      <Remove entry={photo} what={what} />
    </>
  );
};

const LONGEST_SAID = 40;

const Remove = ({ entry, what }: { entry: LogEntry | Photo; what: string }) => {
  const { edit } = useRig();
  const said = what.slice(0, LONGEST_SAID);
  return (
    <Button
      size="compact-xs"
      variant="default"
      aria-label={`Remove: ${said}`}
      onClick={() => edit({ put: [], remove: [entry.id] }, `Remove from the log: ${said}`)}
    >
      Remove
    </Button>
  );
};
