import type { LevelsShown } from '@yunta/core/derive/views/levels-shown';
import type { Layer, Lit } from '@yunta/core/signal/drawing/map';
import { BoxDrawing, JackDrawing, LEAD_LETTERS } from './map-drawing.js';
import type { LaidMap } from './map-layout.js';

/** The drawing by itself has no page around it: ink on white, so that it prints. */
const STYLE = `text{font-family:'Atkinson Hyperlegible Next',sans-serif;fill:#1e1c17}.map-tag{fill:#fff;stroke:#8a8371;stroke-width:1.2}.map-tag.in{fill:#fff0cc;stroke:#1e1c17;stroke-width:2.2}.map-tag.bypassed{stroke:#1e1c17;stroke-width:1.6;stroke-dasharray:5 3}.map-tag.fed{stroke:#1e1c17}.map-tag.apart{stroke-dasharray:1.5 3}.map-hole{fill:none;stroke:#1e1c17}.map-code{font-family:'Atkinson Hyperlegible Mono',monospace;font-weight:700;font-size:16px;text-anchor:middle;dominant-baseline:central}.map-name{font-size:12.5px;text-anchor:middle}.map-code.left,.map-name.left{text-anchor:start}.map-number{font-size:11px;text-anchor:middle}.map-inner{fill:none;stroke:#c98a00;stroke-width:4}.map-plate{fill:#fff0cc}.map-jack{fill:#fff;stroke:#1e1c17}.map-jack.plugged{fill:#1e1c17}.map-lead{fill:none;stroke:#8a8371;stroke-width:1.5}.line{stroke-width:2.4}.balanced{stroke-dasharray:9 4;stroke-width:2}.speaker{stroke:#1e1c17;stroke-width:4.5}.air{stroke-dasharray:1 6;stroke-width:2}.MIDI,.data{stroke:#2f6b52;stroke-dasharray:2 4}.control{stroke:#2f6b52;stroke-dasharray:6 3}.power{stroke-dasharray:9 3 2 3}.lit{stroke:#c98a00;stroke-width:4}.map-letter{font-family:'Atkinson Hyperlegible Mono',monospace;font-size:11.5px;font-weight:700;text-anchor:middle;dominant-baseline:central;paint-order:stroke;stroke:#fff;stroke-width:4px}.zone{font-size:13px;font-weight:700;paint-order:stroke;stroke:#fff;stroke-width:6px}`;
const MARGIN = { side: 30, top: 76, bottom: 30 } as const;

export interface Drawn {
  readonly laid: LaidMap;
  readonly lit: Lit | undefined;
  /** Behind each box, where they are to be shown. */
  readonly levels?: LevelsShown | undefined;
  readonly layers: ReadonlySet<Layer>;
  readonly title: string;
}

/** The whole map in one drawing, with its title. */
export const MapPage = ({ laid, lit, levels, layers, title }: Drawn) => (
  <svg
    xmlns="http://www.w3.org/2000/svg"
    viewBox={`${-MARGIN.side} ${-MARGIN.top} ${laid.width + MARGIN.side * 2} ${laid.height + MARGIN.top + MARGIN.bottom}`}
    width={laid.width + MARGIN.side * 2}
    height={laid.height + MARGIN.top + MARGIN.bottom}
  >
    <title>{title}</title>
    <style>{STYLE}</style>
    <rect x={-MARGIN.side} y={-MARGIN.top} width="100%" height="100%" fill="#fff" />
    <text x={0} y={-48} fontSize={18} fontWeight={700}>
      {title}
    </text>
    {laid.zones.map((z) => (
      <text key={`${z.name} ${z.x} ${z.y}`} className="zone" x={z.x} y={z.y + 12}>
        {z.name}
      </text>
    ))}
    {laid.cables
      .filter((c) => layers.has(c.cable.layer))
      .map(({ cable, d, at }) => (
        <g key={cable.cable}>
          <path className={`map-lead ${cable.lead} ${lit?.cables[cable.cable] ?? ''}`} d={d} />
          {LEAD_LETTERS[cable.lead] !== 'i' && (
            <text className="map-letter" x={at[0]} y={at[1]}>
              {LEAD_LETTERS[cable.lead]}
            </text>
          )}
        </g>
      ))}
    {laid.boxes.map((b) => (
      <g key={b.box.device} transform={`translate(${b.x} ${b.y})`}>
        <BoxDrawing laid={b} lit={lit} dbu={levels?.boxes[b.box.device]} />
        <JackDrawing laid={{ ...b, jacks: b.jacks.filter((j) => layers.has(j.jack.layer)) }} />
      </g>
    ))}
  </svg>
);
