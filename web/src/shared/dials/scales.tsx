import type { DialNoteCard } from '@yunta/core/derive/views/dial-notes';

const [WIDE, HIGH, RIM] = [88, 12, 4];

/** How far a knob is turned, on a straight line from 7 o'clock to 5 o'clock with noon marked. */
const Scale = ({ turn }: { turn: number }) => (
  <svg className="dial-scale" width={WIDE} height={HIGH} viewBox={`0 0 ${WIDE} ${HIGH}`} aria-hidden="true">
    <path
      d={`M${RIM} ${HIGH / 2}H${WIDE - RIM}M${RIM} 3v6M${WIDE / 2} 4v4M${WIDE - RIM} 3v6`}
      strokeWidth={1}
      fill="none"
    />
    <circle cx={RIM + turn * (WIDE - 2 * RIM)} cy={HIGH / 2} r={3.5} stroke="none" />
  </svg>
);

/** Knobs with where they stand, in the person's words; those that turn have a line under them. */
export const Scales = ({ knobs }: { knobs: DialNoteCard['knobs'] }) => (
  <ul className="dial-scales">
    {knobs.map(({ knob, at, turn }) => (
      <li key={knob}>
        <span>
          {knob} <strong>{at}</strong>
        </span>
        {turn !== undefined && <Scale turn={turn} />}
      </li>
    ))}
  </ul>
);
