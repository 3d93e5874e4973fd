import { Button } from '@mantine/core';
import type { FrontView } from '@yunta/core/derive/views/front-view';
import { changeCable } from '@yunta/core/edits/cables';
import { together } from '@yunta/core/change/edit';
import { frontAt, taperedOpen, withLengths } from '@yunta/core/electric/front/front-response';
import type { Id } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { useMemo, useState } from 'react';
import { useRig } from '../../shared/rig-context.js';

/** What is tried by dragging: lengths of leads, and the volume knob of the instrument from 0 to 1. */
interface Tried {
  readonly metres: ReadonlyMap<Id<'cable'>, number>;
  readonly volume?: number;
}
const NOTHING: Tried = { metres: new Map() };

/** A front end tried otherwise, worked out on the page: it follows the hand. */
export const useTried = ({ front }: FrontView) => {
  const [tried, change] = useState(NOTHING);
  const isTried = tried.metres.size > 0 || tried.volume !== undefined;
  const at = useMemo(
    () =>
      isTried
        ? frontAt({ ...front, hung: withLengths(front.hung, tried.metres) }, taperedOpen(tried.volume ?? 1)).at
        : undefined,
    [front, tried, isTried],
  );
  return { tried, change, at };
};

const LONGEST_TRIED = 15;

/** Handles for the leads before the first box that is on, and for the volume knob. */
export const TryFront = ({
  front,
  tried,
  change,
}: {
  front: FrontView;
  tried: Tried;
  change: (tried: Tried) => void;
}) => {
  const { rig, edit } = useRig();
  const leads = front.pieces.flatMap(({ cable, metres, text }) => (cable && metres ? [{ cable, metres, text }] : []));
  const keep = () => {
    const cables = [...tried.metres].flatMap(([id, m]) => {
      const cable = partOf(rig, id);
      return cable ? [changeCable(cable, { m })] : [];
    });
    edit(together(...cables), 'Lengths as tried');
    change(NOTHING);
  };
  return (
    <fieldset className="try-front">
      <legend>Try it by dragging</legend>
      {leads.map(({ cable, metres, text }) => (
        <Drag
          key={cable}
          label={text}
          max={Math.max(LONGEST_TRIED, Math.ceil(metres))}
          value={tried.metres.get(cable) ?? metres}
          says={(m) => `${m} m`}
          drag={(m) => change({ ...tried, metres: new Map([...tried.metres, [cable, m]]) })}
        />
      ))}
      {front.front.pickup.volumeOhm !== undefined && (
        <Drag
          label="volume on the instrument"
          max={10}
          value={(tried.volume ?? 1) * 10}
          says={(ten) => `${ten} of 10`}
          drag={(ten) => change({ ...tried, volume: ten / 10 })}
        />
      )}
      {(tried.metres.size > 0 || tried.volume !== undefined) && (
        <div className="try-ways">
          {tried.metres.size > 0 && (
            <Button size="xs" onClick={keep}>
              Keep these lengths
            </Button>
          )}
          <Button size="xs" variant="default" onClick={() => change(NOTHING)}>
            Let it be
          </Button>
        </div>
      )}
    </fieldset>
  );
};

const STEP = 0.1;

const Drag = ({
  label,
  max,
  value,
  says,
  drag,
}: {
  label: string;
  max: number;
  value: number;
  says: (value: number) => string;
  drag: (value: number) => void;
}) => {
  const shown = Math.round(value * 10) / 10;
  return (
    <label className="try-drag">
      <span>{label}</span>
      <input
        type="range"
        min={STEP}
        max={max}
        step={STEP}
        value={shown}
        aria-valuetext={says(shown)}
        onChange={(e) => drag(Number(e.currentTarget.value))}
      />
      <span className="mono">{says(shown)}</span>
    </label>
  );
};
