import type { Drill, DrillCue } from '@yunta/core/derive/views/drill';
import type { DrillHit } from '@yunta/core/derive/views/drill-score';
import { barBeatAt } from '@yunta/core/units/metre';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { useMidi } from '../../shared/use-midi.js';
import { clicksOf, countIn, endOf } from './clock.js';
import { keepLearnt, nextToLearn, readLearnt, type Learnt } from './learnt.js';
import { useClick } from './use-click.js';

/** Keys of a keyboard for the switches, in their order. */
const KEYS = [...'1234567890-='] as const;
const TICK_MS = 50;

interface RoundProps {
  readonly drill: Drill;
  /** @param until when it ended, in seconds of the drill */
  readonly over: (hits: readonly DrillHit[], until: number) => void;
}

/** One round: it is counted in, cues come, switches are hit. */
export const Round = ({ drill, over }: RoundProps) => {
  const [began] = useState(() => performance.now() + countIn(drill) * 1000);
  const hits = useRef<DrillHit[]>([]);
  const [last, setLast] = useState<string>();
  const now = useCallback(() => (performance.now() - began) / 1000, [began]);
  const [seconds, setSeconds] = useState(() => -countIn(drill));
  const clicks = useMemo(() => clicksOf(drill), [drill]);
  useClick(clicks, now);
  const hit = useCallback(
    (key: string | undefined): void => {
      if (key === undefined) return;
      hits.current.push({ key, seconds: now() });
      setLast(key);
    },
    [now],
  );
  const learnt = useLearnt(drill);
  const midi = useMidi(
    true,
    useCallback((sign) => hit(learnt.keyFor(sign)), [hit, learnt]),
  );
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const at = KEYS.findIndex((k) => k === e.key);
      if (e.repeat || at < 0) return;
      e.preventDefault();
      hit(drill.keys[at]?.id);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [drill, hit]);
  const end = endOf(drill);
  useEffect(() => {
    const timer = setInterval(() => {
      const at = now();
      setSeconds(at);
      if (at >= end) over(hits.current, at);
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [end, now, over]);
  const next = drill.cues.find((c) => c.seconds > seconds);
  const current = drill.cues.findLast((c) => c.seconds <= Math.max(0, seconds));
  return (
    <main className="stage drill">
      <header className="stage-top">
        <button type="button" onClick={() => over(hits.current, now())}>
          Stop
        </button>
        <span>{drill.title}</span>
        <span className="mono" role="timer">
          {placeText(drill, seconds)}
        </span>
        {midi === 'listening' && (
          <span>
            {learnt.says}{' '}
            <button type="button" onClick={learnt.forget}>
              Learn anew
            </button>
          </span>
        )}
      </header>
      <section className="drill-now">
        <p className="stage-facts">now</p>
        <h1>{current?.name}</h1>
        {next ? <Coming cue={next} seconds={next.seconds - seconds} beat={60 / drill.bpm} /> : <p>The last cue.</p>}
      </section>
      <Floor drill={drill} last={last} hit={hit} />
    </main>
  );
};

const placeText = ({ bpm, metre }: Drill, seconds: number): string => {
  if (seconds < 0) {
    const counted = barBeatAt(((seconds + (metre.beats * 240) / metre.unit / bpm) * bpm) / 60, metre);
    return `count-in ${Math.floor(counted.beat)}`;
  }
  const { bar, beat } = barBeatAt((seconds * bpm) / 60, metre);
  return `bar ${bar}, beat ${Math.floor(beat)}`;
};

const Coming = ({ cue, seconds, beat }: { cue: DrillCue; seconds: number; beat: number }) => (
  <div className={seconds <= 4 * beat ? 'drill-coming is-near' : 'drill-coming'}>
    <p className="stage-facts">
      next, in {Math.ceil(seconds / beat)} {Math.ceil(seconds / beat) === 1 ? 'beat' : 'beats'}
    </p>
    <p className="stage-cue">
      {cue.name} <span className="stage-slot-small mono">{cue.steps.map((s) => s.text).join(', ')}</span>
    </p>
    {cue.hands.length > 0 && <p className="stage-facts">{cue.hands.join(', ')}</p>}
  </div>
);

const Floor = ({ drill, last, hit }: { drill: Drill; last: string | undefined; hit: (key: string) => void }) => (
  <div className="drill-floor" role="group" aria-label="Switches">
    {drill.keys.map((key, i) => (
      <button
        key={key.id}
        type="button"
        className={key.id === last ? 'is-last' : undefined}
        onPointerDown={() => hit(key.id)}
        onClick={(e) => e.detail === 0 && hit(key.id)}
      >
        <strong>{key.text}</strong>
        {KEYS[i] && <span className="mono">{KEYS[i]}</span>}
      </button>
    ))}
  </div>
);

/** Which message is which switch: switches that are not known yet are taken in their order, once for this browser. */
const useLearnt = (drill: Drill) => {
  const { rigId } = useRig();
  const [learnt, setLearnt] = useState(() => readLearnt(rigId));
  return useMemo(() => {
    const learn = (all: Learnt): void => {
      keepLearnt(rigId, all);
      setLearnt(all);
    };
    const next = nextToLearn(drill.keys, learnt);
    const keyFor = (sign: string): string | undefined => {
      const known = learnt[sign];
      if (known === undefined && next) learn({ ...learnt, [sign]: next.id });
      return known;
    };
    return {
      keyFor,
      forget: () => learn({}),
      says: next ? `MIDI: stomp ${next.text} once, so that it is known` : 'MIDI: all switches are known',
    };
  }, [drill, learnt, rigId]);
};
