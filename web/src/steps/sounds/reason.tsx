import type { Scope } from '@yunta/core/edits/sounds';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse } from '@yunta/core/rig/result';
import type { Sound } from '@yunta/core/rig/sound';
import { mayHaveReason, sayWhy, type Cell, type Column } from '@yunta/core/sheets/sound-sheet';
import { useRig } from '../../shared/rig-context.js';
import { TypedText } from '../../shared/typed-text.js';

/** Why a cell is as it is, in the person's words: kept with the sound, so that nobody has to remember it. */
export const Reason = ({ sound, column, cell, scope }: { sound: Sound; column: Column; cell: Cell; scope: Scope }) => {
  const { edit } = useRig();
  if (!mayHaveReason(column, cell)) return null;
  const read = (text: string) => {
    const why = text.trim() || undefined;
    const refused = edit(sayWhy(sound, column, cell, why, scope), `${sound.name}, ${column.title}: why`);
    return refused.length ? refuse(refused) : ok(undefined);
  };
  return (
    <div className="cell-why no-print">
      <span>Why</span>
      <TypedText
        label={`Why ${column.says} is so in ${sound.name}`}
        placeholder="a reason, if there is one"
        most={LONGEST.remark}
        text={cell.why ?? ''}
        read={read}
      />
    </div>
  );
};
