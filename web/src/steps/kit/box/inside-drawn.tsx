import { Menu } from '@mantine/core';
import {
  DndContext,
  PointerSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  addLoop,
  addSplit,
  addStage,
  carry,
  rowIn,
  slotAt,
  STAGE_GROUPS,
  takeOut,
  type Added,
  type Place,
  type Row,
} from '@yunta/core/catalogue/inside-edits';
import { whenWords } from '@yunta/core/catalogue/inside';
import type { Chain, Device, Slot, Tap } from '@yunta/core/rig/device';
import { createContext, useContext, type KeyboardEvent, type ReactNode } from 'react';

/** What is chosen in the drawing: a stage by its place, or a way through the box by its name. */
export type Chosen = Place | { readonly chain: string };

const DRAG_AFTER_PX = 6;
const HOLD_MS = 200;

const placeKey = ({ row, at }: Place): string => [...row, at].join('/');
const samePlace = (one: Chosen | undefined, place: Place): boolean =>
  one !== undefined && 'row' in one && placeKey(one) === placeKey(place);

interface Drawing {
  readonly device: Device;
  readonly change: (device: Device) => void;
  readonly chosen: Chosen | undefined;
  readonly choose: (chosen: Chosen | undefined) => void;
}

const DrawingContext = createContext<Drawing | undefined>(undefined);
const useDrawing = (): Drawing => {
  const drawing = useContext(DrawingContext);
  if (!drawing) throw new Error('A stage is drawn outside of its box');
  return drawing;
};

/**
 * The inside of a box, drawn as signal runs through it, and built there: a plus on the line puts a stage in, a tag is
 * chosen, carried to another place, taken out.
 */
export const InsideDrawn = (drawing: Drawing) => {
  const { device, change, choose } = drawing;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_AFTER_PX } }),
    useSensor(TouchSensor, { activationConstraint: { delay: HOLD_MS, tolerance: DRAG_AFTER_PX } }),
  );
  const carried = (from: unknown, to: unknown) => {
    if (!isPlace(from) || !isPlace(to)) return;
    const done = carry(device, from, to);
    change(done.device);
    choose(done.place);
  };
  return (
    <DrawingContext value={drawing}>
      <DndContext
        sensors={sensors}
        onDragEnd={({ active, over }) => carried(active.data.current?.place, over?.data.current?.place)}
      >
        <div className="inside-drawn">
          {device.chains.map((chain) => (
            <Way key={chain.id} chain={chain} />
          ))}
        </div>
      </DndContext>
    </DrawingContext>
  );
};

const isPlace = (of: unknown): of is Place => typeof of === 'object' && of !== null && 'row' in of && 'at' in of;

const jacks = (taps: readonly Tap[]): string => [...new Set(taps.map((t) => t.at))].join(', ') || 'nowhere';

/** One way through the box, from jacks to jacks. */
const Way = ({ chain }: { chain: Chain }) => {
  const { chosen, choose } = useDrawing();
  const isChosen = chosen !== undefined && 'chain' in chosen && chosen.chain === chain.id;
  const end = (side: string, taps: readonly Tap[]) => (
    <button
      type="button"
      className="inside-end"
      aria-pressed={isChosen}
      aria-label={`${chain.id} ${side} ${jacks(taps)}`}
      onClick={() => choose({ chain: chain.id })}
    >
      <span className="soft">{side}</span> {jacks(taps)}
    </button>
  );
  return (
    <div className="inside-way" role="group" aria-label={`Way ${chain.id}`}>
      {end('from', chain.from)}
      <Series row={[chain.id]} />
      {end('to', chain.to)}
      {chain.when && chain.when.length > 0 && <span className="soft small">only while {whenWords(chain.when)}</span>}
    </div>
  );
};

const Series = ({ row }: { row: Row }) => {
  const { device } = useDrawing();
  const slots = rowIn(device, row);
  return (
    <>
      {slots.map((slot, at) => (
        <Joint key={slot.id} place={{ row, at }}>
          <Piece slot={slot} place={{ row, at }} />
        </Joint>
      ))}
      <Plus place={{ row, at: slots.length }} />
    </>
  );
};

const Joint = ({ place, children }: { place: Place; children: ReactNode }) => (
  <>
    <Plus place={place} />
    {children}
  </>
);

/** The line between two stages: something can be put there, or dropped. */
const Plus = ({ place }: { place: Place }) => {
  const { device, change, choose } = useDrawing();
  const { setNodeRef, isOver } = useDroppable({ id: `gap ${placeKey(place)}`, data: { place } });
  const before = slotAt(device, place)?.id;
  const add = (added: Added) => {
    change(added.device);
    choose(added.place);
  };
  const where = before ? `before ${before}` : `at the end of ${place.row.at(-1)}`;
  return (
    <Menu shadow="md" position="bottom-start" withinPortal>
      <Menu.Target>
        <button
          type="button"
          ref={setNodeRef}
          className={`inside-plus ${isOver ? 'over' : ''}`}
          aria-label={`Put something in ${where}`}
        >
          <span aria-hidden>+</span>
        </button>
      </Menu.Target>
      <Menu.Dropdown className="stage-menu">
        <Menu.Label>Routing</Menu.Label>
        <Menu.Item onClick={() => add(addLoop(device, place))}>loop with send and return</Menu.Item>
        <Menu.Item onClick={() => add(addSplit(device, place))}>split into two ways</Menu.Item>
        {Object.entries(STAGE_GROUPS).map(([group, stages]) => (
          <div key={group}>
            <Menu.Label>{group}</Menu.Label>
            {stages.map((stage) => (
              <Menu.Item key={stage} onClick={() => add(addStage(device, place, stage))}>
                {stage}
              </Menu.Item>
            ))}
          </div>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
};

const Piece = ({ slot, place }: { slot: Slot; place: Place }) =>
  slot.is === 'fork' ? (
    <span className="inside-split">
      <Tag slot={slot} place={place} />
      <span className="inside-arms">
        {slot.arms.map((arm) => (
          <span key={arm.id} className="inside-arm" role="group" aria-label={`Arm ${arm.id}`}>
            <span className="soft small">{arm.id}</span>
            <Series row={[...place.row, slot.id, arm.id]} />
          </span>
        ))}
      </span>
    </span>
  ) : (
    <Tag slot={slot} place={place} />
  );

/** What a tag says below its name. */
const doing = (slot: Slot): string => {
  if (slot.is === 'insert') return `${jacks(slot.send)} ▸ ${jacks(slot.return)}`;
  if (slot.is === 'fork') return `${slot.arms.length} ways`;
  const always = slot.on === undefined ? ', always' : '';
  return slot.stage.replaceAll(' ', '-') === slot.id ? always.slice(2) || slot.stage : `${slot.stage}${always}`;
};

const Tag = ({ slot, place }: { slot: Slot; place: Place }) => {
  const { device, change, chosen, choose } = useDrawing();
  const drag = useDraggable({ id: `tag ${placeKey(place)}`, data: { place } });
  const keys = (e: KeyboardEvent) => {
    if (e.key === 'Delete' || e.key === 'Backspace') {
      change(takeOut(device, place));
      choose(undefined);
    } else if (e.altKey && (e.key === 'ArrowLeft' || e.key === 'ArrowRight')) {
      const to = { row: place.row, at: e.key === 'ArrowLeft' ? Math.max(0, place.at - 1) : place.at + 2 };
      const done = carry(device, place, to);
      change(done.device);
      choose(done.place);
    } else return;
    e.preventDefault();
  };
  return (
    <button
      type="button"
      ref={drag.setNodeRef}
      {...drag.listeners}
      className={`inside-tag ${slot.is === 'insert' ? 'loop' : ''} ${drag.isDragging ? 'carried' : ''}`}
      style={drag.transform ? { translate: `${drag.transform.x}px ${drag.transform.y}px` } : undefined}
      aria-pressed={samePlace(chosen, place)}
      onKeyDown={keys}
      onClick={() => choose(place)}
    >
      <strong>{slot.id}</strong>
      <span className="small">{doing(slot)}</span>
    </button>
  );
};
