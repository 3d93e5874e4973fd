import { Button } from '@mantine/core';
import { setMeasured } from '@yunta/core/edits/sounds';
import { durationText, HEARING_DBA, hearingHours } from '@yunta/core/electric/hearing';
import type { Id } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { withMaybe } from '@yunta/core/known/maybe';
import { ok } from '@yunta/core/rig/result';
import { partOf } from '@yunta/core/rig/rig';
import { levelText, readLevel } from '@yunta/core/edits/measured-level';
import { useRig } from '../../shared/rig-context.js';
import { today } from '../../shared/today.js';
import { TypedText } from '../../shared/typed-text.js';

/** What a meter said of a sound where it is heard, when, and with what; it counts before what is reckoned. */
export const Measured = ({ sound: id }: { sound: Id<'sound'> }) => {
  const { rig, edit, hookup } = useRig();
  const sound = partOf(rig, id);
  if (!sound || !hookup) return null;
  const known = sound.measured?.find((m) => m.hookup === hookup.id);
  const { hookup: _, ...was } = known ?? { hookup: hookup.id };
  const takeAway = () => edit(setMeasured(sound, hookup.id, undefined), `${sound.name}: not measured`);
  return (
    <fieldset className="levels-measured">
      <legend>Measured in {hookup.name}</legend>
      <label>
        <span>Level, as 94 dBA or −23 LUFS</span>
        <TypedText
          label={`${sound.name}, measured level`}
          most={LONGEST.label}
          text={known ? levelText(known) : ''}
          read={(typed) => {
            const read = readLevel(typed);
            if (read.ok && read.value)
              edit(
                setMeasured(sound, hookup.id, {
                  ...was,
                  ...read.value,
                  on: today(),
                }),
                `${sound.name}: measured ${levelText(read.value)}`,
              );
            else if (read.ok && known) takeAway();
            return read;
          }}
        />
      </label>
      {known && (
        <>
          <label>
            <span>With what, and where</span>
            <TypedText
              label={`${sound.name}, measured with what`}
              most={LONGEST.remark}
              text={known.with ?? ''}
              read={(typed) => {
                const { hookup: __, ...level } = known;
                edit(
                  setMeasured(sound, hookup.id, withMaybe(level, 'with', typed.trim() || undefined)),
                  `${sound.name}: measured with ${typed.trim() || 'something'}`,
                );
                return ok(typed);
              }}
            />
          </label>
          {known.on && <span className="soft">on {known.on}</span>}
          <Button size="xs" variant="default" onClick={takeAway}>
            Take it away
          </Button>
        </>
      )}
      {known?.unit === 'dBA' && known.db >= HEARING_DBA && <Hearing dBA={known.db} />}
    </fieldset>
  );
};

/** How long ears bear what was measured, with where that is said. */
const Hearing = ({ dBA }: { dBA: number }) => {
  const { niosh, osha } = hearingHours(dBA);
  return (
    <p className="soft">
      Ears bear {dBA} dBA for {durationText(niosh)} a day (NIOSH, Publication 98-126; 29 CFR 1910.95 allows{' '}
      {durationText(osha)}). Wear protection; local rules may ask for more.
    </p>
  );
};
