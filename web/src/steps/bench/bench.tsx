import './bench.css';
import { Button, Menu } from '@mantine/core';
import type { BenchView, SwitchView } from '@yunta/core/derive/bench-view';
import type { SaidStep } from '@yunta/core/recall/words';
import type { SystemState } from '@yunta/core/recall/system';
import type { Id, Ref } from '@yunta/core/rig/ids';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { BenchAct } from '../../derived/deriving.js';
import { saveFile } from '../../app/save-file.js';
import { useAsked, useRig } from '../../app/rig-context.js';
import { Run } from '../../picture/run.js';
import { KeepTest, StandingTests } from './standing.js';

interface Play {
  readonly name: string;
  readonly control: Ref;
  readonly text: string;
  readonly wanted: string;
  readonly powerUp: SystemState;
  readonly steps: readonly SaidStep[];
}

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'];
const PACE_MS = 900;

export const Bench = () => {
  const { ask, view, derived } = useRig();
  const location = useLocation();
  const navigate = useNavigate();
  const asked = location.state as { play?: Play; call?: Id<'sound'> } | null;
  const [bench, setBench] = useState<BenchView>();
  const [play, setPlay] = useState<Play>();
  const [step, setStep] = useState(0);
  const [keeping, keep] = useState(false);
  const setUpFor = useRef(-1);
  const mishaps = useAsked(['mishaps'], (worker) => worker.mishaps());
  const faults = useAsked(['faults'], (worker) => worker.faults());

  const act = useCallback(async (what: BenchAct) => setBench(await ask.act(what)), [ask]);
  const powerUp = useCallback(async (state?: SystemState) => setBench(await ask.powerUp(state)), [ask]);

  // The bench is set up anew whenever something else was derived: what stands on it is what the rig says now.
  useEffect(() => {
    if (derived.stamp === 0 || setUpFor.current === derived.stamp) return;
    setUpFor.current = derived.stamp;
    const begin = async () => {
      if (asked?.play) {
        setPlay(asked.play);
        setStep(0);
        await powerUp(asked.play.powerUp);
      } else {
        await powerUp();
        if (asked?.call) await act({ step: `recall:${asked.call}` });
      }
    };
    void begin();
  }, [derived.stamp, asked, powerUp, act]);

  useEffect(() => {
    if (!play || step >= play.steps.length - 1) return undefined;
    const timer = setTimeout(() => {
      const { event } = play.steps[step + 1]!;
      const nextMs = play.steps[step + 2]?.afterMs;
      if (event) void act({ step: event, ...(nextMs === undefined ? {} : { nextMs }) });
      setStep(step + 1);
    }, PACE_MS);
    return () => clearTimeout(timer);
  }, [play, step, act]);

  const again = () => {
    if (!play) return;
    setStep(0);
    void powerUp(play.powerUp);
  };
  const stopPlaying = () => {
    setPlay(undefined);
    void navigate('.', { replace: true, state: null });
  };
  if (view && view.sounds.length === 0 && !bench?.floor.length) {
    return <div className="card" style={{ maxWidth: 560 }}><h1>Bench</h1><p className="soft">Nothing to stomp on yet. Add a switcher or a foot controller in Kit and give the rig a sound.</p><Button onClick={() => void navigate('../kit')}>To the kit</Button></div>;
  }
  if (!bench) return <p className="soft">Setting up the bench …</p>;
  return (
    <>
      <div className="headline">
        <h1>Bench</h1><span className="soft">simulated boxes, real bytes · {bench.now} s since power-up</span>
        <div className="tools">
          <Menu position="bottom-end">
            <Menu.Target><Button variant="default" size="xs">Something happens</Button></Menu.Target>
            <Menu.Dropdown mah={360} style={{ overflowY: 'auto' }}>
              {mishaps && mishaps.length > 0 && <Menu.Label>What the proof reckons with</Menu.Label>}
              {mishaps?.map((m) => <Menu.Item key={m.event} onClick={() => void act({ step: m.event })}>{m.text}</Menu.Item>)}
              <Menu.Label>What goes wrong on stage</Menu.Label>
              {faults?.map((f) => <Menu.Item key={f.text} onClick={() => void act(f.fault)}>{f.text}</Menu.Item>)}
            </Menu.Dropdown>
          </Menu>
          <Button variant="default" size="xs" onClick={() => keep(!keeping)} aria-expanded={keeping}>Keep as a test</Button>
          <Button variant="default" size="xs" onClick={() => void powerUp()}>Power up again</Button>
        </div>
      </div>
      <div className="card" style={{ padding: '10px 14px', marginBottom: 14 }}>
        <Run items={bench.run} label="What sounds now" />
        <p style={{ margin: '4px 0 0' }} role="status">
          {bench.sound ? (bench.sound.wrong.length ? <span className="broken">{bench.sound.name} is not as wanted: {bench.sound.wrong.join('; ')}.</span> : <span className="proved">{bench.sound.name} stands as wanted.</span>) : <span className="soft">The slot that is loaded holds no sound.</span>}
        </p>
      </div>
      {keeping && <KeepTest bench={bench} done={() => keep(false)} />}
      <div className="bench">
        <div style={{ display: 'grid', gap: 14, minWidth: 0 }}>
          <Floor bench={bench} act={act} />
          <section className="card" style={{ padding: '12px 8px' }}>
            <h2 style={{ padding: '0 10px' }}>On the wire <span className="soft" style={{ fontWeight: 400, fontSize: 13 }}>31,250 baud, 320 µs a byte</span></h2>
            <div className="wire-tools">
              <Button variant="default" size="compact-xs" onClick={() => void ask.monitor().then((m) => saveFile('bench.txt', m.text, 'text/plain'))}>Save as text</Button>
              <Button variant="default" size="compact-xs" onClick={() => void ask.monitor().then((m) => saveFile('bench.mid', m.midi, 'audio/midi'))}>as a MIDI file</Button>
            </div>
            <WireLog bench={bench} />
          </section>
        </div>
        <div style={{ display: 'grid', gap: 14 }}>
          <StandingTests />
          {play && <Playing play={play} step={step} again={again} stop={stopPlaying} bench={bench} />}
          <section className="card" style={{ padding: '12px 8px' }}>
            <h2 style={{ padding: '0 10px' }}>Boxes <span className="soft" style={{ fontWeight: 400, fontSize: 13 }}>▸ changed by the last stomp</span></h2>
            <table className="plain boxes">
              <tbody>
                {bench.boxes.map((b) => (
                  <tr key={b.device}>
                    <td className="mono"><strong>{b.code}</strong></td><td className="soft">{b.name}</td>
                    <td className="mono">{b.says.map((s, i) => <span key={s.text} className={s.changed ? 'changed' : ''}>{i > 0 && ', '}{s.text}</span>)}{b.outside && <span className="soft"> · outside</span>}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        </div>
      </div>
    </>
  );
};

/** The switches as the foot sees them: click or hold, keys 1 to 9 and 0 in the same order. */
const Floor = ({ bench, act }: { bench: BenchView; act: (what: BenchAct) => Promise<void> }) => {
  const { floor } = bench;
  const calls = useAsked(['calls'], (worker) => worker.calls(), floor.length === 0) ?? [];
  const down = useRef(new Set<string>());
  const press = useCallback((s: SwitchView | undefined, gesture: 'press' | 'release') => { if (s) void act({ stomp: s.switch, device: s.device, gesture }); }, [act]);
  useEffect(() => {
    const typing = (e: KeyboardEvent) => /^(INPUT|TEXTAREA|SELECT)$/.test((e.target as HTMLElement).tagName) || e.ctrlKey || e.metaKey || e.altKey;
    const onDown = (e: KeyboardEvent) => {
      const i = KEYS.indexOf(e.key);
      if (i < 0 || typing(e) || down.current.has(e.key)) return;
      down.current.add(e.key);
      press(floor[i], 'press');
    };
    const onUp = (e: KeyboardEvent) => {
      const i = KEYS.indexOf(e.key);
      if (i >= 0 && down.current.delete(e.key)) press(floor[i], 'release');
    };
    window.addEventListener('keydown', onDown);
    window.addEventListener('keyup', onUp);
    return () => {
      window.removeEventListener('keydown', onDown);
      window.removeEventListener('keyup', onUp);
    };
  }, [floor, press]);
  return (
    <section className="card" aria-label="Floor">
      <div style={{ display: 'flex', justifyContent: 'space-between', marginBottom: 8 }}><h2 style={{ margin: 0 }}>Floor</h2><span className="soft">{bench.bank ? `bank ${bench.bank} · ` : ''}keys 1–9 and 0 stomp, hold to hold</span></div>
      {floor.length === 0 && (calls.length === 0 ? <p className="soft">No controller in the kit: nothing to stomp on.</p> : (
        <>
          <p className="soft">Nothing to stomp on: a list calls the sounds. Call one:</p>
          <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>{calls.map((c) => <Button key={c.event} variant="default" size="xs" onClick={() => void act({ step: c.event })}>{c.text}</Button>)}</div>
        </>
      ))}
      <div className="floor">
        {floor.map((s, i) => (
          <button
            key={`${s.device} ${s.switch}`} type="button" className={`switch ${s.state}`} aria-pressed={s.state === 'called' || s.state === 'latched' || s.state === 'held'}
            onPointerDown={(e) => { e.currentTarget.setPointerCapture(e.pointerId); press(s, 'press'); }} onPointerUp={() => press(s, 'release')} onPointerCancel={() => press(s, 'release')}
            onKeyDown={(e) => { if ((e.key === 'Enter' || e.key === ' ') && !e.repeat) { e.preventDefault(); press(s, 'press'); } }} onKeyUp={(e) => { if (e.key === 'Enter' || e.key === ' ') press(s, 'release'); }}
          >
            <span className="letter">{s.switch === 'up' ? '▲' : s.switch === 'down' ? '▼' : s.switch}</span><span className="key" aria-hidden="true">{KEYS[i] ?? ''}</span>
            <span><span className="label">{s.label}</span><span className="about">{s.state === 'latched' ? 'on' : s.state === 'held' ? 'held down' : s.about}</span></span>
          </button>
        ))}
      </div>
    </section>
  );
};

const WireLog = ({ bench }: { bench: BenchView }) => {
  const end = useRef<HTMLDivElement>(null);
  useEffect(() => { end.current?.scrollTo({ top: end.current.scrollHeight }); }, [bench]);
  return (
    <div className="wire-log" ref={end} tabIndex={0} role="log" aria-label="Bytes on the wire">
      <table className="plain">
        <thead><tr><th>time, s</th><th>bytes</th><th>reads</th><th>who reacts</th></tr></thead>
        <tbody>
          {bench.wire.map((l, i) => <tr key={i} className={l.kind}><td className="mono">{l.at}</td><td className="mono">{l.bytes}</td><td>{l.reads}</td><td className={l.kind === 'nobody' ? 'broken' : ''}>{l.who}</td></tr>)}
        </tbody>
      </table>
      {bench.wire.length === 0 && <p className="soft" style={{ padding: '0 10px' }}>Quiet. Stomp on something.</p>}
    </div>
  );
};

const Playing = ({ play, step, again, stop, bench }: { play: Play; step: number; again: () => void; stop: () => void; bench: BenchView }) => {
  const { ask } = useRig();
  const done = step >= play.steps.length - 1;
  const [stands, setStands] = useState<string>();
  useEffect(() => { void ask.stands(play.control).then(setStands); }, [ask, play.control, bench]);
  return (
    <section className="card alarm">
      <h2>How {play.name} comes back wrong</h2>
      <ol style={{ listStyle: 'none', margin: 0, padding: 0 }}>
        {play.steps.map((s, i) => <li key={i} className={i === step ? 'now' : ''} aria-current={i === step ? 'step' : undefined} style={{ padding: '4px 6px', background: i === step ? 'var(--chosen)' : undefined, opacity: i > step ? 0.65 : 1 }}><strong>{i}. {s.text}</strong> <span className="soft">{play.text} {s.value}</span></li>)}
      </ol>
      {done && stands !== undefined && <p>{stands === play.wanted ? <span className="proved">On the bench {play.text} now ends at {stands}, as wanted.</span> : <span className="broken">On the bench too: {play.text} is {stands}, wanted {play.wanted}.</span>}</p>}
      <div style={{ display: 'flex', gap: 8 }}><Button size="xs" variant="default" onClick={again}>Play it again</Button><Button size="xs" variant="default" onClick={stop}>Play freely</Button></div>
    </section>
  );
};
