import type { Transition } from '@yunta/core/recall/verdict/transitions';
import type { VerdictKind } from '@yunta/core/recall/verdict/sound-verdict';
import { SegmentedControl } from '@mantine/core';
import { controlText, knobText, valueText } from '@yunta/core/recall/words/words';
import { partOf } from '@yunta/core/rig/rig';
import {
  memo,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
} from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { VerdictSign } from '../../shared/verdict.js';
import { surely, theFirst, theItem } from '@yunta/core/known/the';

export type SoundPair = Transition;

/** Switches and knobs that are left to foot and hand on the way. */
const byHand = (t: Transition): number => t.hands.length + t.turns.length;

const decibels = (db: number): string =>
  db > 0 ? `+${Math.round(db)}` : Math.round(db) === 0 ? '0' : `−${Math.round(-db)}`;

/** What a mark tells: one thing at a time, so that the odd pair stands out. */
interface Showing {
  readonly mark: (t: Transition) => ReactNode;
  readonly says: (t: Transition) => string;
  readonly legend: ReactNode;
  /** The mark asks to be looked at. */
  readonly odd?: (t: Transition) => boolean;
}

const SHOWINGS = {
  recall: {
    mark: (t) => (t.wrong.length ? '≠' : byHand(t) ? `+${byHand(t)}` : t.gapMs ? <span className="gap" /> : '•'),
    says: (t) =>
      t.wrong.length
        ? 'ends wrong'
        : byHand(t)
          ? `${byHand(t)} by foot or hand`
          : t.gapMs
            ? `silent for ${t.gapMs} ms`
            : 'recalls without a gap',
    odd: (t) => t.wrong.length > 0,
    legend: (
      <>
        • recalls without a gap &ensp; <strong>+2</strong> two things to do by foot or hand on the way &ensp;{' '}
        <span className="gap" aria-hidden="true" /> the sound is interrupted &ensp;{' '}
        <span className="broken">≠ ends wrong straight after it</span> &ensp; <span className="broken">≠</span> before a
        name: can come back wrong on some way
      </>
    ),
  },
  settles: {
    mark: (t) => <span className={t.settleMs > 100 ? 'much' : ''}>{Math.round(t.settleMs)}</span>,
    says: (t) => `settled after ${Math.round(t.settleMs)} ms`,
    legend: 'Milliseconds until the last message has arrived and its box has loaded; bold above 100.',
  },
  tails: {
    mark: (t) => (t.tails.cut.length ? <span className="much">×</span> : t.tails.ring.length ? '≈' : ''),
    says: (t) =>
      t.tails.cut.length
        ? 'repeats are cut off'
        : t.tails.ring.length
          ? 'repeats ring on'
          : 'no repeats are left behind',
    legend: (
      <>
        ≈ repeats of a delay or reverb ring on &ensp; <strong>×</strong> repeats are cut off &ensp; empty: none are left
        behind
      </>
    ),
  },
  level: {
    mark: (t) =>
      t.stepDb === undefined ? '' : <span className={Math.abs(t.stepDb) > 6 ? 'much' : ''}>{decibels(t.stepDb)}</span>,
    says: (t) => (t.stepDb === undefined ? 'no end in common' : `${decibels(t.stepDb)} dB`),
    legend:
      'Decibels louder (+) or softer (−) where it is heard; bold beyond 6. Gains that no box states are typical ones, assumed.',
  },
} as const satisfies Record<string, Showing>;
type Shown = keyof typeof SHOWINGS;
const TABS: readonly { readonly value: Shown; readonly label: string }[] = [
  { value: 'recall', label: 'Recall' },
  { value: 'settles', label: 'Time to settle' },
  { value: 'tails', label: 'Tails' },
  { value: 'level', label: 'Level' },
];

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** An arrow goes to the next pair; past the empty one of a sound with itself. */
const move = (e: KeyboardEvent, table: HTMLElement | null): void => {
  const step = STEPS[e.key];
  const cell = e.target instanceof Element && e.target.closest<HTMLElement>('[data-cell]');
  const here = cell ? cell.dataset.cell?.split(',').map(Number) : undefined;
  if (!step || !here) return;
  e.preventDefault();
  for (let k = 1; k <= 2; k += 1) {
    const next = table?.querySelector<HTMLElement>(
      `[data-cell="${theFirst(here) + step[0] * k},${theItem(here, 1) + step[1] * k}"] button`,
    );
    if (next) return next.focus();
  }
};

interface BoardProps {
  readonly pair: SoundPair | undefined;
  readonly choose: (pair: SoundPair) => void;
}

const isEven = (t: Transition): boolean => t.wrong.length === 0 && byHand(t) === 0 && !t.gapMs;

const pairsText = (all: readonly Transition[]): string => {
  const odd = all.filter((t) => !isEven(t)).length;
  const count = `${all.length} ${all.length === 1 ? 'way' : 'ways'}`;
  return odd === 0
    ? `From each sound straight to each other, ${count}: each recalls without a gap`
    : `From each sound straight to each other, ${count}: ${odd} with a gap, with something to do, or ending wrong`;
};

/** The board of pairs; folded while no pair differs from the others, because then one sentence says it all. */
export const Board = (props: BoardProps) => {
  const transitions = useAsked(['board'], (worker) => worker.asking.board());
  const [asked, ask] = useState<boolean>();
  if (!transitions)
    return (
      <p className="soft" role="status" style={{ margin: 0 }}>
        Working out every pair …
      </p>
    );
  if (transitions.length === 0) return null;
  const isOpen = asked ?? transitions.some((t) => !isEven(t));
  return (
    <section className="pairs" aria-label="From sound to sound">
      <button type="button" className="fold" aria-expanded={isOpen} onClick={() => ask(!isOpen)}>
        {pairsText(transitions)}
      </button>
      {isOpen && <Pairs {...props} transitions={transitions} />}
    </section>
  );
};

/** From every sound straight to every other: one mark per pair, arrows to move. */
const Pairs = ({ pair, choose, transitions }: BoardProps & { readonly transitions: readonly Transition[] }) => {
  const { rig, view } = useRig();
  const table = useRef<HTMLTableElement>(null);
  const [shown, show] = useState<Shown>('recall');
  const chooseNow = useRef(choose);
  useEffect(() => {
    chooseNow.current = choose;
  }, [choose]);
  const onChoose = useCallback((t: Transition) => chooseNow.current(t), []);
  const rows = useMemo(() => {
    const byFrom = new Map<Transition['from'], Transition[]>();
    for (const t of transitions) {
      const row = byFrom.get(t.from);
      if (row) row.push(t);
      else byFrom.set(t.from, [t]);
    }
    return byFrom;
  }, [transitions]);
  const sounds = useMemo(
    () =>
      surely(view)
        .sounds.filter((s) => partOf(rig, s.id))
        .map(({ id, name, verdict }) => ({ id, name, verdict })),
    [rig, view],
  );
  const wanted = useMemo(() => ({ shown, rows }), [shown, rows]);
  const drawn = useInSteps(wanted, sounds.length, table);
  return (
    <>
      <ByFootAndHand transitions={transitions} />
      <SegmentedControl
        size="xs"
        aria-label="What the board shows"
        data={[...TABS]}
        value={shown}
        onChange={(v) => show(v)}
      />
      <div className="board-wrap" aria-busy={drawn.goesOn} role="region" aria-label="Board of pairs" tabIndex={0}>
        <table
          className="board"
          ref={table}
          onKeyDown={(e) => move(e, table.current)}
          style={
            {
              '--names': `${Math.min(170, 36 + 7.4 * Math.max(...sounds.map((s) => s.name.length), 6))}px`,
            } as CSSProperties
          }
        >
          <caption className="visually-hidden">What happens from each sound straight to each other</caption>
          <thead>
            <tr>
              <th className="from soft" scope="col">
                from ↓ to →
              </th>
              {sounds.map((s) => (
                <th key={s.id} className="to" scope="col">
                  <div>
                    <span title={s.name}>{s.name}</span>
                  </div>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sounds.map((from, r) => (
              <Row
                key={from.id}
                from={from}
                place={r}
                sounds={sounds}
                pairs={drawn.at(r).rows.get(from.id) ?? NONE}
                shown={drawn.at(r).shown}
                chosen={pair?.from === from.id ? pair.to : undefined}
                choose={onChoose}
              />
            ))}
          </tbody>
        </table>
        <p className="soft" style={{ margin: '10px 0 0' }}>
          {SHOWINGS[shown].legend}
        </p>
      </div>
    </>
  );
};

/** How much foot and hand have to do between two sounds, and where it is most. */
const ByFootAndHand = ({ transitions }: { transitions: readonly Transition[] }) => {
  const { rig } = useRig();
  const most = transitions.reduce<Transition | undefined>((a, b) => (a && byHand(a) >= byHand(b) ? a : b), undefined);
  if (!most || byHand(most) === 0) return null;
  const least = Math.min(...transitions.map(byHand));
  const name = (id: Transition['from']) => partOf(rig, id)?.name ?? '';
  return (
    <p style={{ margin: '0 0 8px' }}>
      From sound to sound {least === byHand(most) ? '' : `${least} to `}
      {byHand(most)} {byHand(most) === 1 ? 'thing is' : 'things are'} left to foot and hand; most from{' '}
      <strong>{name(most.from)}</strong> to <strong>{name(most.to)}</strong>:{' '}
      {[
        ...most.hands.map((h) => `${controlText(rig, h.control)} to ${valueText(rig, h.control, h.value)}`),
        ...most.turns.map((t) => `${knobText(rig, t.device, t.knob)} to ${t.at}`),
      ].join(', ')}
      .
    </p>
  );
};

/** Rows drawn in one frame. */
const AT_ONCE = 4;
const ROW_PX = 29;

/**
 * A board of 128 sounds has 16,000 marks: what it shows is exchanged a few rows a frame, those in sight first, so
 * that keys and clicks go in between.
 * @returns what each row shows now
 */
const useInSteps = <T,>(
  wanted: T,
  count: number,
  table: RefObject<HTMLTableElement | null>,
): { readonly at: (row: number) => T; readonly goesOn: boolean } => {
  const [step, take] = useState({ wanted, before: wanted, done: count, first: 0 });
  useEffect(() => {
    const first = Math.floor((table.current?.parentElement?.scrollTop ?? 0) / ROW_PX);
    take((s) => (s.wanted === wanted ? s : { wanted, before: s.wanted, done: 0, first }));
  }, [wanted, table]);
  const goesOn = step.done < count;
  useEffect(() => {
    if (!goesOn) return undefined;
    const next = requestAnimationFrame(() => take((s) => ({ ...s, done: s.done + AT_ONCE })));
    return () => cancelAnimationFrame(next);
  }, [goesOn, step.done]);
  return { at: (row) => ((row - step.first + count) % count < step.done ? step.wanted : step.before), goesOn };
};

interface Head {
  readonly id: Transition['from'];
  readonly name: string;
  readonly verdict: VerdictKind;
}

const NONE: readonly Transition[] = [];

/** One sound that is left, drawn anew only when something of it changes. */
const Row = memo(
  ({
    from,
    place,
    sounds,
    pairs,
    shown,
    chosen,
    choose,
  }: {
    from: Head;
    place: number;
    sounds: readonly Head[];
    pairs: readonly Transition[];
    shown: Shown;
    chosen: Transition['to'] | undefined;
    choose: (t: Transition) => void;
  }) => {
    const { mark, says, odd }: Showing = SHOWINGS[shown];
    const to = new Map(pairs.map((t) => [t.to, t]));
    return (
      <tr>
        <th className="from clip" scope="row" title={from.name}>
          {from.verdict === 'proved' ? null : (
            <>
              <VerdictSign is={from.verdict} />{' '}
            </>
          )}
          {from.name}
        </th>
        {sounds.map((s, c) => {
          const t = to.get(s.id);
          if (from.id === s.id || !t) return <td key={s.id} className={from.id === s.id ? 'same' : ''} />;
          return (
            <td key={s.id} data-cell={`${place},${c}`}>
              <button
                type="button"
                className={odd?.(t) ? 'wrong' : shown === 'recall' ? '' : 'figure'}
                tabIndex={place === 0 && c === 1 ? 0 : -1}
                aria-pressed={chosen === s.id}
                aria-label={`${from.name} to ${s.name}: ${says(t)}`}
                onClick={() => choose(t)}
              >
                {mark(t)}
              </button>
            </td>
          );
        })}
      </tr>
    );
  },
);
Row.displayName = 'Row';
