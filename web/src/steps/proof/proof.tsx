import './proof.css';
import { Button, Checkbox } from '@mantine/core';
import type { SoundView } from '@yunta/core/derive/view';
import { USUAL_DISTURBANCES } from '@yunta/core/rig/hookup';
import { splitRef, type Id, type Ref } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { controlText, valueText } from '@yunta/core/recall/words';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Remedies } from '../../app/remedies.js';
import { useAsked, useRig } from '../../app/rig-context.js';
import { ADMITS } from './admits.js';
import { Assume } from './assume.js';
import { Board, type Pair } from './board.js';
import { Certificate } from './certificate.js';
import { Ways } from './ways.js';
import { useWhatIfs, WhatIfs } from './what-ifs.js';

export const Proof = () => {
  const { view } = useRig();
  const navigate = useNavigate();
  const [pair, choosePair] = useState<Pair>();
  const [chosen, choose] = useState<Id<'sound'>>();
  const whatIfs = useWhatIfs();
  if (view && view.tally.sounds === 0) {
    return <div className="card" style={{ maxWidth: 560 }}><h1>Does every sound come back?</h1><p className="soft">There is nothing to prove yet. Give the rig a sound first.</p><Button onClick={() => void navigate('../sounds')}>To the sounds</Button></div>;
  }
  if (!view) return <p className="soft">Proving …</p>;
  const broken = view.sounds.filter((s) => s.verdict === 'broken');
  const shown = view.sounds.find((s) => s.id === chosen && s.verdict === 'broken') ?? broken[0];
  return (
    <div className="proof">
      <Certificate answers={whatIfs.answers} />
      <section className="no-print">
        <div className="headline">
          <h1>Does every sound come back?</h1>
          <span className="soft">{view.tally.proved} of {view.tally.sounds} proved · {view.controls} controls that can stand in <Ways />, {view.events} things that can happen to them</span>
        </div>
        <Board pair={pair} choose={(p) => { choosePair(p); if (broken.some((s) => s.id === p.to)) choose(p.to); }} />
        {pair && <PairDetails pair={pair} />}
        <WhatIfs asked={whatIfs} />
      </section>
      <aside className="no-print" style={{ display: 'grid', gap: 14 }}>
        {broken.length > 1 && (
          <div role="group" aria-label="Sounds that can come back wrong" style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
            {broken.map((s) => <Button key={s.id} size="compact-sm" variant={s === shown ? 'filled' : 'default'} aria-pressed={s === shown} onClick={() => choose(s.id)}>≠ {s.name}</Button>)}
          </div>
        )}
        {shown ? <Broken sound={shown} /> : <AllProved />}
        <Granted />
      </aside>
    </div>
  );
};

const AllProved = () => {
  const { view } = useRig();
  const { tally } = view!;
  return (
    <div className="card">
      <h2 className={tally.undecided ? '' : 'proved'}>{tally.undecided ? `${tally.undecided} not decided` : 'Every sound comes back'}</h2>
      <p>{tally.undecided ? 'Some sounds depend on more states than could be searched. They are not called proved.' : 'Whatever was stomped before, in every state that feet, moves and a kicked plug can bring about, each recall leaves all its wants true, under what is taken for granted below.'}</p>
    </div>
  );
};

const Broken = ({ sound }: { sound: SoundView }) => {
  const { view } = useRig();
  const navigate = useNavigate();
  const [first] = sound.wrong;
  if (!first) return null;
  const findings = view!.findings.filter((f) => !f.accepted && f.evidence.includes(sound.id) && f.curable && ['recall.unpinned', 'recall.move-left-on', 'midi.number-shift'].includes(f.code));
  return (
    <>
      <div className="card alarm">
        <h2>{sound.name} can come back wrong</h2>
        <p style={{ margin: '4px 0 10px' }}>{sound.wrong.map((w) => w.text).join(', ')}: wanted {sound.wrong.map((w) => w.wanted).join(', ')}.</p>
        <ol className="footsteps" aria-label="Shortest way there">
          {first.steps.map((s, i) => (
            <li key={i}><span className="n" aria-hidden="true">{i}</span><span><strong>{s.text}</strong><br /><span className="soft">{first.text} {s.value}{i === first.steps.length - 1 ? `; wanted ${first.wanted}` : ''}</span></span></li>
          ))}
        </ol>
        <Button onClick={() => void navigate('../bench', { state: { play: { name: sound.name, control: first.control, text: first.text, wanted: first.wanted, powerUp: first.powerUp, steps: first.steps } } })}>Play on the bench</Button>
      </div>
      {findings.length > 0 && (
        <div className="card">
          <h2>Ways to cure it, each tried by the prover</h2>
          {findings.map((f) => <Remedies key={f.fingerprint} finding={f} />)}
        </div>
      )}
    </>
  );
};

/** What the proof reckons with, and what it takes for granted: the first lines of a line check. */
const Granted = () => {
  const { view, hookup, edit } = useRig();
  if (!hookup || !view) return null;
  const admits = hookup.admits ?? USUAL_DISTURBANCES;
  return (
    <div className="card">
      <h2>The proof reckons with</h2>
      {ADMITS.map(({ key, says }) => <Checkbox key={key} mb={6} label={says} checked={admits[key] ?? false} onChange={(e) => edit({ put: [{ ...hookup, admits: { ...admits, [key]: e.currentTarget.checked } }], remove: [] }, `The proof ${e.currentTarget.checked ? 'reckons' : 'does not reckon'} with: ${says}`)} />)}
      <h2 style={{ marginTop: 14 }}>It takes for granted</h2>
      {view.granted.length === 0 ? <p className="soft">Nothing.</p> : <ul style={{ margin: 0, paddingLeft: 20 }}>{[...new Set(view.granted.map((g) => g.why))].map((why) => <li key={why}><strong>{view.granted.filter((g) => g.why === why).map((g) => g.text).join(', ')}</strong> <span className="soft">{why}</span></li>)}</ul>}
      <Assume />
      <Button mt={12} size="xs" variant="default" onClick={() => window.print()}>Print what is proved</Button>
    </div>
  );
};

const PairDetails = ({ pair }: { pair: Pair }) => {
  const { rig } = useRig();
  const changes = useAsked(['changes', pair.from, pair.to], (worker) => worker.changes(pair.from, pair.to));
  const name = (id: Id<'sound'>) => partOf(rig, id)?.name ?? id;
  const boxesOf = (stages: readonly Ref[]) => [...new Set(stages.map((s) => partOf(rig, splitRef(s).device)?.name ?? s))].join(' and ');
  return (
    <div className="card" style={{ marginTop: 12 }} aria-live="polite">
      <h2>{name(pair.from)} → {name(pair.to)}</h2>
      <p className="soft" style={{ margin: '0 0 6px' }}>settled after {Math.round(pair.settleMs * 10) / 10} ms{pair.gapMs ? `, silent for ${pair.gapMs} ms by ${partOf(rig, pair.gapBy!)?.name}` : ', without a gap'}{pair.stepDb === undefined ? '' : `; ${pair.stepDb === 0 ? 'as loud' : `${Math.abs(pair.stepDb)} dB ${pair.stepDb > 0 ? 'louder' : 'softer'}`}, by gains that are partly assumed`}</p>
      {(pair.tails.ring.length > 0 || pair.tails.cut.length > 0) && <p style={{ margin: '0 0 6px' }}>{[pair.tails.ring.length > 0 && `The repeats of ${boxesOf(pair.tails.ring)} ring on.`, pair.tails.cut.length > 0 && `The repeats of ${boxesOf(pair.tails.cut)} are cut off.`].filter(Boolean).join(' ')}</p>}
      {pair.wrong.length > 0 && <p className="broken">Called straight after it, {pair.wrong.map((w) => controlText(rig, w)).join(', ')} ends wrong.</p>}
      <table className="plain"><thead><tr><th>what changes</th><th>from</th><th>to</th></tr></thead><tbody>{changes?.map((c) => <tr key={c.control}><td className="mono">{controlText(rig, c.control)}</td><td>{valueText(rig, c.control, c.from)}</td><td>{valueText(rig, c.control, c.to)}</td></tr>)}</tbody></table>
    </div>
  );
};
