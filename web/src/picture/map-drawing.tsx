import { dbuText } from './dbu-text.js';
import { nameLines, short } from './name-lines.js';
import type { LeadKind, BoxStanding, Lit } from '@yunta/core/signal/drawing/map';
import type { LaidBox } from './map-parts.js';
import { theFirst } from '@yunta/core/known/the';

export const LEAD_LETTERS: Readonly<Record<LeadKind, string>> = {
  instrument: 'i',
  line: 'L',
  balanced: 'B',
  speaker: 'S',
  air: 'A',
  MIDI: 'M',
  control: 'C',
  power: 'P',
  data: 'U',
};

/** How a box stands in the sound that is shown; `apart` when no signal could come by. */
export type TagStanding = BoxStanding | 'apart';

const STANDING_TEXT: Readonly<Record<TagStanding, string>> = {
  in: '',
  bypassed: 'bypassed',
  fed: 'not heard',
  outside: '',
  apart: '',
};

export const standingOf = (laid: LaidBox, lit: Lit | undefined): TagStanding =>
  lit?.boxes[laid.box.device] ?? (laid.box.wired && !lit ? 'outside' : 'apart');

const LINE_CHARS = 13;
/** A tag points the way the signal runs. */
const tagPath = (w: number, h: number): string => `M0 0H${w - 9}l9 ${h / 2}L${w - 9} ${h}H0z`;

interface Drawn {
  readonly laid: LaidBox;
  readonly lit: Lit | undefined;
  /** How loud it is behind it, where that is to be shown. */
  readonly dbu: number | undefined;
}

/** One box as it lies on the map, drawn from its own corner. */
export const BoxDrawing = (drawn: Drawn) => {
  const standing = standingOf(drawn.laid, drawn.lit);
  return drawn.laid.shape === 'bar' ? <Bar {...drawn} standing={standing} /> : <Tag {...drawn} standing={standing} />;
};

interface Standing extends Drawn {
  readonly standing: TagStanding;
}

const Tag = ({ laid: { box, width, height, nameAbove }, standing, dbu }: Standing) => {
  const says = dbuText(dbu) ?? STANDING_TEXT[standing];
  const lines = says ? [theFirst(nameLines(box.name, LINE_CHARS)), says] : nameLines(box.name, LINE_CHARS);
  return (
    <>
      <path className={`map-tag ${standing}`} d={tagPath(width, height)} />
      <circle cx={width - 10} cy={height / 2} r={2} className="map-hole" />
      <text className="map-code" x={width / 2 - 4} y={height / 2 + 1}>
        {box.code}
      </text>
      <text className="map-name" x={width / 2} y={nameAbove ? -6 : height + 4}>
        {lines.map((l, i) => (
          <tspan key={l} x={width / 2} dy={i ? '1.12em' : nameAbove ? `${(1 - lines.length) * 1.12}em` : '0.85em'}>
            {l}
          </tspan>
        ))}
      </text>
    </>
  );
};

const Bar = ({ laid: { box, width, height, loops }, standing, lit, dbu }: Standing) => {
  const y = height / 2;
  const carried = loops
    .filter((l) => l.loop.patched && l.loop.sends.some((r) => lit?.jacks.includes(r)))
    .sort((a, b) => a.from - b.from);
  const line =
    standing === 'in' || standing === 'bypassed'
      ? `M0 ${y}${carried.map((l) => `H${l.from}V${l.side === 'bottom' ? height : 0}M${l.to} ${l.side === 'bottom' ? height : 0}V${y}`).join('')}H${width}`
      : '';
  return (
    <>
      <rect className={`map-tag ${standing}`} width={width} height={height} rx={3} />
      {line && <path className="map-inner" d={line} />}
      <rect className="map-plate" x={8} y={5} width={box.code.length * 10 + 8} height={height - 10} />
      <text className="map-code left" x={12} y={y + 1}>
        {box.code}
      </text>
      <text className="map-name left" x={2} y={-7}>
        {[short(box.name, 26), dbuText(dbu)].filter(Boolean).join(' ')}
      </text>
      {loops.map((l) => (
        <text
          key={l.loop.inserts[0]}
          className="map-number"
          x={(l.from + l.to) / 2}
          y={l.side === 'bottom' ? height + 12 : -5}
        >
          {l.loop.inserts
            .map((i) => /\d+$/.exec(i)?.[0] ?? '')
            .filter(Boolean)
            .join('+')}
        </text>
      ))}
    </>
  );
};

/** A small tag for the legend. */
export const StandingSample = ({ standing }: { standing: TagStanding }) => (
  <svg width={34} height={18} aria-hidden="true">
    <g transform="translate(2 2)">
      <path className={`map-tag ${standing}`} d={tagPath(30, 14)} />
    </g>
  </svg>
);

/** Where jacks are drawn as squares: filled when a plug is in. */
export const JackDrawing = ({ laid }: { laid: LaidBox }) => (
  <>
    {laid.jacks.map((j) => (
      <rect
        key={j.jack.ref}
        className={`map-jack ${j.jack.plugged ? 'plugged' : ''}`}
        x={j.x - 3.5}
        y={j.y - 3.5}
        width={7}
        height={7}
      />
    ))}
  </>
);
