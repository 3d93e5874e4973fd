import './run.css';
import type { LevelsShown } from '@yunta/core/derive/views/levels-shown';
import type { AnyId, Id } from '@yunta/core/rig/ids';
import { partOf } from '@yunta/core/rig/rig';
import { SIDES_TEXT, type Item } from '@yunta/core/signal/drawing/picture';
import { useMemo } from 'react';
import { useWidth } from '../shared/use-width.js';
import { useRig } from '../shared/rig-context.js';
import { layRun, RIM, type LaidTag } from './layout.js';
import { dbuText } from './dbu-text.js';
import { nameLines, short } from './name-lines.js';
import { END_CHARS, sharedColumns, TAG } from './run-rows.js';

const NAME_CHARS = 11;
const LINE = 13;
/** Room for the level under an end, where no names stand under tags. */
const LEVEL_ROOM = 16;
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
  names,
  press,
  levels,
}: {
  items: readonly Item[];
  levels?: LevelsShown | undefined;
  label: string;
  names?: Drawing['names'];
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
      {...(names ? { names } : {})}
      said={(id) => partOf(rig, id) ?? { code: '?', name: id }}
      select={press ?? select}
      pointed={pointed}
      levels={levels}
    />
  );
};

interface Drawing {
  readonly items: readonly (Item | undefined)[];
  /** Another run that it is lined up with, place by place. */
  readonly beside?: readonly (Item | undefined)[];
  /**
   * Names under the tags: `always`; `in one row`, where the picture stands over something and must not be tall; or
   * `never`. They are said on being pointed at all the same.
   */
  readonly names?: 'always' | 'in one row' | 'never';
  readonly label: string;
  readonly said: (id: Id<'device'>) => { readonly code: string; readonly name: string };
  readonly select?: (id: Id<'device'>) => void;
  /** What a finding is about. */
  readonly pointed?: readonly AnyId[];
  /** What is otherwise in another run beside it. */
  readonly differ?: readonly AnyId[];
  readonly levels?: LevelsShown | undefined;
  /** What is said when nothing gets through. */
  readonly silent?: string;
}

const UNWIRED = 'Silent: nothing that is heard is reached from an instrument. Wire the rig in Routing.';

/**
 * A run of whatever has a code and a name. It is never drawn smaller than it can be read: what does not fit into one
 * row goes on in the next.
 */
export const RunDrawing = ({
  items,
  beside,
  names = 'always',
  label,
  said,
  select,
  pointed = [],
  differ = [],
  levels,
  silent = UNWIRED,
}: Drawing) => {
  const [measured, wide] = useWidth();
  const { laid, named } = useMemo(() => {
    const columns = beside && sharedColumns(items, beside);
    const inOneRow = layRun(items, { columns });
    if (names !== 'never' && inOneRow.box.width <= wide) return { laid: inOneRow, named: true };
    const named = names === 'always';
    return { laid: layRun(items, { room: { width: wide ? wide - RIM : Infinity, names: named }, columns }), named };
  }, [items, beside, names, wide]);
  if (items.length === 0)
    return (
      <p className="soft" style={{ margin: '18px 0' }}>
        {silent}
      </p>
    );
  const name = (id: Id<'device'>) => said(id).name;
  const code = (id: Id<'device'>) => said(id).code;
  const { x, y, width } = laid.box;
  const height = laid.box.height + (levels && !named ? LEVEL_ROOM : 0);
  return (
    <div ref={measured} className="run" tabIndex={0} role="group" aria-label={label}>
      <svg
        viewBox={`${x} ${y} ${width} ${height}`}
        style={{ width }}
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
        {laid.tags.map((t) => (
          <Tag
            key={`${t.x} ${t.y}`}
            at={t}
            code={code(t.device)}
            name={name(t.device)}
            named={named}
            level={dbuText(levels?.boxes[t.device])}
            sign={pointed.includes(t.device) ? 'pointed' : differ.includes(t.device) ? 'differs' : undefined}
            {...(select ? { press: () => select(t.device) } : {})}
          />
        ))}
        {laid.ends.map((e) => (
          <g key={`${e.x} ${e.y}`}>
            <title>{e.name}</title>
            <text className="end" x={e.x} y={e.y}>
              {short(e.name, END_CHARS)}
            </text>
            {e.under && (
              <text className="side" x={e.x} y={e.y + 18}>
                {e.under}
              </text>
            )}
            {levels?.ends[e.end] !== undefined && (
              <text className="side" x={e.x} y={e.y + 33}>
                {dbuText(levels.ends[e.end])}
              </text>
            )}
          </g>
        ))}
      </svg>
    </div>
  );
};

/** Over a tag: a finding is about it, or it differs from the run beside it. */
const SIGNS = { pointed: '!', differs: '▾' } as const;

interface TagProps {
  readonly at: LaidTag;
  readonly code: string;
  readonly name: string;
  /** Whether its name stands under it; it is always said on being pointed at. */
  readonly named: boolean;
  /** How loud it is behind it. */
  readonly level: string | undefined;
  readonly sign: keyof typeof SIGNS | undefined;
  readonly press?: () => void;
}

/** A box on the line. */
const Tag = ({ at, code, name, named, level, sign, press }: TagProps) => {
  const { x, y, stages, sides } = at;
  const middle = x + TAG.width / 2;
  const bypassed = stages.length > 0 && stages.every((s) => !s.on);
  const stands = stages.map((s) => `${s.stage.slice(s.stage.indexOf('.') + 1)} ${s.on ? 'on' : 'off'}`).join(', ');
  return (
    <g className="tagged" onClick={press}>
      <path className={`tag ${bypassed ? 'bypassed' : ''} ${sign ?? ''}`} d={tagPath(x, y)} />
      {sign && (
        <text className={`pointer ${sign}`} x={middle + 4} y={y - TAG.height / 2 - 6}>
          {SIGNS[sign]}
        </text>
      )}
      <circle cx={x + TAG.width - 9} cy={y} r={2} fill="none" stroke="var(--ink)" />
      <text className="code" x={middle - 4} y={y + 0.5}>
        {code}
      </text>
      {named && (
        <text className="name" x={middle} y={y + TAG.height / 2 + LINE}>
          {under(name, bypassed).map((line, i) => (
            <tspan key={line} x={middle} dy={i ? LINE : 0}>
              {line}
            </tspan>
          ))}
        </text>
      )}
      {sides && (
        <text className="side-mark" x={middle} y={y - TAG.height / 2 - 5}>
          {sides === 'part' ? 'two sides' : 'one again'}
        </text>
      )}
      <title>
        {name}
        {sides ? `, ${SIDES_TEXT[sides]}` : ''}
        {stands && `: ${stands}`}
        {level && `. Behind it ${level}`}
      </title>
    </g>
  );
};
