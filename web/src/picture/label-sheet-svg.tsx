import { sidesOf, type LabelPaper, type LabelPlace } from '@yunta/core/board/label-paper';

/** What stands on a label: what is read from afar, and smaller lines. */
export interface Label {
  readonly key: string;
  readonly big: string;
  readonly lines: readonly string[];
  /** It is folded around a lead, and says it on either side. */
  readonly isFolded?: boolean;
}

interface LabelSheetProps {
  readonly paper: LabelPaper;
  readonly labels: readonly { readonly thing: Label; readonly at: LabelPlace }[];
  readonly title: string;
}

/** Space inside a label, in mm. */
const PAD = 2;
/** How wide a letter is of its height, in the typewriter face and in the other (measured, rounded up). */
const MONO = 0.66;
const PLAIN = 0.58;
/** How high lines are at most, of the label's height. */
const BIG = 0.3;
const SMALL = 0.17;

const widthOf = ({ paper: { label }, isFolded }: { paper: LabelPaper; isFolded: boolean }): number =>
  isFolded ? label[0] / 2 : label[0];

/** How high the letters are of a line that has to fit into so much, in mm. */
const letters = (text: string, room: number, letter: number, most: number): number =>
  Math.min(most, room / (letter * Math.max(1, text.length)));

/** How high the letters of the small lines of a label are, in mm: the longest says it for all. */
export const smallLetters = (paper: LabelPaper, { lines, isFolded }: Label): number => {
  const room = widthOf({ paper, isFolded: isFolded ?? false }) - 2 * PAD;
  return Math.min(Infinity, ...lines.map((l) => letters(l, room, PLAIN, paper.label[1] * SMALL)));
};

/** A sheet of label paper, to scale: it is seen and printed alike. */
export const LabelSheetSvg = ({ paper, labels, title }: LabelSheetProps) => {
  const [w, h] = sidesOf(paper);
  return (
    <svg
      className="label-sheet"
      viewBox={`0 0 ${w} ${h}`}
      width={`${w}mm`}
      height={`${h}mm`}
      role="img"
      aria-label={title}
    >
      <rect className="label-paper" width={w} height={h} />
      {labels.map(({ thing, at }) => (
        <g key={thing.key}>
          <rect className="label-edge" x={at.x} y={at.y} width={paper.label[0]} height={paper.label[1]} rx={1} />
          <Words paper={paper} label={thing} x={at.x} y={at.y} />
          {thing.isFolded && (
            <>
              <Words paper={paper} label={thing} x={at.x + paper.label[0] / 2} y={at.y} />
              <path className="label-fold" d={`M${at.x + paper.label[0] / 2} ${at.y}v${paper.label[1]}`} />
            </>
          )}
        </g>
      ))}
    </svg>
  );
};

const Words = ({ paper, label, x, y }: { paper: LabelPaper; label: Label; x: number; y: number }) => {
  const wide = widthOf({ paper, isFolded: label.isFolded ?? false });
  const high = paper.label[1];
  const room = wide - 2 * PAD;
  const rows = [
    { text: label.big, size: letters(label.big, room, MONO, high * BIG), className: 'label-big' },
    ...label.lines.map((text) => ({ text, size: smallLetters(paper, label), className: 'label-small' })),
  ];
  const gap = high * 0.06;
  const whole = rows.reduce((sum, r) => sum + r.size, 0) + gap * (rows.length - 1);
  const tops = rows.map((_, i) => rows.slice(0, i).reduce((sum, r) => sum + r.size + gap, (high - whole) / 2));
  return rows.map(({ text, size, className }, i) => (
    <text
      key={`${i} ${text}`}
      className={className}
      x={x + wide / 2}
      y={y + (tops[i] ?? 0) + size * 0.8}
      fontSize={size}
      textAnchor="middle"
    >
      {text}
    </text>
  ));
};
