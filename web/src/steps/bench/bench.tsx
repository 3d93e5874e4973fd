import './bench.css';
import { Button, Select } from '@mantine/core';
import type { BenchView } from '@yunta/core/derive/bench-view';
import { FAULT_GROUPS, type Fault } from '@yunta/core/derive/faults';
import type { SystemState } from '@yunta/core/recall/proof/system';
import type { Id } from '@yunta/core/rig/ids';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { BenchAct } from '../../derived/deriving.js';
import { VerdictSign, VerdictText } from '../../app/verdict.js';
import { useAsked, useRig } from '../../app/rig-context.js';
import { Run } from '../../picture/run.js';
import type { Act } from './act.js';
import { Boxes, Floor } from './floor.js';
import { Monitor } from './monitor.js';
import { Playing, useProgress, type Play } from './playing.js';
import { KeepTest, StandingTests } from './standing.js';

/** How often one looks while something is still on its way. */
const LOOK_MS = 60;

export const Bench = () => {
  const { ask, view, derived } = useRig();
  const location = useLocation();
  const navigate = useNavigate();
  const asked = location.state as { play?: Play; call?: Id<'sound'> } | null;
  const [bench, setBench] = useState<BenchView>();
  const [play, setPlay] = useState<Play>();
  const [keeping, keep] = useState(false);
  const setUpFor = useRef(-1);

  // Footsteps of the proof settle one by one; what hands and feet do here goes on as time goes by.
  const act: Act = useCallback(async (what) => setBench(await ask.act(what, !('step' in what))), [ask]);
  const powerUp = useCallback(async (state?: SystemState) => setBench(await ask.powerUp(state)), [ask]);

  // What stands on the bench is what the rig says now: it is set up anew when something else was derived, unless that, such as a tick or a note, leaves it as it is.
  useEffect(() => {
    if (derived.stamp === 0 || setUpFor.current === derived.stamp) return;
    const isNew = setUpFor.current < 0;
    setUpFor.current = derived.stamp;
    const begin = async () => {
      const going = isNew ? undefined : await ask.goOn();
      if (going) {
        setBench(going);
      } else if (asked?.play) {
        setPlay({ ...asked.play });
        await powerUp(asked.play.powerUp);
      } else {
        await powerUp();
        if (asked?.call) await act({ step: `recall:${asked.call}` });
      }
    };
    void begin();
  }, [ask, derived.stamp, asked, powerUp, act]);

  const progress = useProgress(play, act);

  useEffect(() => {
    if (!bench?.busy) return undefined;
    const timer = setTimeout(() => void ask.later().then(setBench), LOOK_MS);
    return () => clearTimeout(timer);
  }, [ask, bench]);

  const again = () => {
    if (!play) return;
    setPlay({ ...play });
    void powerUp(play.powerUp);
  };
  const stopPlaying = () => {
    setPlay(undefined);
    void ask.playFreely().then(setBench);
    void navigate('.', { replace: true, state: null });
  };
  if (view && view.sounds.length === 0 && !bench?.floor.length) {
    return <div className="card" style={{ maxWidth: 560 }}><h1>Bench</h1><p className="soft">Nothing to stomp on yet. Add a switcher or a foot controller in Kit and give the rig a sound.</p><Button onClick={() => void navigate('../kit')}>To the kit</Button></div>;
  }
  if (!bench) return <p className="soft">Setting up the bench …</p>;
  const proved = view?.sounds.find((s) => s.id === bench.sound?.id);
  return (
    <>
      <div className="headline">
        <h1>Bench</h1><span className="soft">simulated boxes, real bytes · {bench.now} s since power-up</span>
        <div className="tools">
          <Mishaps act={act} />
          <Button variant="default" size="xs" onClick={() => keep(!keeping)} aria-expanded={keeping}>Keep as a test</Button>
          <Button variant="default" size="xs" onClick={() => void powerUp()}>Power up again</Button>
        </div>
      </div>
      {bench.wrong.length > 0 && (
        <ul className="wrong-now" aria-label="What is wrong on the bench">
          {bench.wrong.map((w) => <li key={w.text}><span className="broken">{w.text}</span> <Button variant="default" size="compact-xs" aria-label={`Put right: ${w.text}`} onClick={() => void act(w.right)}>Put right</Button></li>)}
        </ul>
      )}
      <div className="card" style={{ padding: '10px 14px', marginBottom: 14 }}>
        <Run items={bench.run} label="What sounds now" {...(bench.wrong.length ? { silent: 'Nothing gets through.' } : {})} />
        <p style={{ margin: '4px 0 0' }} role="status">
          {bench.sound && bench.sound.silentAt.length > 0 && <span className="broken">Nothing is heard at {bench.sound.silentAt.join(' or ')}. </span>}
          {bench.sound ? (bench.sound.wrong.length ? <span className="broken">{bench.sound.name} is not as wanted: {bench.sound.wrong.join('; ')}.</span> : (bench.sound.silentAt.length ? <span className="soft">The controls of {bench.sound.name} stand as wanted.</span> : <span className="proved">{bench.sound.name} stands as wanted.</span>)) : <span className="soft">The slot that is loaded holds no sound.</span>}
          {proved && <span> In the proof it <VerdictSign is={proved.verdict} /> <VerdictText sound={proved} />.</span>}
          {bench.audio.map((text) => <span key={text} className="soft"> {text}</span>)}
        </p>
      </div>
      {keeping && <KeepTest bench={bench} done={() => keep(false)} />}
      <div className="bench">
        <div style={{ display: 'grid', gap: 14, minWidth: 0 }}>
          <Floor bench={bench} act={act} />
          <Monitor bench={bench} />
        </div>
        <div style={{ display: 'grid', gap: 14 }}>
          <StandingTests />
          {play && <Playing play={play} progress={progress} again={again} stop={stopPlaying} />}
          <Boxes bench={bench} act={act} />
        </div>
      </div>
    </>
  );
};

/** What can happen besides stomps: what the proof reckons with, and what goes wrong on stage. Found by typing. */
const Mishaps = ({ act }: { act: Act }) => {
  const mishaps = useAsked(['mishaps'], (worker) => worker.mishaps()) ?? [];
  const faults = useAsked(['faults'], (worker) => worker.faults()) ?? [];
  const [search, setSearch] = useState('');
  const happen = new Map<string, BenchAct>([...mishaps.map((m) => [m.text, { step: m.event }] as const), ...faults.map((f) => [f.text, f.fault] as const satisfies readonly [string, Fault])]);
  const groups = [
    { group: 'What the proof reckons with', items: [...new Set(mishaps.map((m) => m.text))] },
    ...FAULT_GROUPS.map((group) => ({ group, items: [...new Set(faults.filter((f) => f.group === group).map((f) => f.text))].filter((t) => !mishaps.some((m) => m.text === t)) })),
  ].filter((g) => g.items.length > 0);
  return (
    <Select
      size="xs" w={240} aria-label="Something happens" placeholder="Something happens …" searchable searchValue={search} onSearchChange={setSearch} onOptionSubmit={() => setSearch('')} selectFirstOptionOnChange value={null} data={groups} limit={120} maxDropdownHeight={360} nothingFoundMessage="Nothing of that kind can happen here" comboboxProps={{ width: 420, position: 'bottom-end' }}
      onChange={(text) => {
        const what = text === null ? undefined : happen.get(text);
        if (what) void act(what);
      }}
    />
  );
};
