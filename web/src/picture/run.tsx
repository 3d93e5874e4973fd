import './run.css';
import type { AnyId, Id } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { SIDES_TEXT, type Item } from '@yunta/core/signal/drawing/picture';
import { useMemo } from 'react';
import { useRig } from '../shared/rig-context.js';
import { layRun, TAG } from './layout.js';
import { nameLines } from './name-lines.js';

const MIN_SCALE = 0.74;
const NAME_CHARS = 11;
const LINE = 13;
const HOST_CHAR = 6.8;
/** Code and name, as much of it as the bar is wide. */
const hostName = (code: string, name: string, width: number): string =>
  (code.length + name.length + 3) * HOST_CHAR <= width ? `${code} · ${name}` : code;
/** What stands under a tag: its name, in two lines where it takes them, or that the box is bypassed. */
const under = (name: string, bypassed: boolean): readonly string[] => {
  const [first, second] = nameLines(name, NAME_CHARS);
  return [first, ...(bypassed ? ['bypassed'] : second === undefined ? [] : [second])];
};
/** A tag points the way the signal runs. */
const tagPath = (x: number, y: number): string => {
  const { width: w, height: h } = TAG;
  return `M${x} ${y - h / 2}h${w - 8}l8 ${h / 2}l-8 ${h / 2}h${-(w - 8)}z`;
};

/** The run: the path of a sound as one line of tags, the same picture in every room. */
export const Run = ({
  items,
  label,
  silent,
  press,
}: {
  items: readonly Item[];
  label: string;
  silent?: string;
  /** What a click on a tag does; it is chosen unless something else is said. */
  press?: (id: Id<'device'>) => void;
}) => {
  const { rig, select, pointed } = useRig();
  return (
    <RunDrawing
      items={items}
      label={label}
      {...(silent ? { silent } : {})}
      said={(id) => partOf(rig, id) ?? { code: '?', name: id }}
      select={press ?? select}
      pointed={pointed}
    />
  );
};

interface Drawing {
  readonly items: readonly (Item | undefined)[];
  /** Shared with a run that it is lined up with. */
  readonly columns?: readonly number[];
  readonly label: string;
  readonly said: (id: Id<'device'>) => { readonly code: string; readonly name: string };
  readonly select?: (id: Id<'device'>) => void;
  readonly pointed?: readonly AnyId[];
  /** What is said when nothing gets through. */
  readonly silent?: string;
}

const UNWIRED = 'Silent: nothing that is heard is reached from an instrument. Wire the rig in Routing.';

/** A run of whatever has a code and a name. */
export const RunDrawing = ({ items, columns, label, said, select, pointed = [], silent = UNWIRED }: Drawing) => {
  const laid = useMemo(() => layRun(items, columns), [items, columns]);
  if (items.length === 0)
    return (
      <p className="soft" style={{ margin: '18px 0' }}>
        {silent}
      </p>
    );
  const name = (id: Id<'device'>) => said(id).name;
  const code = (id: Id<'device'>) => said(id).code;
  const { x, y, width, height } = laid.box;
  return (
    <div className="run" tabIndex={0} role="group" aria-label={label}>
      <svg
        viewBox={`${x} ${y} ${width} ${height}`}
        style={{ width: '100%', minWidth: width * MIN_SCALE, maxWidth: width }}
        role="img"
        aria-label={`${label}: ${laid.tags.map((t) => `${name(t.device)}${t.sides ? ` (${SIDES_TEXT[t.sides]})` : ''}`).join(', ')}; heard at ${laid.ends.map((e) => (e.under ? `${e.name} (${e.under})` : e.name)).join(', ')}`}
      >
        {laid.hosts.map((h) => (
          <g key={`${h.x} ${h.y}`}>
            <rect className="host" x={h.x} y={h.y - 12} width={h.width} height={24} rx={3} />
            <text className="host-name" x={h.x + 2} y={h.y - 17}>
              {hostName(code(h.device), name(h.device), h.width)}
            </text>
          </g>
        ))}
        <path className="wire" d={laid.wires.join('')} />
        <path className="wire-gone" d={laid.pairs.map((p) => p.instead).join('')} />
        <path className="wire pair" d={laid.pairs.map((p) => p.lines).join('')} />
        {laid.stubs.map((s) => (
          <g key={s.d}>
            <path className="stub" d={s.d} />
            {s.codes.map((c, i) => (
              <text key={c} className="name tagged" x={s.x} y={s.y + 4 + i * 13} onClick={() => select?.(c)}>
                {code(c)}
              </text>
            ))}
            <title>{s.codes.map(name).join(', ')}: outside the path, its loop is off</title>
          </g>
        ))}
        {laid.tags.map((t) => {
          const bypassed = t.stages.length > 0 && t.stages.every((s) => !s.on);
          return (
            <g key={`${t.x} ${t.y}`} className="tagged" onClick={() => select?.(t.device)}>
              <path
                className={`tag ${bypassed ? 'bypassed' : ''} ${pointed.includes(t.device) ? 'pointed' : ''}`}
                d={tagPath(t.x, t.y)}
              />
              {pointed.includes(t.device) && (
                <text className="pointer" x={t.x + TAG.width / 2 + 4} y={t.y - TAG.height / 2 - 6}>
                  !
                </text>
              )}
              <circle cx={t.x + TAG.width - 9} cy={t.y} r={2} fill="none" stroke="var(--ink)" />
              <text className="code" x={t.x + TAG.width / 2 - 4} y={t.y + 0.5}>
                {code(t.device)}
              </text>
              <text className="name" x={t.x + TAG.width / 2} y={t.y + TAG.height / 2 + LINE}>
                {under(name(t.device), bypassed).map((line, i) => (
                  <tspan key={line} x={t.x + TAG.width / 2} dy={i ? LINE : 0}>
                    {line}
                  </tspan>
                ))}
              </text>
              {t.sides && (
                <text className="side-mark" x={t.x + TAG.width / 2} y={t.y - TAG.height / 2 - 5}>
                  {t.sides === 'part' ? 'two sides' : 'one again'}
                </text>
              )}
              <title>
                {name(t.device)}
                {t.sides ? `, ${SIDES_TEXT[t.sides]}` : ''}
                {t.stages.length
                  ? `: ${t.stages.map((s) => `${s.stage.slice(s.stage.indexOf('.') + 1)} ${s.on ? 'on' : 'off'}`).join(', ')}`
                  : ''}
              </title>
            </g>
          );
        })}
        {laid.ends.map((e) => (
          <g key={`${e.x} ${e.y}`}>
            <text className="end" x={e.x} y={e.y}>
              {e.name}
            </text>
            {e.under && (
              <text className="side" x={e.x} y={e.y + 18}>
                {e.under}
              </text>
            )}
          </g>
        ))}
      </svg>
    </div>
  );
};
