import { Checkbox } from '@mantine/core';
import { readBoard, sizeText } from '@yunta/core/board/said';
import { limitBy } from '@yunta/core/edits/engagements';
import { withMaybe } from '@yunta/core/known/maybe';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse } from '@yunta/core/rig/result';
import { AMPS, HOUSES, type Engagement, type GigLimits } from '@yunta/core/rig/show';
import { Choice } from '../../../shared/choice.js';
import { Numbered } from '../../../shared/numbered.js';
import { useRig } from '../../../shared/rig-context.js';
import { TypedText } from '../../../shared/typed-text.js';

const ANY = 'not said';
const MOST = 1000;
const HEAVIEST_KG = 10_000;

/** What a kind of gig allows; what is not said is no limit. */
export const Limits = ({ act }: { act: Engagement }) => {
  const { edit } = useRig();
  const limits = act.limits ?? {};
  const say = <K extends keyof GigLimits>(key: K, value: GigLimits[K] | undefined): void =>
    void edit(limitBy(act, withMaybe(limits, key, value)), `${act.name}: what it asks`);
  return (
    <div className="fields gig-limits">
      <Checkbox
        size="sm"
        label="A silent stage"
        checked={limits.silent ?? false}
        onChange={(e) => say('silent', e.currentTarget.checked || undefined)}
      />
      <Choice
        label="House"
        data={[ANY, ...HOUSES]}
        value={limits.house ?? ANY}
        choose={(house) => say('house', house === ANY ? undefined : house)}
      />
      <Choice
        label="Amp"
        data={[ANY, ...AMPS]}
        value={limits.amp ?? ANY}
        choose={(amp) => say('amp', amp === ANY ? undefined : amp)}
      />
      <Numbered
        shown
        label="Supply outputs there are"
        max={MOST}
        value={limits.outputs}
        save={(n) => say('outputs', n)}
        clear={() => say('outputs', undefined)}
      />
      <div>
        <span className="field-label">Room for a board, cm</span>
        <TypedText
          label="Room for a board, cm"
          most={LONGEST.label}
          placeholder="60 x 32"
          text={limits.board ? sizeText(limits.board) : ''}
          read={(typed) => {
            if (typed.trim() === '') {
              say('board', undefined);
              return ok(typed);
            }
            const read = readBoard(typed);
            if (!read.ok) return refuse(read.error);
            say('board', read.value.mm);
            return ok(typed);
          }}
        />
      </div>
      <Numbered
        shown
        decimal
        label="Everything at most, kg"
        min={0.1}
        max={HEAVIEST_KG}
        value={limits.mostKg}
        save={(kg) => say('mostKg', kg)}
        clear={() => say('mostKg', undefined)}
      />
      <Numbered
        shown
        label="Mains sockets for sure"
        max={MOST}
        value={limits.sockets}
        save={(n) => say('sockets', n)}
        clear={() => say('sockets', undefined)}
      />
    </div>
  );
};
