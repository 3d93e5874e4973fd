import './rigs.css';
import { Button } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { YourName } from '../../shared/your-name.js';
import { Mark } from '../../shared/mark.js';
import { api, Away, Failing, type RigEntry } from '../../session/api.js';
import { makeRig, whyNot } from '../../session/rig-keeping.js';
import type { WaitingRig } from '../../session/waiting-rigs.js';
import { Learn } from './learn.js';
import { NewRig } from './new-rig.js';
import { RigCard } from './rig-card.js';
import { useCardMaker } from './use-card.js';
import { letGo, saveWaiting, useWaiting } from './use-waiting.js';

/**
 * All rigs of this person, each as a card: open one, begin one, bring some from files. What waits in this browser is
 * sent from here too.
 */
export const Rigs = () => {
  const { data, isError, error } = useQuery({ queryKey: ['rigs'], queryFn: api.rigs, refetchInterval: 5000 });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const maker = useCardMaker();
  const { waiting, keeps } = useWaiting();
  const [said, say] = useState<{ readonly text: string; readonly isWrong: boolean }>();
  const waits = new Map(waiting.map((w) => [w.rig, w]));
  const elsewhere = waiting.filter((w) => !data?.some((rig) => rig.id === w.rig));
  const why = error instanceof Away ? error.why : error instanceof Failing ? error.problem : undefined;
  const changed = () => queries.invalidateQueries({ queryKey: ['rigs'] });
  const act = (done: string, what: () => Promise<unknown>): void => {
    what()
      .then(changed)
      .then(() => say({ text: done, isWrong: false }))
      .catch((e: unknown) => say({ text: whyNot(e), isWrong: true }));
  };
  const here = data?.filter((rig) => !rig.removed) ?? [];
  const away = data?.filter((rig) => rig.removed) ?? [];
  return (
    <main className="rigs">
      <div className="rigs-head">
        <Mark />
        <h1>Yunta</h1>
        <span className="soft">Design a stage rig, program it, prove that every sound comes back.</span>
        <YourName />
      </div>
      {!keeps && (
        <p className="notice" role="alert">
          <strong>This browser cannot keep changes.</strong> Stay on a rig’s page until it says “saved”. A private
          window, or a full disk, may be why.
        </p>
      )}
      {isError && (
        <p className="broken" role="alert">
          {why ? `${why.title}. ${why.detail}` : 'The server does not answer.'} Rigs of which something waits in this
          browser can be opened below.
        </p>
      )}
      <p role="status" className={said?.isWrong ? 'rigs-said broken' : 'rigs-said soft'}>
        {said?.text}
      </p>
      <div className="rigs-columns">
        <section aria-label="Rigs" className="rig-cards">
          {data && here.length === 0 && (
            <p className="soft">No rig yet. Begin one: name it, then say what is in your kit.</p>
          )}
          {here.map((rig) => (
            <RigCard
              key={rig.id}
              rig={rig}
              names={here.map((one) => one.name)}
              maker={maker}
              waits={<Waits of={waits.get(rig.id)} away={isError} />}
              act={act}
            />
          ))}
          {elsewhere.map((w) => (
            <Elsewhere key={w.rig} of={w} isGone={data !== undefined} />
          ))}
          <PutAway rigs={away} bringBack={(rig) => act(`“${rig.name}” is back.`, () => api.bringBack(rig.id))} />
        </section>
        <aside className="rigs-aside">
          <NewRig changed={changed} />
          <Learn
            open={(file, name) =>
              act(
                `“${name}” was opened.`,
                async () => void navigate(`/rig/${await makeRig(file, name, 'A rig to learn from')}/proof`),
              )
            }
          />
        </aside>
      </div>
    </main>
  );
};

/** Rigs that were put away: nothing of them is lost. */
const PutAway = ({ rigs, bringBack }: { rigs: readonly RigEntry[]; bringBack: (rig: RigEntry) => void }) =>
  rigs.length === 0 ? null : (
    <details className="rigs-away">
      <summary>{rigs.length} put away</summary>
      <ul>
        {rigs.map((rig) => (
          <li key={rig.id}>
            <span className="any-name">{rig.name}</span>
            <Button size="compact-sm" variant="default" onClick={() => bringBack(rig)}>
              Bring it back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );

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
  <article className="card rig-card" aria-label={of.name}>
    <h2>
      {isGone ? (
        <span className="any-name">{of.name}</span>
      ) : (
        <Link to={`/rig/${of.rig}/sounds`} className="any-name">
          {of.name}
        </Link>
      )}
    </h2>
    {isGone ? (
      <div className="rigs-waits">
        <span>This rig is not on the server any more. {count(of.changes + of.toSettle)}.</span>
        <Button size="compact-sm" onClick={() => void saveWaiting(of.rig)}>
          Save it as a file
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => void letGo(of.rig)}>
          Let it go
        </Button>
      </div>
    ) : (
      <Waits of={of} away />
    )}
  </article>
);
