import './bench.css';
import { someOf } from '@yunta/core/known/some-of';
import { Button, Select } from '@mantine/core';
import type { BenchView } from '@yunta/core/derive/views/bench-view';
import { FAULT_GROUPS, type Fault } from '@yunta/core/derive/play/faults';
import type { SystemState } from '@yunta/core/prover/system';
import type { Id } from '@yunta/core/rig/ids';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { BenchAct } from '../../worker/bench-play.js';
import { VerdictSign, VerdictText } from '../../shared/verdict.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Run } from '../../picture/run.js';
import type { DoOnBench } from './act.js';
import { Boxes, Floor } from './floor.js';
import { Monitor } from './monitor.js';
import { Playing, useProgress, type Play } from './playing.js';
import { KeepTest, StandingTests } from './standing.js';

/** How often one looks while something is still on its way. */
const LOOK_MS = 60;

/**
 * What stands on the bench is what the rig says now: it is set up anew when something else was derived, unless that,
 * such as a tick or a note, leaves it as it is.
 */
const useBench = () => {
  const { ask, derived } = useRig();
  const asked: { play?: Play; call?: Id<'sound'> } | null = useLocation().state;
  const [bench, setBench] = useState<BenchView>();
  const [play, setPlay] = useState<Play>();
  const setUpFor = useRef(-1);
  // Footsteps of the proof settle one by one; what hands and feet do here goes on as time goes by.
  const act: DoOnBench = useCallback(async (what) => setBench(await ask.bench.act(what, !('step' in what))), [ask]);
  const powerUp = useCallback(async (state?: SystemState) => setBench(await ask.bench.powerUp(state)), [ask]);
  useEffect(() => {
    if (derived.stamp === 0 || setUpFor.current === derived.stamp) return;
    const isNew = setUpFor.current < 0;
    setUpFor.current = derived.stamp;
    const begin = async () => {
      const going = isNew ? undefined : await ask.bench.goOn();
      if (going) return setBench(going);
      if (asked?.play) {
        setPlay({ ...asked.play });
        return powerUp(asked.play.powerUp);
      }
      await powerUp();
      if (asked?.call) await act({ step: `recall:${asked.call}` });
    };
    void begin();
  }, [ask, derived.stamp, asked, powerUp, act]);
  useEffect(() => {
    if (!bench?.busy) return undefined;
    const timer = setTimeout(() => void ask.bench.later().then(setBench), LOOK_MS);
    return () => clearTimeout(timer);
  }, [ask, bench]);
  return { bench, setBench, play, setPlay, act, powerUp };
};

export const Bench = () => {
  const { ask, view } = useRig();
  const navigate = useNavigate();
  const [isKeeping, keep] = useState(false);
  const { bench, setBench, play, setPlay, act, powerUp } = useBench();
  const progress = useProgress(play, act);
  const again = () => {
    if (!play) return;
    setPlay({ ...play });
    void powerUp(play.powerUp);
  };
  const stopPlaying = () => {
    setPlay(undefined);
    void ask.bench.playFreely().then(setBench);
    void navigate('.', { replace: true, state: null });
  };
  if (view && view.sounds.length === 0 && !bench?.floor.length) return <NothingToStompOn />;
  if (!bench) return <p className="soft">Setting up the bench …</p>;
  return (
    <>
      <div className="headline">
        <h1>Bench</h1>
        <span className="soft">simulated boxes, real bytes · {bench.now} s since power-up</span>
        <div className="tools">
          <Mishaps act={act} />
          <Button variant="default" size="xs" onClick={() => keep(!isKeeping)} aria-expanded={isKeeping}>
            Keep as a test
          </Button>
          <Button variant="default" size="xs" onClick={() => void powerUp()}>
            Power up again
          </Button>
        </div>
      </div>
      {bench.wrong.length > 0 && <WrongNow bench={bench} act={act} />}
      <div className="card bench-run">
        <Run
          names="in one row"
          items={bench.run}
          levels={bench.levels}
          label="What sounds now"
          {...(bench.wrong.length ? { silent: 'Nothing gets through.' } : {})}
        />
        <Stands bench={bench} />
      </div>
      {isKeeping && <KeepTest bench={bench} done={() => keep(false)} />}
      <div className="bench">
        <div className="bench-side">
          <Floor bench={bench} act={act} />
          <Boxes bench={bench} act={act} />
        </div>
        <div className="bench-side">
          {play && <Playing play={play} progress={progress} again={again} stop={stopPlaying} />}
          <Monitor bench={bench} />
          <StandingTests />
        </div>
      </div>
    </>
  );
};

const NothingToStompOn = () => {
  const navigate = useNavigate();
  return (
    <div className="card bench-empty">
      <h1>Bench</h1>
      <p className="soft">
        Nothing to stomp on yet. Add a switcher or a foot controller in Kit and give the rig a sound.
      </p>
      <Button onClick={() => void navigate('../kit')}>To the kit</Button>
    </div>
  );
};

const WrongNow = ({ bench, act }: { bench: BenchView; act: DoOnBench }) => (
  <ul className="wrong-now" aria-label="What is wrong on the bench">
    {bench.wrong.map((w) => (
      <li key={w.text}>
        <span className="broken">{w.text}</span>{' '}
        <Button
          variant="default"
          size="compact-xs"
          aria-label={`Put right: ${w.text}`}
          onClick={() => void act(w.right)}
        >
          Put right
        </Button>
      </li>
    ))}
  </ul>
);

/** Whether the sound that was called stands as wanted here, what the proof says of it, and what is heard. */
const Stands = ({ bench: { sound, audio, wire, held } }: { bench: BenchView }) => {
  const { view } = useRig();
  const isQuiet = wire.length === 0;
  const proved = view?.sounds.find((s) => s.id === sound?.id);
  return (
    <p role="status">
      {sound && sound.silentAt.length > 0 && (
        <span className="broken">Nothing is heard at {sound.silentAt.join(' or ')}. </span>
      )}
      {isQuiet ? <AtPowerUp sound={sound} isSure={proved?.verdict === 'proved'} /> : <AsWanted sound={sound} />}
      {proved && (
        <span>
          {' '}
          In the proof it <VerdictSign is={proved.verdict} /> <VerdictText sound={proved} />.
        </span>
      )}
      {held.length > 0 && <strong> Still held: {held.join('; ')}.</strong>}
      {audio.map((text) => (
        <span key={text} className="soft">
          {' '}
          {text}
        </span>
      ))}
    </p>
  );
};

/** What stands otherwise than wanted is named up to here; the boxes below show all of it. */
const MOST_WRONG = 6;

/** Before anything was stomped nothing is wrong: the boxes stand as they wake up. */
const AtPowerUp = ({ sound, isSure }: Pick<BenchView, 'sound'> & { isSure: boolean }) => (
  <span>
    <strong>Just switched on.</strong> Nothing was stomped yet.{' '}
    {sound &&
      (sound.wrong.length
        ? `The slot of ${sound.name} is loaded, but not everything stands as it wants: ${someOf(sound.wrong, MOST_WRONG, '; ')}.${isSure ? ' A stomp brings it.' : ''}`
        : `${sound.name} is loaded, and everything stands as it wants.`)}
  </span>
);

const AsWanted = ({ sound }: Pick<BenchView, 'sound'>) => {
  if (!sound) return <span className="soft">The slot that is loaded holds no sound.</span>;
  if (sound.wrong.length)
    return (
      <span className="broken">
        {sound.name} is not as wanted: {someOf(sound.wrong, MOST_WRONG, '; ')}.
      </span>
    );
  if (sound.silentAt.length) return <span className="soft">The controls of {sound.name} stand as wanted.</span>;
  return <span className="proved">{sound.name} stands as wanted.</span>;
};

/** What can happen besides stomps: what the proof reckons with, and what goes wrong on stage. Found by typing. */
const Mishaps = ({ act }: { act: DoOnBench }) => {
  const mishaps = useAsked(['mishaps'], (worker) => worker.answers.mishaps()) ?? [];
  const faults = useAsked(['faults'], (worker) => worker.answers.faults()) ?? [];
  const [search, setSearch] = useState('');
  const happen = new Map<string, BenchAct>([
    ...mishaps.map((m) => [m.text, { step: m.event }] as const),
    ...faults.map((f) => [f.text, f.fault] as const satisfies readonly [string, Fault]),
  ]);
  const groups = [
    { group: 'What the proof reckons with', items: [...new Set(mishaps.map((m) => m.text))] },
    ...FAULT_GROUPS.map((group) => ({
      group,
      items: [...new Set(faults.filter((f) => f.group === group).map((f) => f.text))].filter(
        (t) => !mishaps.some((m) => m.text === t),
      ),
    })),
  ].filter((g) => g.items.length > 0);
  return (
    <Select
      size="xs"
      w={240}
      aria-label="Something happens"
      placeholder="Something happens …"
      searchable
      searchValue={search}
      onSearchChange={setSearch}
      onOptionSubmit={() => setSearch('')}
      selectFirstOptionOnChange
      value={null}
      data={groups}
      limit={120}
      maxDropdownHeight={360}
      nothingFoundMessage="Nothing of that kind can happen here"
      comboboxProps={{ width: 420, position: 'bottom-end' }}
      onChange={(text) => {
        const what = text === null ? undefined : happen.get(text);
        if (what) void act(what);
      }}
    />
  );
};
