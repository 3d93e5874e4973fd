import { someOf } from '@yunta/core/known/some-of';
import { Button } from '@mantine/core';
import type { InputLine } from '@yunta/core/derive/views/input-list';
import { rigName } from '@yunta/core/rig/rig';
import { useAsked, useRig } from '../../shared/rig-context.js';

const SIDE_WORDS: Readonly<Record<InputLine['side'], string>> = {
  mono: 'mono',
  left: 'left',
  right: 'right',
  'both added': 'mono, both sides added',
  nothing: 'nothing arrives',
};

/** Names beyond these are counted. */
const MOST_NAMED = 6;

const listed = (names: readonly string[]): string => someOf(names, MOST_NAMED);

/** The input list of this hook-up: what the engineer of the house wants to know of each line, on one sheet of paper. */
export const ForTheHouse = () => {
  const { rig, hookup } = useRig();
  const lines = useAsked(['input list'], (worker) => worker.answers.inputList());
  if (!lines) return <p className="soft">Following every line …</p>;
  if (lines.length === 0)
    return (
      <p className="soft">
        No cable goes into a mixing desk here. Add the desk in Kit, and plug what the house is to have into it.
      </p>
    );
  const isOneDesk = new Set(lines.map((l) => l.desk)).size === 1;
  return (
    <section className="card house-list" aria-labelledby="house-list">
      <header>
        <h2 id="house-list">Input list</h2>
        <span className="soft">
          {rigName(rig)}, {hookup?.name}
          {isOneDesk ? `, into ${lines[0]?.desk}` : ''}
        </span>
        <Button className="no-print" size="xs" variant="default" onClick={() => window.print()}>
          Print
        </Button>
      </header>
      <table className="plain folds">
        <thead>
          <tr>
            <th>line</th>
            <th>what it is</th>
            <th>by</th>
            <th>side</th>
            <th>phantom</th>
            <th>silent in</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={`${line.desk} ${line.line}`}>
              <td data-head="line" className="mono">
                {isOneDesk ? line.line : `${line.desk} ${line.line}`}
              </td>
              <td data-head="what it is">
                <span>
                  <strong>{line.source}</strong>
                  {line.of.some((name) => name !== line.source) && <span className="soft">: {listed(line.of)}</span>}
                  {line.loops.length > 0 && <span className="soft">, and the loops of {listed(line.loops)}</span>}
                </span>
              </td>
              <td data-head="by">
                {line.by}, {line.balanced ? 'balanced' : 'unbalanced'}
              </td>
              <td data-head="side">{SIDE_WORDS[line.side]}</td>
              <td data-head="phantom">
                {line.phantomOff ? <strong>keep it off</strong> : <span className="soft">as the source needs</span>}
              </td>
              <td data-head="silent in">
                <span>
                  {listed(line.silentIn)}
                  {line.songs.length > 0 && <span className="soft"> · in {listed(line.songs)}</span>}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft">Phantom power belongs only where a microphone or a DI box asks for it.</p>
    </section>
  );
};
