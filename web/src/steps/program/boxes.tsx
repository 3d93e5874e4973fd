import type { TypeBox } from '@yunta/core/derive/views/type-in';

type Box = Pick<TypeBox, 'device' | 'memory' | 'code' | 'name'>;

export const keyOf = (b: Pick<Box, 'device' | 'memory'>): string => `${b.device} ${b.memory}`;

/** The boxes that hold programs, side by side: before which one stands one? */
export const Boxes = <B extends Box>({
  boxes,
  chosen,
  choose,
  says,
  isDone,
}: {
  boxes: readonly B[];
  chosen: B;
  choose: (box: B) => void;
  says: (box: B) => string;
  isDone?: (box: B) => boolean;
}) => (
  <div className="type-boxes" role="group" aria-label="Boxes">
    {boxes.map((b) => (
      <button key={keyOf(b)} type="button" aria-pressed={b === chosen} className="type-box" onClick={() => choose(b)}>
        <span className="mono">
          <strong>{b.code}</strong>
        </span>{' '}
        {b.name}
        <span className={`type-count ${isDone?.(b) ? 'proved' : ''}`}>{says(b)}</span>
      </button>
    ))}
  </div>
);
