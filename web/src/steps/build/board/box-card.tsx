import { Button } from '@mantine/core';
import type { Standing } from '@yunta/core/board/laid-out';
import { sideOf, sizeOf } from '@yunta/core/board/jacks';
import { changeDevice } from '@yunta/core/edits/devices';
import { withMaybe } from '@yunta/core/known/maybe';
import { SIDES, type Side } from '@yunta/core/rig/board';
import type { Device } from '@yunta/core/rig/device';
import { Link } from 'react-router';
import { Choice } from '../../../shared/choice.js';
import { Numbered } from '../../../shared/numbered.js';
import { useRig } from '../../../shared/rig-context.js';

const SIDE_WORDS: Readonly<Record<Side, string>> = { back: 'back', right: 'right', front: 'front', left: 'left' };
const MM = ['Width, mm', 'Depth, mm', 'Height, mm'] as const;
const LONGEST_MM = 3000;

interface BoxCardProps {
  readonly box: Standing;
  readonly turn: (box: Standing) => void;
  readonly down: (box: Standing) => void;
}

/** The box in hand: where it stands, how large it is, and where its jacks are. */
export const BoxCard = ({ box, turn, down }: BoxCardProps) => {
  const { device, rect } = box;
  return (
    <section className="card" aria-label={device.name}>
      <h2>{device.name}</h2>
      <p className="soft">
        {Math.round(rect.x)} mm from the left, {Math.round(rect.y)} mm from the front
        {box.turn ? `, turned by ${box.turn}°` : ''}. Drag it, or use the arrow keys (Shift for 50 mm) and R.
      </p>
      <div className="board-do">
        <Button size="compact-sm" variant="default" onClick={() => turn(box)}>
          Turn
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => down(box)}>
          Take it off
        </Button>
        <Button size="compact-sm" variant="default" component={Link} to="../kit">
          The box
        </Button>
      </div>
      <Size device={device} />
      <Jacks device={device} />
    </section>
  );
};

const Size = ({ device }: { device: Device }) => {
  const { edit } = useRig();
  const mm = sizeOf(device);
  const keep = (i: number, to: number): void => {
    const [w, d, h] = mm.with(i, to);
    if (w && d && h)
      edit(changeDevice(device, { figures: { ...device.figures, mm: [w, d, h] } }), `${device.name}: size`);
  };
  return (
    <>
      <div className="board-size">
        {MM.map((label, i) => (
          <Numbered key={label} shown label={label} min={1} max={LONGEST_MM} value={mm[i]} save={(v) => keep(i, v)} />
        ))}
      </div>
      {!device.figures.mm && <p className="soft">Nobody said its size: that of a usual pedal is assumed.</p>}
    </>
  );
};

const Jacks = ({ device }: { device: Device }) => {
  const { edit } = useRig();
  const put = (id: string, side: Side): void => {
    const jacks = device.jacks.map((j) => (j.id === id ? withMaybe(j, 'side', side) : j));
    edit(changeDevice(device, { jacks }), `${device.name}: ${id} on the ${side}`);
  };
  const shown = device.jacks.flatMap((jack) => {
    const side = sideOf(device, jack);
    return side ? [{ jack, side }] : [];
  });
  return (
    <details>
      <summary>
        Its jacks: {shown.length} on {new Set(shown.map((s) => s.side)).size} sides
      </summary>
      <div className="board-jacks">
        {shown.map(({ jack, side }) => (
          <Choice
            key={jack.id}
            label={`${jack.id}${jack.side ? '' : ' (assumed)'}`}
            data={SIDES.map((value) => ({ value, label: SIDE_WORDS[value] }))}
            value={side}
            choose={(to) => put(jack.id, to)}
          />
        ))}
      </div>
    </details>
  );
};
