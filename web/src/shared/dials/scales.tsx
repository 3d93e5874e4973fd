import type { DialNoteCard } from '@yunta/core/derive/views/dial-notes';

const [WIDE, HIGH] = [84, 12];

/** How far a knob is turned, on a straight line from 7 o'clock to 5 o'clock with noon marked. */
const Scale = ({ turn }: { turn: number }) => (
  <svg className="dial-scale" width={WIDE} height={HIGH} viewBox={`0 0 ${WIDE} ${HIGH}`} aria-hidden="true">
    <path d={`M2 ${HIGH / 2}H${WIDE - 2}M2 3v6M${WIDE / 2} 4v4M${WIDE - 2} 3v6`} strokeWidth={1} fill="none" />
    <circle cx={2 + turn * (WIDE - 4)} cy={HIGH / 2} r={3.5} stroke="none" />
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
