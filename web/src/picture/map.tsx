import '@xyflow/react/dist/base.css';
import './map.css';
import {
  Controls,
  getViewportForBounds,
  Handle,
  Position,
  ReactFlow,
  ReactFlowProvider,
  useNodesInitialized,
  useReactFlow,
  ViewportPortal,
  type Edge,
  type EdgeProps,
  type Node,
  type NodeProps,
  type Viewport,
} from '@xyflow/react';
import { isId, kindOf, splitRef, theId, type AnyId, type Id, type Ref } from '@yunta/core/rig/ids';
import type { LevelsShown } from '@yunta/core/derive/views/levels-shown';
import type { Layer, Lit } from '@yunta/core/signal/drawing/map';
import { memo, useCallback, useEffect, useMemo, useRef, type KeyboardEvent, type RefObject } from 'react';
import { dbuText } from './dbu-text.js';
import { BoxDrawing, LEAD_LETTERS, standingOf } from './map-drawing.js';
import { ZONE_NAMES, type LaidMap } from './map-layout.js';
import type { JackSide, LaidBox, LaidCable } from './map-parts.js';
import { surely } from '@yunta/core/known/the';

/** What the person at the map has under the hand. */
export interface MapFocus {
  readonly box?: Id<'device'>;
  readonly jack?: Ref;
  readonly cable?: Id<'cable'>;
  /** Where an offer would go. */
  readonly aimed?: Id<'device'>;
}

interface BoxData extends Record<string, unknown> {
  readonly laid: LaidBox;
  readonly lit: Lit | undefined;
  /** How loud it is behind it, where that is to be shown. */
  readonly dbu: number | undefined;
  readonly layers: ReadonlySet<Layer>;
  readonly mark: string;
  readonly jack: Ref | undefined;
  readonly litJacks: ReadonlySet<Ref>;
  readonly pick: (jack: Ref) => void;
}
type BoxNode = Node<BoxData, 'box'>;

interface LeadData extends Record<string, unknown> {
  readonly laid: LaidCable;
  readonly mark: string;
}
type LeadEdge = Edge<LeadData, 'lead'>;

const SIDES: Readonly<Record<JackSide, Position>> = {
  left: Position.Left,
  right: Position.Right,
  top: Position.Top,
  bottom: Position.Bottom,
};

const MapBoxNode = memo(({ data: { laid, lit, dbu, layers, mark, jack, litJacks, pick } }: NodeProps<BoxNode>) => (
  <div className={`map-box ${mark}`} style={{ width: laid.width, height: laid.height }} title={laid.box.name}>
    <svg width={laid.width} height={laid.height} aria-hidden="true">
      <BoxDrawing laid={laid} lit={lit} dbu={dbu} />
    </svg>
    {laid.jacks.map((j) => (
      <Handle
        key={j.jack.ref}
        id={j.jack.ref}
        type={j.jack.way === 'out' ? 'source' : 'target'}
        position={SIDES[j.side]}
        isConnectable={false}
        title={`${laid.box.code} ${j.jack.id}`}
        className={`map-handle ${j.jack.plugged ? 'plugged' : ''} ${litJacks.has(j.jack.ref) ? 'lit' : ''} ${jack === j.jack.ref ? 'chosen' : ''}`}
        style={{ left: j.x, top: j.y, visibility: layers.has(j.jack.layer) ? 'visible' : 'hidden' }}
        onClick={(e) => {
          e.stopPropagation();
          pick(j.jack.ref);
        }}
      />
    ))}
  </div>
));

const MapLeadEdge = memo(({ data }: EdgeProps<LeadEdge>) => {
  const { laid, mark } = surely(data);
  const { cable, d, at } = laid;
  const letter = LEAD_LETTERS[cable.lead];
  return (
    <>
      {mark.includes('lit') && cable.lead === 'speaker' && <path className="map-lead case" d={d} />}
      <path className={`map-lead ${cable.lead} ${mark}`} d={d} />
      <path d={d} fill="none" stroke="transparent" strokeWidth={14} className="react-flow__edge-interaction" />
      {letter !== 'i' && (
        <text className="map-letter" x={at[0]} y={at[1]}>
          {letter}
        </text>
      )}
    </>
  );
});

const NODE_TYPES = { box: MapBoxNode };
const EDGE_TYPES = { lead: MapLeadEdge };
const PRO = { hideAttribution: true };
/** The least at which a box can still be named: below it the map begins where the hands are, and is moved. */
const FIT = { padding: 0.02, minZoom: 0.4, maxZoom: 1.15 };
const LEAST_ZOOM = 0.15;
/** Names under boxes have room from here on. */
const NAMED_ZOOM = 0.66;
/** Room above the drawing for what stands over it, and beside it for cables that go around, in its own pixels. */
const ABOVE = 76;
const BESIDE = 26;
/** How far below its place the words of a zone end. */
const ZONE_HEIGHT = 18;
const REST_MS = 300;
const NO_DELETE: string[] = [];

interface MapProps {
  readonly laid: LaidMap;
  readonly lit: Lit | undefined;
  /** Behind each box, where they are to be shown. */
  readonly levels?: LevelsShown | undefined;
  readonly layers: ReadonlySet<Layer>;
  readonly focus: MapFocus;
  /** Parts that a finding is about. */
  readonly pointed: readonly AnyId[];
  readonly label: string;
  readonly pickBox: (id: Id<'device'>) => void;
  readonly pickJack: (jack: Ref) => void;
  readonly pickCable: (id: Id<'cable'>) => void;
  readonly letGo: () => void;
}

/** The map: every box and cable of a hook-up, laid out by zone, with the path of one sound lit. */
export const RoutingMapView = (props: MapProps) => (
  <ReactFlowProvider>
    <Flow {...props} />
  </ReactFlowProvider>
);

const STANDING_TEXT = {
  in: 'in the path',
  bypassed: 'bypassed',
  fed: 'fed, but not heard',
  outside: 'outside the path',
  apart: 'not in the signal path',
} as const;

const marks = (...of: readonly (string | false)[]): string => of.filter(Boolean).join(' ');

type Drawn = Pick<MapProps, 'laid' | 'lit' | 'levels' | 'layers' | 'focus' | 'pointed' | 'pickJack'>;

const useBoxes = ({ laid, lit, levels, layers, focus, pointed, pickJack }: Drawn): BoxNode[] => {
  const litJacks = useMemo(() => {
    const carrying = laid.cables.filter((c) => lit?.cables[c.cable.cable] === 'lit');
    return new Set(carrying.flatMap((c) => [c.cable.from, c.cable.to]));
  }, [laid, lit]);
  return useMemo(() => {
    const nodeOf = (box: LaidMap['boxes'][number]): BoxNode => {
      const { device, code, name } = box.box;
      const jack = focus.jack && splitRef(focus.jack).device === device ? focus.jack : undefined;
      const mark = marks(
        focus.box === device && 'chosen',
        focus.aimed === device && 'aimed',
        pointed.includes(device) && 'pointed',
      );
      const dbu = levels?.boxes[device];
      return {
        id: device,
        type: 'box',
        position: { x: box.x, y: box.y },
        width: box.width,
        height: box.height,
        draggable: false,
        zIndex: 2,
        ariaLabel: [`${code} ${name}`, lit && STANDING_TEXT[standingOf(box, lit)], dbuText(dbu)]
          .filter(Boolean)
          .join(', '),
        data: { laid: box, lit, dbu, layers, mark, jack, litJacks, pick: pickJack },
      };
    };
    return laid.boxes.map(nodeOf);
  }, [laid, lit, levels, layers, focus, pointed, litJacks, pickJack]);
};

const useLeads = ({ laid, lit, layers, focus, pointed }: Drawn): LeadEdge[] =>
  useMemo(() => {
    const edgeOf = (c: LaidMap['cables'][number]): LeadEdge => {
      const { cable, from, to, lead } = c.cable;
      const standing = lit?.cables[cable] ?? 'quiet';
      const carries = standing === 'lit' ? ', carries this sound' : '';
      return {
        id: cable,
        type: 'lead',
        source: splitRef(from).device,
        sourceHandle: from,
        target: splitRef(to).device,
        targetHandle: to,
        data: {
          laid: c,
          mark: marks(standing, focus.cable === cable && 'chosen', pointed.includes(cable) && 'pointed'),
        },
        zIndex: standing === 'lit' ? 1 : 0,
        ariaLabel: `${lead} lead from ${from.slice(7)} to ${to.slice(7)}${carries}`,
      };
    };
    return laid.cables.filter((c) => layers.has(c.cable.layer)).map(edgeOf);
  }, [laid, lit, layers, focus.cable, pointed]);

/** All that is drawn, with what goes around it. */
const boundsOf = ({ width, height }: LaidMap) => ({
  x: -BESIDE,
  y: -ABOVE,
  width: width + 2 * BESIDE,
  height: height + ABOVE,
});

/** Words are as large as this zoom asks for. */
const write = (frame: HTMLElement, zoom: number): void => {
  frame.style.setProperty('--zoom', String(zoom));
  frame.classList.toggle('far', zoom < NAMED_ZOOM);
};

/** While the map moves it is one picture that the browser shifts; it is drawn sharp again when it rests. */
const useRest = (frame: RefObject<HTMLDivElement | null>) => {
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const moves = () => {
    clearTimeout(resting.current);
    frame.current?.classList.add('moving');
  };
  const rests = (_: unknown, { zoom }: Viewport) => {
    if (frame.current) write(frame.current, zoom);
    resting.current = setTimeout(() => frame.current?.classList.remove('moving'), REST_MS);
  };
  return { moves, rests };
};

const Flow = ({ label, pickBox, pickCable, letGo, ...drawn }: MapProps) => {
  const { laid } = drawn;
  const { setViewport } = useReactFlow();
  const ready = useNodesInitialized();
  const frame = useRef<HTMLDivElement>(null);
  // All that is drawn is fitted: cables go further out than boxes, and what is saved from stands above them.
  const fit = useCallback(() => {
    const { current } = frame;
    if (!current) return;
    const [all, { clientWidth, clientHeight }] = [boundsOf(laid), current];
    const { minZoom, maxZoom, padding } = FIT;
    const seen = getViewportForBounds(all, clientWidth, clientHeight, minZoom, maxZoom, padding);
    const begins = (laid.zones.find((z) => z.name === ZONE_NAMES.hands)?.x ?? 0) - BESIDE;
    const right = clientWidth - (all.x + all.width) * seen.zoom;
    const x = all.width * seen.zoom > clientWidth ? Math.max(right, -begins * seen.zoom) : seen.x;
    write(current, seen.zoom);
    void setViewport({ ...seen, x });
  }, [laid, setViewport]);
  useEffect(() => {
    if (ready) fit();
  }, [ready, fit]);
  const nodes = useBoxes(drawn);
  const edges = useLeads(drawn);
  const { moves, rests } = useRest(frame);
  const take = (e: KeyboardEvent) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    const id = e.target instanceof Element ? e.target.getAttribute('data-id') : null;
    if (!id || !isId(id)) return;
    e.preventDefault();
    if (kindOf(id) === 'device') pickBox(theId('device', id));
    else pickCable(theId('cable', id));
  };
  return (
    <div ref={frame} className="map" role="group" aria-label={label} onKeyDown={take}>
      <ReactFlow
        nodes={nodes}
        edges={edges}
        nodeTypes={NODE_TYPES}
        edgeTypes={EDGE_TYPES}
        proOptions={PRO}
        onInit={fit}
        minZoom={LEAST_ZOOM}
        maxZoom={2.5}
        nodesConnectable={false}
        nodesDraggable={false}
        zoomOnDoubleClick={false}
        onMoveStart={moves}
        onMoveEnd={rests}
        deleteKeyCode={NO_DELETE}
        onNodeClick={(_, n) => pickBox(theId('device', n.id))}
        onEdgeClick={(_, e) => pickCable(theId('cable', e.id))}
        onPaneClick={letGo}
      >
        <ViewportPortal>
          {laid.zones.map((z) => (
            <div
              key={z.name}
              className="map-zone"
              style={{ transform: `translate(${z.x}px, ${z.y + ZONE_HEIGHT}px) translateY(-100%)` }}
            >
              {z.name}
            </div>
          ))}
        </ViewportPortal>
        <Controls showInteractive={false} position="top-right" onFitView={fit} />
      </ReactFlow>
    </div>
  );
};
