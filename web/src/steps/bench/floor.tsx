import { Button } from '@mantine/core';
import type { FootGesture } from '@yunta/core/bench/box';
import type { BenchView, PedalView } from '@yunta/core/derive/views/bench-view';
import type { SwitchView } from '@yunta/core/derive/views/floor';
import { Fragment, useCallback, useEffect, useRef, useState } from 'react';
import { useAsked } from '../../shared/rig-context.js';
import type { DoOnBench } from './act.js';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'];
const HOLD_MS = 600;
const TWICE_MS = 350;

type Place = Pick<SwitchView, 'device' | 'switch'>;

/** Feet on switches: pressed, let go, held long, twice in a row; as many at once as there are feet. */
export const useFeet = (act: DoOnBench) => {
  const since = useRef(new Map<string, number>());
  const holds = useRef(new Map<string, ReturnType<typeof setTimeout>>());
  useEffect(() => {
    const timers = holds.current;
    return () => timers.forEach((t) => clearTimeout(t));
  }, []);
  return useCallback(
    (at: Place | undefined, gesture: 'press' | 'release') => {
      if (!at) return;
      const key = `${at.device} ${at.switch}`;
      const tell = (what: FootGesture) => act({ stomp: at.switch, device: at.device, gesture: what });
      clearTimeout(holds.current.get(key));
      void tell(gesture);
      if (gesture === 'release') return;
      const now = performance.now();
      if (now - (since.current.get(key) ?? -Infinity) < TWICE_MS) void tell('twice');
      since.current.set(key, now);
      holds.current.set(
        key,
        setTimeout(() => void tell('hold'), HOLD_MS),
      );
    },
    [act],
  );
};

const typing = (e: KeyboardEvent) =>
  (e.target instanceof Element && e.target.matches('input, textarea, select')) || e.ctrlKey || e.metaKey || e.altKey;

/** A button that is a switch under a foot: mouse, finger and keys press it and let it go. */
const foot = (press: ReturnType<typeof useFeet>, at: Place) => ({
  onPointerDown: (e: React.PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    press(at, 'press');
  },
  onPointerUp: () => press(at, 'release'),
  onPointerCancel: () => press(at, 'release'),
  onKeyDown: (e: React.KeyboardEvent) => {
    if ((e.key === 'Enter' || e.key === ' ') && !e.repeat) {
      e.preventDefault();
      press(at, 'press');
    }
  },
  onKeyUp: (e: React.KeyboardEvent) => {
    if (e.key === 'Enter' || e.key === ' ') press(at, 'release');
  },
});

/** The switches as the foot sees them: click or hold, keys 1 to 9 and 0 in the same order. Pedals under them. */
export const Floor = ({ bench, act }: { bench: BenchView; act: DoOnBench }) => {
  const { floor } = bench;
  const calls = useAsked(['calls'], (worker) => worker.answers.calls(), floor.length === 0) ?? [];
  const press = useFeet(act);
  const down = useRef(new Set<string>());
  useEffect(() => {
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
      <div style={{ display: 'flex', justifyContent: 'space-between', gap: 12, marginBottom: 8 }}>
        <h2 style={{ margin: 0 }}>Floor</h2>
        <span className="soft">
          {bench.bank ? `bank ${bench.bank} · ` : ''}keys 1–9 and 0 stomp, hold to hold, two at once
        </span>
      </div>
      {floor.length === 0 &&
        (calls.length === 0 ? (
          <p className="soft">No controller in the kit: nothing to stomp on.</p>
        ) : (
          <>
            <p className="soft">Nothing to stomp on: a list calls the sounds. Call one:</p>
            <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
              {calls.map((c) => (
                <Button key={c.event} variant="default" size="xs" onClick={() => void act({ step: c.event })}>
                  {c.text}
                </Button>
              ))}
            </div>
          </>
        ))}
      <div className="floor">
        {floor.map((s, i) => (
          <button
            key={`${s.device} ${s.switch}`}
            type="button"
            className={`switch ${s.state}`}
            aria-pressed={s.state === 'called' || s.state === 'latched' || s.state === 'held'}
            {...foot(press, s)}
          >
            <span className="letter">{s.switch === 'up' ? '▲' : s.switch === 'down' ? '▼' : s.switch}</span>
            <span className="key" aria-hidden="true">
              {KEYS[i] ?? ''}
            </span>
            <span>
              <span className="label">{s.label}</span>
              <span className="about">{s.state === 'latched' ? 'on' : s.state === 'held' ? 'held down' : s.about}</span>
            </span>
          </button>
        ))}
      </div>
      {bench.pedals.length > 0 && (
        <div className="pedals">
          {bench.pedals.map((p) => (
            <Pedal key={p.is === 'control' ? p.control : `${p.device} ${p.jack}`} pedal={p} act={act} />
          ))}
        </div>
      )}
    </section>
  );
};

/**
 * Heel left, toe right; arrow keys move it by a little, Home and End to its ends. It is where the foot has it, also
 * before the bench has answered.
 */
const Pedal = ({ pedal, act }: { pedal: PedalView; act: DoOnBench }) => {
  const [min, max, at] = pedal.is === 'control' ? [pedal.min, pedal.max, pedal.at] : [0, 127, pedal.at ?? 0];
  const [moved, setMoved] = useState<number>();
  const moves = useRef(0);
  const move = async (to: number) => {
    setMoved(to);
    moves.current += 1;
    const mine = moves.current;
    await act(
      pedal.is === 'control' ? { turn: pedal.control, to } : { pedal: pedal.jack, device: pedal.device, byte: to },
    );
    if (mine === moves.current) setMoved(undefined);
  };
  return (
    <label className="pedal">
      <span className="clip">{pedal.text}</span>
      <input
        type="range"
        min={min}
        max={max}
        value={moved ?? at}
        aria-valuetext={pedal.about}
        onChange={(e) => void move(Number(e.currentTarget.value))}
      />
      <span className="soft">{pedal.about}</span>
    </label>
  );
};

/** Each box as it stands, with its own switches under a foot. */
export const Boxes = ({ bench, act }: { bench: BenchView; act: DoOnBench }) => {
  const press = useFeet(act);
  return (
    <section className="card" style={{ padding: '12px 8px' }}>
      <h2 style={{ padding: '0 10px' }}>
        Boxes{' '}
        <span className="soft" style={{ fontWeight: 400, fontSize: 13 }}>
          ▸ changed by the last stomp
        </span>
      </h2>
      <table className="plain boxes">
        <tbody>
          {bench.boxes.map((b) => (
            <tr key={b.device} className={b.dark ? 'dark-box' : ''}>
              <td className="mono">
                <strong>{b.code}</strong>
              </td>
              <td>
                <span className="soft">
                  {b.name}
                  {b.outside && !b.dark ? ' · outside' : ''}
                </span>
                {b.dark && <span className="broken"> · no supply</span>}
                {b.says.length > 0 && (
                  <div className="mono">
                    {b.says.map((s, i) => (
                      <Fragment key={s.text}>
                        {i > 0 && ', '}
                        <span className={s.changed ? 'changed' : ''}>{s.text}</span>
                      </Fragment>
                    ))}
                  </div>
                )}
              </td>
              <td className="feet">
                {b.feet.map((name) => (
                  <button
                    key={name}
                    type="button"
                    className="foot"
                    title={`Step on ${b.name}: ${name}`}
                    aria-label={`${name}, on ${b.name} itself`}
                    {...foot(press, { device: b.device, switch: name })}
                  >
                    {name}
                  </button>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
};
