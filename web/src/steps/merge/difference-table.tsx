import { Button, Checkbox } from '@mantine/core';
import type { Difference } from '@yunta/core/change/compare';
import type { Rig } from '@yunta/core/rig/rig';
import { sayDifference } from '@yunta/core/sheets/change-words';
import { grouped, keyOf } from './groups.js';

/** More rows than this nobody reads; what is not shown is counted. */
const MOST_SHOWN = 200;

interface DifferenceTableProps {
  readonly mine: Rig;
  readonly theirs: Rig;
  readonly differences: readonly Difference[];
  readonly taken: ReadonlySet<string>;
  readonly take: (keys: readonly string[], isTaken: boolean) => void;
  /** Both sides changed each of them: one of the two is chosen, not ticked. */
  readonly isChoice?: boolean;
  /** Of those, the ones that the person has chosen about. */
  readonly decided?: ReadonlySet<string>;
}

/** What stands otherwise there, group by group, each to be taken or left. */
export const DifferenceTable = (props: DifferenceTableProps) => (
  <>
    {grouped(props.differences).map(({ heading, differences }) => (
      <section key={heading} className="merge-group">
        <header>
          <h3>
            {heading} <span className="soft">{differences.length}</span>
          </h3>
          {!props.isChoice && differences.length > 1 && (
            <AllOf {...props} differences={differences} heading={heading} />
          )}
        </header>
        <ul>
          {differences.slice(0, MOST_SHOWN).map((d) => (
            <Row key={keyOf(d)} {...props} difference={d} />
          ))}
        </ul>
        {differences.length > MOST_SHOWN && (
          <p className="soft">{differences.length - MOST_SHOWN} more are not shown; “all” means them too.</p>
        )}
      </section>
    ))}
  </>
);

const AllOf = ({ differences, taken, take, heading }: DifferenceTableProps & { readonly heading: string }) => {
  const keys = differences.map(keyOf);
  const isAll = keys.every((key) => taken.has(key));
  return (
    <Button size="compact-sm" variant="default" onClick={() => take(keys, !isAll)}>
      {isAll ? `Leave all ${heading.toLowerCase()}` : `Take all ${heading.toLowerCase()}`}
    </Button>
  );
};

const Row = ({
  mine,
  theirs,
  difference,
  taken,
  take,
  isChoice,
  decided,
}: DifferenceTableProps & { readonly difference: Difference }) => {
  const key = keyOf(difference);
  const said = sayDifference(mine, theirs, difference);
  const isTaken = taken.has(key);
  if (!isChoice)
    return (
      <li>
        <Checkbox
          checked={isTaken}
          onChange={(e) => take([key], e.currentTarget.checked)}
          label={
            <>
              <strong>{said.what}</strong>: {said.theirs} <span className="soft">(here: {said.mine})</span>
            </>
          }
        />
      </li>
    );
  const isDecided = decided?.has(key);
  const choice = (isTheirs: boolean) => ({
    size: 'compact-sm' as const,
    variant: isDecided && isTaken === isTheirs ? 'filled' : 'default',
    'aria-pressed': Boolean(isDecided) && isTaken === isTheirs,
    onClick: () => take([key], isTheirs),
  });
  return (
    <li className="merge-choice">
      <span>
        <strong>{said.what}</strong> <span className="soft">(it was: {said.was})</span>
      </span>
      <Button {...choice(false)}>Mine: {said.mine}</Button>
      <Button {...choice(true)}>Theirs: {said.theirs}</Button>
    </li>
  );
};
