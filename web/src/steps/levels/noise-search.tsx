import { Button, FileButton, Select } from '@mantine/core';
import type { NoiseSuspect } from '@yunta/core/derive/views/sound-levels';
import type { Take } from '@yunta/core/electric/recording/takes';
import { listed } from '@yunta/core/checks/names';
import { searchNoise, triesFor, type Search, type Tried } from '@yunta/core/plan/noise/finding';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse, sayRefusal, type Refusal, type Result } from '@yunta/core/rig/result';
import { useState } from 'react';
import { newPartId } from '../../session/ids.js';
import { TypedText } from '../../shared/typed-text.js';
import { planned } from '../../worker/planned.js';
import { useRig } from '../../shared/rig-context.js';
import { minus } from './scale.js';

/** An output at which a noise is heard, with the boxes that may make it. */
export interface HeardAt {
  readonly key: string;
  readonly text: string;
  readonly suspects: readonly NoiseSuspect[];
}

/** Finding at the bench who makes a noise: with and without, the fewest tries. */
export const NoiseSearch = ({ outputs, sound }: { outputs: readonly HeardAt[]; sound: string }) => {
  const [at, choose] = useState('');
  const here = outputs.find((o) => o.key === at) ?? outputs[0];
  if (!here) return null;
  return (
    <section className="card" aria-label="Find a noise at the bench">
      <div className="levels-head">
        <h2>Find it at the bench</h2>
        <Select
          size="xs"
          aria-label="Heard at"
          allowDeselect={false}
          data={outputs.map((o) => ({ value: o.key, label: o.text }))}
          value={here.key}
          onChange={(key) => key && choose(key)}
        />
      </div>
      <Tries key={here.key} suspects={here.suspects} sound={sound} at={here.text} />
    </section>
  );
};

const Tries = ({ suspects, sound, at }: { suspects: readonly NoiseSuspect[]; sound: string; at: string }) => {
  const [all, hear] = useState<number>();
  const [tried, put] = useState<readonly Tried[]>([]);
  const names = (ids: readonly string[]): string =>
    listed(ids.map((id) => suspects.find((s) => s.id === id)?.text ?? id));
  const { average, most } = triesFor(suspects);
  const search = all === undefined ? undefined : searchNoise(suspects, all, tried);
  return (
    <>
      <p className="soft">
        Call “{sound}”, hands off the strings. Read any meter, or record a few seconds: the scale does not matter, as
        long as it stays the same. {suspects.length} may make it; usually {Math.ceil(average)}{' '}
        {Math.ceil(average) === 1 ? 'try is' : 'tries are'} enough, {most + 1} at most.
      </p>
      <ol className="noise-tries">
        <li>
          <Reading about="With everything on" db={all} read={hear} />
        </li>
        {tried.map((t, i) => (
          <li key={t.out.join(' ')}>
            Without {names(t.out)}: <span className="mono">{minus(t.db)} dB</span>
            {all !== undefined && <span className="soft"> ({difference(all - t.db)})</span>}
            {i === tried.length - 1 && (
              <Button size="compact-xs" variant="default" ml={8} onClick={() => put(tried.slice(0, -1))}>
                Not so
              </Button>
            )}
          </li>
        ))}
        {search?.is === 'open' && (
          <li>
            <strong>Take out {names(search.next)}.</strong>
            <Reading
              key={tried.length}
              about={`Without ${names(search.next)}`}
              db={undefined}
              read={(db) => put([...tried, { out: search.next, db }])}
            />
            {search.still.length > 1 && <p className="soft">Still in question: {names(search.still)}.</p>}
          </li>
        )}
      </ol>
      {search && search.is !== 'open' && <Outcome search={search} names={names} sound={sound} at={at} />}
      {tried.length > 0 && (
        <div>
          <Button
            size="xs"
            variant="default"
            onClick={() => {
              put([]);
              hear(undefined);
            }}
          >
            Start again
          </Button>
        </div>
      )}
    </>
  );
};

const difference = (db: number): string =>
  Math.abs(db) < 0.05 ? 'no difference' : `${Math.abs(Math.round(db * 10) / 10)} dB ${db > 0 ? 'less' : 'more'}`;

const Outcome = ({
  search,
  names,
  sound,
  at,
}: {
  search: Exclude<Search, { readonly is: 'open' }>;
  names: (ids: readonly string[]) => string;
  sound: string;
  at: string;
}) => {
  const { edit } = useRig();
  const [kept, keep] = useState(false);
  const says =
    search.is === 'shared'
      ? 'No single one makes most of it: it is shared. Turn down what is common to all, the gain behind them, or put a gate there.'
      : `${names([search.by])} makes ${Math.round(search.part * 100)} % of it: without it ${difference(search.db)}.`;
  const write = () => {
    const text = `Noise of “${sound}” at ${at}: ${says}`.slice(0, LONGEST.remark);
    const note = {
      kind: 'logEntry' as const,
      id: newPartId('logEntry'),
      when: new Date().toISOString(),
      text,
      about: [],
    };
    keep(edit({ put: [note], remove: [] }, 'Noise found at the bench').length === 0);
  };
  return (
    <p role="status">
      <strong>{says}</strong>{' '}
      <Button size="compact-sm" variant="default" disabled={kept} onClick={write}>
        {kept ? 'It is in the log' : 'Keep it in the log'}
      </Button>
    </p>
  );
};

const asNumber = (typed: string): number | undefined => {
  const found = /^([-−+]?\d+(?:[.,]\d+)?)\s*[a-z]*$/i.exec(typed.trim());
  return found?.[1] === undefined ? undefined : Number(found[1].replace('−', '-').replace(',', '.'));
};

/** A level that is typed from a meter, or measured in a recording of a few seconds. */
const Reading = ({ about, db, read }: { about: string; db: number | undefined; read: (db: number) => void }) => {
  const [says, say] = useState('');
  const listen = async (file: File | null) => {
    if (!file) return;
    const bytes = new Uint8Array(await file.arrayBuffer());
    const { plan } = await planned<Result<readonly Take[], readonly Refusal[]>>(async (planning) =>
      planning.recording(bytes, file.name),
    );
    const take = plan?.ok ? plan.value[0] : undefined;
    if (take) return read(Math.round(take.rms * 10) / 10);
    say(plan && !plan.ok ? plan.error.map(sayRefusal).join(' ') : `${file.name} is silent: nothing can be measured.`);
  };
  return (
    <div className="noise-reading">
      <span>{about}:</span>
      <TypedText
        label={`${about}, in dB`}
        most={LONGEST.label}
        placeholder="−52"
        text={db === undefined ? '' : minus(db)}
        read={(typed) => {
          const number = asNumber(typed);
          if (number === undefined || Math.abs(number) > 200)
            return refuse([
              {
                code: 'level',
                where: about,
                wrong: `"${typed.trim().slice(0, 20)}" is no level.`,
                would: 'Write the number that the meter shows, such as −52.',
              },
            ]);
          read(number);
          return ok(number);
        }}
      />
      <FileButton accept=".wav,audio/wav" onChange={(file) => void listen(file)}>
        {(props) => (
          <Button size="compact-sm" variant="default" {...props} aria-label={`${about}: from a recording`}>
            From a recording
          </Button>
        )}
      </FileButton>
      {says && <span role="status">{says}</span>}
    </div>
  );
};
