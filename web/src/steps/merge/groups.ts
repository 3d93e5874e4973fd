import type { Difference } from '@yunta/core/change/compare';
import { KINDS, kindOf, type Kind } from '@yunta/core/rig/ids';

/** What a list of differences is headed by. */
const HEADINGS: Readonly<Record<Kind, string>> = {
  about: 'The rig itself',
  device: 'Boxes',
  program: 'Programs',
  hookup: 'Hook-ups',
  cable: 'Cables',
  sound: 'Sounds',
  move: 'Moves',
  song: 'Songs',
  engagement: 'Acts',
  setList: 'Set lists',
  logEntry: 'Notes',
  standingTest: 'Standing tests',
  acceptance: 'Accepted findings',
  tick: 'Ticked off',
  dialCard: 'Dial cards',
  packCase: 'Cases',
  packing: 'Packed and back',
  house: 'Houses',
  photo: 'Photographs',
};

interface Group {
  readonly heading: string;
  readonly differences: readonly Difference[];
}

/** Differences by what they are about, in the order of the job. */
export const grouped = (differences: readonly Difference[]): readonly Group[] =>
  KINDS.map((kind) => ({
    heading: HEADINGS[kind],
    differences: differences.filter((d) => kindOf(d.part) === kind),
  })).filter((g) => g.differences.length > 0);

export const keyOf = ({ part, field }: Difference): string => (field === undefined ? part : `${part} ${field}`);

const KEEPS_ITS_NAME: ReadonlySet<string> = new Set(['about:rig name']);

/** What is taken unless the person says otherwise: all that only the others changed, but not what the copy is called. */
export const atFirst = (differences: readonly Difference[]): ReadonlySet<string> =>
  new Set(
    differences
      .filter((d) => d.by === 'theirs')
      .map(keyOf)
      .filter((key) => !KEEPS_ITS_NAME.has(key)),
  );
