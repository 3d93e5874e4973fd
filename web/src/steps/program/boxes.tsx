import type { TypeBox } from '@yunta/core/derive/type-in';

export const keyOf = (b: Pick<TypeBox, 'device' | 'memory'>): string => `${b.device} ${b.memory}`;

/** The boxes that hold programs, side by side: before which one stands one? */
export const Boxes = ({ boxes, chosen, choose, says }: { boxes: readonly TypeBox[]; chosen: TypeBox; choose: (box: TypeBox) => void; says: (box: TypeBox) => string }) => (
  <div className="type-boxes" role="group" aria-label="Boxes">
    {boxes.map((b) => (
      <button key={keyOf(b)} type="button" aria-pressed={b === chosen} className="type-box" onClick={() => choose(b)}>
        <span className="mono"><strong>{b.code}</strong></span> {b.name}
        <span className={`type-count ${b.open ? '' : 'proved'}`}>{says(b)}</span>
      </button>
    ))}
  </div>
);
