import './proof.css';
import { Button, Checkbox, Select } from '@mantine/core';
import type { SoundView } from '@yunta/core/derive/views/view';
import { USUAL_DISTURBANCES } from '@yunta/core/rig/hookup';
import { splitRef, theId, type Id, type Ref } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { VERDICTS } from '@yunta/core/recall/verdict/sound-verdict';
import { SIGNS, VERDICT_WORDS } from '@yunta/core/recall/words/verdict-words';
import { controlText, valueText } from '@yunta/core/recall/words/words';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Remedies } from '../../shared/remedies.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Headline, VerdictText } from '../../shared/verdict.js';
import { ADMITS } from './admits.js';
import { NotAnyMore, TakeForGranted } from './assume.js';
import { Board, type SoundPair } from './board.js';
import { Certificate } from './certificate.js';
import { OnFoot } from './on-foot.js';
import { ByFeet } from './by-feet.js';
import { Held } from './held.js';
import { Ways } from './ways.js';
import { useWhatIfs, WhatIfs } from './what-ifs.js';
import { someOf } from '@yunta/core/known/some-of';
import { surely } from '@yunta/core/known/the';

export const Proof = () => {
  const { view } = useRig();
  const navigate = useNavigate();
  const [pair, choosePair] = useState<SoundPair>();
  const [chosen, choose] = useState<Id<'sound'>>();
  const whatIfs = useWhatIfs();
  if (view && view.tally.sounds === 0) {
    return (
      <div className="card" style={{ maxWidth: 560 }}>
        <h1>Does every sound come back?</h1>
        <p className="soft">There is nothing to prove yet. Give the rig a sound first.</p>
        <Button onClick={() => void navigate('../sounds')}>To the sounds</Button>
      </div>
    );
  }
  if (!view) return <p className="soft">Proving …</p>;
  const told = VERDICTS.flatMap((is) => (is === 'proved' ? [] : view.sounds.filter((s) => s.verdict === is)));
  const shown = told.find((s) => s.id === chosen) ?? told[0];
  return (
    <div className="proof">
      <Certificate answers={whatIfs.answers} />
      <section className="no-print">
        <div className="headline">
          <h1>Does every sound come back?</h1>
          <p className="answer">
            <Headline tally={view.tally} limbs={view.limbs} />
          </p>
          <p className="soft">
            {view.controls} controls that can stand in <Ways />, {view.events} things that can happen to them
          </p>
        </div>
        <SetOnce />
        <Board
          pair={pair}
          choose={(p) => {
            choosePair(p);
            if (told.some((s) => s.id === p.to)) choose(p.to);
          }}
        />
        {pair && <PairDetails pair={pair} />}
        <WhatIfs asked={whatIfs} />
      </section>
      <aside className="proof-told no-print">
        {told.length > 1 && shown && <ToldSounds told={told} shown={shown} choose={choose} />}
        {!shown && <AllProved />}
        {shown && (shown.verdict === 'cannot sound' || shown.verdict === 'undecided') && <Reason sound={shown} />}
        {shown && shown.wrong.length > 0 && <Broken sound={shown} />}
        {shown && <ByHand sound={shown} />}
        <OnFoot />
        <Held />
        <Granted />
        <Reckoned />
      </aside>
    </div>
  );
};

/** Beyond these a row of names is a wall: they are found in a list. */
const MOST_NAMES = 12;

interface ToldProps {
  readonly told: readonly SoundView[];
  readonly shown: SoundView;
  readonly choose: (id: Id<'sound'>) => void;
}

/** The sounds that are not proved: which one is told about. */
const ToldSounds = ({ told, shown, choose }: ToldProps) =>
  told.length > MOST_NAMES ? (
    <Select
      aria-label="Sounds that do not come back by themselves"
      description={`${told.length} sounds, worst first`}
      searchable
      allowDeselect={false}
      value={shown.id}
      onChange={(id) => id && choose(theId('sound', id))}
      data={told.map((s) => ({ value: s.id, label: `${SIGNS[s.verdict]} ${s.name}` }))}
    />
  ) : (
    <div role="group" aria-label="Sounds that do not come back by themselves" className="proof-names">
      {told.map((s) => (
        <Button
          key={s.id}
          size="compact-sm"
          variant={s === shown ? 'filled' : 'default'}
          aria-pressed={s === shown}
          onClick={() => choose(s.id)}
        >
          <span aria-hidden="true">{SIGNS[s.verdict]}&nbsp;</span>
          <span className="visually-hidden">{VERDICT_WORDS[s.verdict]}: </span>
          {s.name}
        </Button>
      ))}
    </div>
  );

/** What is set once and left so stands where the headline counts it: taking it for granted is one press away. */
const SetOnce = () => {
  const { view } = useRig();
  const finding = surely(view).findings.find(
    (f) => f.code === 'recall.hand-move' && f.severity === 'note' && !f.accepted,
  );
  if (!finding) return null;
  return (
    <div className="card set-once">
      <p>{finding.why}</p>
      <Remedies finding={finding} />
    </div>
  );
};

const AllProved = () => (
  <div className="card">
    <h2 className="proved">Every sound comes back</h2>
    <p>
      Each is called and heard, and nothing else has to be done. Whatever was done before of all that the proof reckons
      with, each recall brings everything that the sound asks for, under what is taken for granted below.
    </p>
  </div>
);

/** Why a sound cannot sound, or is not decided. */
const Reason = ({ sound }: { sound: SoundView }) => {
  const navigate = useNavigate();
  return (
    <div className="card alarm">
      <h2>
        {sound.name} <VerdictText sound={sound} />
      </h2>
      <p>{sound.because}</p>
      <Button
        variant="default"
        onClick={() => void navigate(sound.verdict === 'undecided' ? '../sounds' : '../routing')}
      >
        {sound.verdict === 'undecided' ? 'To the sounds' : 'To the routing'}
      </Button>
    </div>
  );
};

/** What foot and hand have to do for a sound, apart. */
const ByHand = ({ sound }: { sound: SoundView }) => {
  const { rig } = useRig();
  if (sound.byFoot.length + sound.byHand.length === 0 && sound.isCalled) return null;
  const canCall = [...rig.parts.device.values()].some((d) => d.memories.some((m) => m.by !== undefined));
  return (
    <div className="card">
      <h2>
        {sound.name}
        {sound.verdict === 'left to hands' ? (
          <>
            {' '}
            <VerdictText sound={sound} />
          </>
        ) : (
          ': by foot and hand'
        )}
      </h2>
      {!sound.isCalled && (
        <p>
          {canCall
            ? 'Nothing calls it here: no switch, no song list, no timeline. Give it a slot in Sounds, or set each box yourself.'
            : 'Nothing here can call it: foot and hand set each box.'}
        </p>
      )}
      {sound.byFoot.length > 0 && (
        <>
          <h3>By foot</h3>
          <ul className="assumed">
            {sound.byFoot.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </>
      )}
      {sound.byHand.length > 0 && (
        <>
          <h3>By hand</h3>
          <ul className="assumed">
            {sound.byHand.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </>
      )}
      {sound.verdict === 'left to hands' && sound.isCalled && (
        <p className="soft">
          With these done, everything else comes back, whatever was stomped before. The board tells how many of them
          change from sound to sound.
        </p>
      )}
    </div>
  );
};

const MOST_WRONG = 6;

const Broken = ({ sound }: { sound: SoundView }) => {
  const { view } = useRig();
  const navigate = useNavigate();
  const { shortest: first, wrong } = sound;
  if (!first) return null;
  const findings = surely(view).findings.filter(
    (f) =>
      !f.accepted &&
      f.evidence.includes(sound.id) &&
      f.curable &&
      ['recall.unpinned', 'recall.move-left-on', 'midi.number-shift'].includes(f.code),
  );
  return (
    <>
      <div className="card alarm">
        <h2>{sound.name} can come back wrong</h2>
        <p style={{ margin: '4px 0 10px' }}>
          {someOf(
            wrong.map((w) => `${w.text}, wanted ${w.wanted}`),
            MOST_WRONG,
            '; ',
          )}
          .
        </p>
        <ol className="footsteps" aria-label="Shortest way there">
          {first.steps.map((s, i) => (
            <li key={i}>
              <span className="n" aria-hidden="true">
                {i}
              </span>
              <span>
                <strong>{s.text}</strong>
                <br />
                <span className="soft">
                  {first.text} {s.value}
                  {i === first.steps.length - 1 ? `; wanted ${first.wanted}` : ''}
                </span>
              </span>
            </li>
          ))}
        </ol>
        <Button
          onClick={() =>
            void navigate('../bench', {
              state: {
                play: {
                  name: sound.name,
                  control: first.control,
                  text: first.text,
                  wanted: first.wanted,
                  powerUp: first.powerUp,
                  steps: first.steps,
                },
              },
            })
          }
        >
          Play on the bench
        </Button>
      </div>
      {findings.length > 0 && (
        <div className="card">
          <h2>Ways to cure it, each tried by the prover</h2>
          {findings.map((f) => (
            <Remedies key={f.fingerprint} finding={f} />
          ))}
        </div>
      )}
    </>
  );
};

/** What is taken for granted: what one looks at by hand before the show. */
const Granted = () => {
  const { view, hookup } = useRig();
  if (!view || !hookup) return null;
  return (
    <div className="card">
      <h2>To be checked by hand</h2>
      {view.granted.length + view.homes.length === 0 ? (
        <p className="soft">Nothing is taken for granted.</p>
      ) : (
        <>
          <p className="soft">The proof takes this for granted. It holds as long as it is so.</p>
          {[...new Set(view.granted.map((g) => g.why))].map((why) => (
            <div key={why} className="granted">
              <span className="soft">{why}</span>
              <ul>
                {view.granted
                  .filter((g) => g.why === why)
                  .map((g) => (
                    <li key={g.control}>
                      <strong>{g.text}</strong> <NotAnyMore control={g.control} />
                    </li>
                  ))}
              </ul>
            </div>
          ))}
          {view.homes.length > 0 && (
            <div className="granted">
              <span className="soft">Whoever turns these turns them back afterwards.</span>
              <ul>
                {view.homes.map((home) => (
                  <li key={home}>
                    <strong>{home}</strong>
                  </li>
                ))}
              </ul>
            </div>
          )}
        </>
      )}
      <TakeForGranted hookup={hookup} />
      <Button mt={12} size="xs" variant="default" onClick={() => window.print()}>
        Print what is proved
      </Button>
    </div>
  );
};

/** What may happen to the rig, as far as the proof reckons with it. */
const Reckoned = () => {
  const { view, hookup, edit } = useRig();
  if (!hookup || !view) return null;
  const admits = hookup.admits ?? USUAL_DISTURBANCES;
  return (
    <div className="card">
      <h2>The proof reckons with</h2>
      {ADMITS.map(({ key, says }) => (
        <Checkbox
          key={key}
          mb={6}
          label={says}
          checked={admits[key] ?? false}
          onChange={(e) =>
            edit(
              { put: [{ ...hookup, admits: { ...admits, [key]: e.currentTarget.checked } }], remove: [] },
              `The proof ${e.currentTarget.checked ? 'reckons' : 'does not reckon'} with: ${says}`,
            )
          }
        />
      ))}
      <Sentences title="In plain words" of={view.reckoned.with} />
      <Sentences title="It does not reckon with" of={view.reckoned.without} />
    </div>
  );
};

const Sentences = ({ title, of }: { title: string; of: readonly string[] }) => (
  <details className="sentences">
    <summary>{title}</summary>
    <ul>
      {of.map((s) => (
        <li key={s}>{s}</li>
      ))}
    </ul>
  </details>
);

/** How long nothing came in this change, by a recording. */
const MeasuredHole = ({ from, to }: { from: Id<'sound'>; to: Id<'sound'> }) => {
  const { rig, hookup } = useRig();
  const known = partOf(rig, to)?.measured?.find((m) => m.hookup === hookup?.id && m.hole?.after === from);
  if (!known?.hole) return null;
  return (
    <p style={{ margin: '0 0 6px' }}>
      Measured: nothing came for {known.hole.ms} ms{known.on ? `, on ${known.on}` : ''}
      {known.with ? `, ${known.with}` : ''}.
    </p>
  );
};

const PairDetails = ({ pair }: { pair: SoundPair }) => {
  const { rig } = useRig();
  const changes = useAsked(['changes', pair.from, pair.to], (worker) => worker.answers.changes(pair.from, pair.to));
  const name = (id: Id<'sound'>) => partOf(rig, id)?.name ?? id;
  const boxesOf = (stages: readonly Ref[]) =>
    [...new Set(stages.map((s) => partOf(rig, splitRef(s).device)?.name ?? s))].join(' and ');
  return (
    <div className="card" style={{ marginTop: 12 }} aria-live="polite">
      <h2>
        {name(pair.from)} → {name(pair.to)}
      </h2>
      <p className="soft" style={{ margin: '0 0 6px' }}>
        settled after {Math.round(pair.settleMs * 10) / 10} ms
        {pair.gapMs ? `, silent for ${pair.gapMs} ms by ${partOf(rig, surely(pair.gapBy))?.name}` : ', without a gap'}
        {pair.stepDb === undefined
          ? ''
          : `; ${pair.stepDb === 0 ? 'as loud' : `${Math.abs(pair.stepDb)} dB ${pair.stepDb > 0 ? 'louder' : 'softer'}`}, by what is stated`}
      </p>
      <MeasuredHole from={pair.from} to={pair.to} />
      {(pair.tails.ring.length > 0 || pair.tails.cut.length > 0) && (
        <p style={{ margin: '0 0 6px' }}>
          {[
            pair.tails.ring.length > 0 && `The repeats of ${boxesOf(pair.tails.ring)} ring on.`,
            pair.tails.cut.length > 0 && `The repeats of ${boxesOf(pair.tails.cut)} are cut off.`,
          ]
            .filter(Boolean)
            .join(' ')}
        </p>
      )}
      <ByFeet key={`${pair.from} ${pair.to}`} pair={pair} />
      {pair.wrong.length > 0 && (
        <p className="broken">
          Called straight after it, {pair.wrong.map((w) => controlText(rig, w)).join(', ')} ends wrong.
        </p>
      )}
      <table className="plain">
        <thead>
          <tr>
            <th>what changes</th>
            <th>from</th>
            <th>to</th>
          </tr>
        </thead>
        <tbody>
          {changes?.map((c) => (
            <tr key={c.control}>
              <td className="mono">{controlText(rig, c.control)}</td>
              <td>{valueText(rig, c.control, c.from)}</td>
              <td>{valueText(rig, c.control, c.to)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
};
