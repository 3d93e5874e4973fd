import { laidOut, type LaidOut, type Standing } from '@yunta/core/board/laid-out';
import { standAt } from '@yunta/core/edits/boards';
import type { Board, Spot } from '@yunta/core/rig/board';
import type { Hookup } from '@yunta/core/rig/hookup';
import type { Id } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { turnNear, type Rect } from '@yunta/core/board/shapes';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type SVGProps } from 'react';
import { useRig } from '../../../shared/rig-context.js';
import { MARGIN } from '../../../picture/board-drawing.js';

/** What is dragged or pushed snaps to so many mm. */
const GRID = 5;
/** With Shift, the arrow keys push so far, in mm. */
const FAR = 50;

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

interface Moving {
  readonly id: Id<'device'>;
  readonly spot: Spot;
}

const snap = (mm: number): number => Math.round(mm / GRID) * GRID;

/** A box of that size is kept on its board as far as it fits. */
const within = (spot: Spot, size: Pick<Rect, 'w' | 'd'>, { mm: [w, d] }: Board): Spot => ({
  ...spot,
  x: Math.max(0, Math.min(spot.x, w - size.w)),
  y: Math.max(0, Math.min(spot.y, d - size.d)),
});

/** A box that is on its way: it is kept, as one change, when it comes to rest. */
const useMoving = (hookup: Hookup) => {
  const { rig, edit } = useRig();
  const [moving, setMoving] = useState<Moving>();
  const last = useRef<Moving>(undefined);
  const move = (next: Moving | undefined): void => {
    last.current = next;
    setMoving(next);
  };
  const keep = (): void => {
    const done = last.current;
    move(undefined);
    const before = done && hookup.place?.[done.id];
    if (!done || !before || (['x', 'y', 'turn'] as const).every((k) => before[k] === done.spot[k])) return;
    const name = partOf(rig, done.id)?.name ?? 'a box';
    edit(standAt(hookup, { [done.id]: done.spot }), `Move ${name} on ${done.spot.at}`);
  };
  const keepNow = useRef(keep);
  useEffect(() => {
    keepNow.current = keep;
  });
  useEffect(() => () => keepNow.current(), []);
  return { moving, move, keep: () => keepNow.current() };
};

/** Follows a finger or a pointer from where it went down until it lifts, in px to the right and downwards. */
const follow = (e: PointerEvent<SVGGElement>, to: (dx: number, dy: number) => void, end: () => void): void => {
  const group = e.currentTarget;
  const [x, y] = [e.clientX, e.clientY];
  group.setPointerCapture(e.pointerId);
  const moved = (now: globalThis.PointerEvent): void => to(now.clientX - x, now.clientY - y);
  const stop = (): void => {
    group.removeEventListener('pointermove', moved);
    group.removeEventListener('pointerup', stop);
    group.removeEventListener('pointercancel', stop);
    end();
  };
  group.addEventListener('pointermove', moved);
  group.addEventListener('pointerup', stop);
  group.addEventListener('pointercancel', stop);
};

const boxLabel = ({ device, rect, turn }: Standing): string =>
  `${device.name}, ${device.code}, ${Math.round(rect.x)} mm from the left, ${Math.round(rect.y)} mm from the front${turn ? `, turned by ${turn} degrees` : ''}. Arrow keys move it, R turns it, Delete takes it off.`;

/**
 * Where boxes stand while one of them is dragged, pushed by keys or turned.
 * @param isFromBelow left and right are seen the other way round
 */
export const useStanding = (hookup: Hookup, board: Board, isFromBelow: boolean) => {
  const { rig, edit, select } = useRig();
  const { moving, move, keep } = useMoving(hookup);
  const place = useMemo(
    () => (moving ? { ...hookup.place, [moving.id]: moving.spot } : hookup.place),
    [hookup, moving],
  );
  const out: LaidOut = useMemo(() => laidOut(rig, hookup, place), [rig, hookup, place]);
  const side = isFromBelow ? -1 : 1;

  /** Stands a box so far from a spot of its own, snapped and kept on the board. */
  const shift = (box: Standing, spot: Spot, dx: number, dy: number): void => {
    const next = { ...spot, x: snap(spot.x + dx * side), y: snap(spot.y + dy) };
    move({ id: box.device.id, spot: within(next, box.rect, board) });
  };
  /** It turns about its middle. */
  const turn = (box: Standing): void => {
    const spot = place?.[box.device.id];
    if (!spot) return;
    const { w, d } = box.rect;
    const at = { x: snap(spot.x + (w - d) / 2), y: snap(spot.y + (d - w) / 2) };
    const next = { ...spot, ...at, turn: turnNear(spot.turn + 90) };
    move({ id: box.device.id, spot: within(next, { w: d, d: w }, board) });
    keep();
  };
  const down = (box: Standing): void => {
    move(undefined);
    edit(standAt(hookup, { [box.device.id]: undefined }), `Take ${box.device.name} off ${box.board}`);
  };
  const onKey = (e: KeyboardEvent, box: Standing): void => {
    const spot = place?.[box.device.id];
    const arrow = ARROWS[e.key];
    const far = e.shiftKey ? FAR : GRID;
    if (arrow && spot) shift(box, spot, arrow[0] * far, arrow[1] * far);
    else if (e.key.toLowerCase() === 'r' && !e.ctrlKey && !e.metaKey) turn(box);
    else if (e.key === 'Delete' || e.key === 'Backspace') down(box);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const drag = (e: PointerEvent<SVGGElement>, box: Standing): void => {
    const spot = place?.[box.device.id];
    const svg = e.currentTarget.ownerSVGElement;
    if (!spot || !svg || e.button !== 0) return;
    select(box.device.id);
    const mm = (board.mm[0] + 2 * MARGIN) / svg.getBoundingClientRect().width;
    follow(e, (dx, dy) => shift(box, spot, dx * mm, -dy * mm), keep);
  };
  const handle = (box: Standing): SVGProps<SVGGElement> => ({
    role: 'button',
    tabIndex: 0,
    'aria-label': boxLabel(box),
    onPointerDown: (e) => drag(e, box),
    onFocus: () => select(box.device.id),
    onBlur: keep,
    onKeyDown: (e) => onKey(e, box),
    // A key that is held pushes on and on: one change, when it is let go.
    onKeyUp: (e) => e.key in ARROWS && keep(),
  });
  return { out, handle, turn, down, isMoving: moving !== undefined };
};
