import { Button } from '@mantine/core';
import type { OrderCost } from '@yunta/core/derive/views/set-order';
import { carrySong, setSongs } from '@yunta/core/edits/set-list';
import { all } from '@yunta/core/rig/rig';
import type { SetList } from '@yunta/core/rig/show';
import { useAsked, useRig } from '../../shared/rig-context.js';

const counted = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;
const costText = ({ instruments, retunings, capos }: OrderCost): string =>
  [
    counted(instruments, 'change of instrument', 'changes of instrument'),
    counted(retunings, 'retuning', 'retunings'),
    ...(capos ? [counted(capos, 'change of capo', 'changes of capo')] : []),
  ].join(', ');

/** An order with fewer changes, as a whole or song by song; nothing where there is none. */
export const EasierOrder = ({ list }: { list: SetList }) => {
  const { edit } = useRig();
  const order = useAsked(['set order', list.id], (worker) => worker.night.setOrder(list.id));
  if (!order?.best) return null;
  const { now, best, moves } = order;
  return (
    <details className="card easier-order">
      <summary>
        In another order the set needs {costText(best.cost)}; now it is {costText(now)}.
      </summary>
      <div className="sheet-tools">
        <Button size="xs" onClick={() => edit(setSongs(list, best.songs), `${list.name}: fewest changes`)}>
          Take the whole order
        </Button>
        <span className="soft">Breaks stay where they are.</span>
      </div>
      {moves.length > 0 && (
        <ul>
          {moves.map((move) => (
            <li key={move.song}>
              Or only “{move.title}” to place {move.to + 1}: {costText(move.after)}.{' '}
              <Button
                size="compact-xs"
                variant="default"
                onClick={() =>
                  edit(carrySong(list, move.from, move.to), `${list.name}: ${move.title} to ${move.to + 1}`)
                }
              >
                Carry it there
              </Button>
            </li>
          ))}
        </ul>
      )}
    </details>
  );
};

/** How the sounds stand in each hook-up: the same night with another wiring. */
export const InEachHookup = () => {
  const { rig } = useRig();
  const standings = useAsked(['standings'], (worker) => worker.answers.standings());
  const hookups = all(rig, 'hookup');
  if (hookups.length < 2 || !standings) return null;
  return (
    <p className="set-totals">
      {standings.map(({ hookup, tally }) => {
        const wrong = tally.broken + tally['cannot sound'] + tally.undecided;
        return (
          <span key={hookup}>
            {hookups.find((h) => h.id === hookup)?.name}:{' '}
            {wrong === 0 ? 'nothing can come back wrong' : `${counted(wrong, 'sound', 'sounds')} can come back wrong`}
            {tally['left to hands'] > 0 && `, ${tally['left to hands']} with a hand`}
          </span>
        );
      })}
    </p>
  );
};
