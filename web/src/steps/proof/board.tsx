import type { Transition } from '@yunta/core/recall/transitions';
import { partOf } from '@yunta/core/rig/rig';
import { useMemo, useRef, type KeyboardEvent } from 'react';
import { useAsked, useRig } from '../../app/rig-context.js';

export type Pair = Transition;

/** From every sound straight to every other: recalls, interrupts, or ends wrong. One mark per pair, arrows to move. */
export const Board = ({ pair, choose }: { pair: Pair | undefined; choose: (pair: Pair) => void }) => {
  const { rig, view } = useRig();
  const transitions = useAsked(['board'], (worker) => worker.board());
  const table = useRef<HTMLTableElement>(null);
  const byPair = useMemo(() => new Map(transitions?.map((t) => [`${t.from} ${t.to}`, t])), [transitions]);
  const sounds = view!.sounds.filter((s) => partOf(rig, s.id));
  const broken = new Set(sounds.filter((s) => s.verdict === 'broken').map((s) => s.id));
  const move = (e: KeyboardEvent) => {
    const steps: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };
    const step = steps[e.key];
    const here = (e.target as HTMLElement).closest<HTMLElement>('[data-cell]')?.dataset.cell?.split(',').map(Number);
    if (!step || !here) return;
    e.preventDefault();
    for (let k = 1; k <= 2; k += 1) {
      const next = table.current?.querySelector<HTMLElement>(`[data-cell="${here[0]! + step[0] * k},${here[1]! + step[1] * k}"] button`);
      if (next) return next.focus();
    }
  };
  return (
    <div className="board-wrap">
      <table className="board" ref={table} onKeyDown={move}>
        <caption className="visually-hidden">What happens from each sound straight to each other</caption>
        <thead><tr><th className="from soft" scope="col">from ↓ to →</th>{sounds.map((s) => <th key={s.id} className="to" scope="col"><div><span title={s.name}>{s.name}</span></div></th>)}</tr></thead>
        <tbody>
          {sounds.map((from, r) => (
            <tr key={from.id}>
              <th className="from clip" scope="row" title={from.name}>{broken.has(from.id) ? <span className="broken">≠ </span> : null}{from.name}</th>
              {sounds.map((to, c) => {
                const t = byPair.get(`${from.id} ${to.id}`);
                if (from.id === to.id || !t) return <td key={to.id} className={from.id === to.id ? 'same' : ''} />;
                const says = t.wrong.length ? 'ends wrong' : t.gapMs ? `silent for ${t.gapMs} ms` : 'recalls without a gap';
                return (
                  <td key={to.id} data-cell={`${r},${c}`}>
                    <button type="button" className={t.wrong.length ? 'wrong' : ''} tabIndex={r === 0 && c === 1 ? 0 : -1} aria-pressed={pair?.from === from.id && pair.to === to.id} aria-label={`${from.name} to ${to.name}: ${says}`} onClick={() => choose(t)}>
                      {t.wrong.length ? '≠' : t.gapMs ? <span className="gap" /> : '•'}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft" style={{ margin: '10px 0 0' }}>• recalls without a gap &ensp; <span className="gap" aria-hidden="true" /> the sound is interrupted &ensp; <span className="broken">≠ ends wrong straight after it</span> &ensp; <span className="broken">≠</span> before a name: can come back wrong on some way</p>
    </div>
  );
};
