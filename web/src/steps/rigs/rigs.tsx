import './rigs.css';
import { Button, FileButton } from '@mantine/core';
import { LARGEST_FILE, LONGEST } from '@yunta/core/rig/limits';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { newRig } from '@yunta/core/rig/rig';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Mark } from '../../shared/mark.js';
import { fits, TextField } from '../../shared/text-field.js';
import { api, Away, Failing, RefusedByServer } from '../../session/api.js';
import { newId } from '../../session/ids.js';
import type { WaitingRig } from '../../session/waiting-rigs.js';
import { letGo, saveWaiting, useWaiting } from './use-waiting.js';

const slug = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 30);

/**
 * All rigs of this person: open one, begin one, or bring one from a file. What waits in this browser is sent from here
 * too.
 */
export const Rigs = () => {
  const { data, isError, error } = useQuery({ queryKey: ['rigs'], queryFn: api.rigs, refetchInterval: 5000 });
  const { waiting, keeps } = useWaiting();
  const waits = new Map(waiting.map((w) => [w.rig, w]));
  const elsewhere = waiting.filter((w) => !data?.some((rig) => rig.id === w.rig));
  const why = error instanceof Away ? error.why : error instanceof Failing ? error.problem : undefined;
  return (
    <main className="rigs">
      <div className="rigs-head">
        <Mark />
        <h1>Yunta</h1>
        <span className="soft">Design a stage rig, program it, prove that every sound comes back.</span>
      </div>
      {!keeps && (
        <p className="notice" role="alert" style={{ margin: 0 }}>
          <strong>This browser cannot keep changes.</strong> Stay on a rig’s page until it says “saved”. A private
          window, or a full disk, may be why.
        </p>
      )}
      <section className="card" aria-labelledby="rigs">
        <h2 id="rigs">Rigs</h2>
        {isError && (
          <p className="broken">
            {why ? `${why.title}. ${why.detail}` : 'The server does not answer.'} Rigs of which something waits in this
            browser can be opened below.
          </p>
        )}
        {data?.length === 0 && (
          <p className="soft">No rig yet. Begin one below: name it, then say what is in your kit.</p>
        )}
        <table className="plain">
          <tbody>
            {data?.map((rig) => (
              <tr key={rig.id}>
                <td>
                  <Link to={`/rig/${rig.id}/sounds`} className="rigs-name">
                    {rig.name}
                  </Link>
                  {rig.demo && <span className="soft"> · demo</span>}
                  <Waits of={waits.get(rig.id)} away={isError} />
                </td>
                <td className="soft rigs-figure">revision {rig.revision}</td>
                <td className="soft rigs-figure">{new Date(rig.changed).toLocaleString()}</td>
              </tr>
            ))}
            {elsewhere.map((w) => (
              <Elsewhere key={w.rig} of={w} isGone={data !== undefined} />
            ))}
          </tbody>
        </table>
      </section>
      <NewRig />
    </main>
  );
};

const count = (n: number): string => `${n} ${n === 1 ? 'change waits' : 'changes wait'} here`;

/** What of a rig waits in this browser, and what becomes of it. */
const Waits = ({ of, away }: { of: WaitingRig | undefined; away: boolean }) => {
  if (!of) return null;
  const fate =
    of.left === 0
      ? ', open in another tab'
      : away
        ? ', sent when the server is back'
        : ', sent as soon as the server can keep it';
  return (
    <div role="status">
      {of.changes > 0 && (
        <span>
          {count(of.changes)}
          {fate}.{' '}
        </span>
      )}
      {of.toSettle > 0 && <span className="broken">{of.toSettle} to settle: open it.</span>}
    </div>
  );
};

/**
 * A rig that the server does not list: it is away, or the rig is gone from it, and what was changed stands nowhere
 * else.
 */
const Elsewhere = ({ of, isGone }: { of: WaitingRig; isGone: boolean }) => (
  <tr>
    <td>
      {isGone ? (
        <strong>{of.name}</strong>
      ) : (
        <Link to={`/rig/${of.rig}/sounds`} className="rigs-name">
          {of.name}
        </Link>
      )}
    </td>
    <td colSpan={2}>
      {isGone ? (
        <span className="rigs-waits">
          <span>This rig is not on the server any more. {count(of.changes + of.toSettle)}.</span>
          <Button size="compact-sm" onClick={() => void saveWaiting(of.rig)}>
            Save it as a file
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => void letGo(of.rig)}>
            Let it go
          </Button>
        </span>
      ) : (
        <Waits of={of} away />
      )}
    </td>
  </tr>
);

interface Wish {
  readonly id: string;
  readonly change: string;
}

const NewRig = () => {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [name, setName] = useState('');
  const [wrong, setWrong] = useState('');
  const [making, setMaking] = useState(false);
  /**
   * What was asked for last and not answered yet: asked again it is the same rig, so that a lost answer makes no
   * second one.
   */
  const asked = useRef(new Map<string, Wish>());
  const create = async (file: string, from: string) => {
    const key = `${from}\n${file}`;
    const wish = asked.current.get(key) ?? { id: `${slug(from) || 'rig'}-${newId().slice(2, 8)}`, change: newId() };
    asked.current.set(key, wish);
    setWrong('');
    setMaking(true);
    try {
      await api.create(wish.id, wish.change, file);
      asked.current.delete(key);
      await queries.invalidateQueries({ queryKey: ['rigs'] });
      void navigate(`/rig/${wish.id}/kit`);
    } catch (e) {
      setMaking(false);
      setWrong(
        e instanceof Away
          ? e.why
            ? `${e.why.title}. ${e.why.detail}`
            : 'The server does not answer; it is not known whether the rig was made. Try again when it is back: it is made once.'
          : e instanceof RefusedByServer || e instanceof Failing
            ? e.problem.detail
            : String(e),
      );
    }
  };
  const open = async (file: File | null) => {
    if (!file) return;
    if (file.size > LARGEST_FILE * 3)
      return setWrong(`${file.name} is too large for a rig file: ${Math.round(file.size / 1_000_000)} MB.`);
    await create(await file.text(), file.name.replace(/\.yunta\.json$|\.json$/, ''));
  };
  return (
    <section className="card" aria-labelledby="new">
      <h2 id="new">A new rig</h2>
      <form
        className="rigs-new"
        onSubmit={(e) => {
          e.preventDefault();
          if (fits(name, LONGEST.name)) void create(writeRigFile(newRig(name.trim())), name.trim());
        }}
      >
        <TextField
          label="Name"
          most={LONGEST.name}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
          autoFocus
        />
        <Button type="submit" disabled={making || !fits(name, LONGEST.name)}>
          Begin
        </Button>
        <FileButton accept=".json,application/json" onChange={(file) => void open(file)}>
          {(props) => (
            <Button variant="default" disabled={making} {...props}>
              From a rig file
            </Button>
          )}
        </FileButton>
      </form>
      {wrong && (
        <p role="alert" className="broken">
          {wrong}
        </p>
      )}
    </section>
  );
};
