import type { SaidChange } from '@yunta/core/sheets/change-words';

/** What stands otherwise, in the words of the sheets. */
export const SaidChanges = ({ changes }: { changes: readonly SaidChange[] }) => (
  <ul className="said-changes">
    {changes.length === 0 && <li>Nothing that shows.</li>}
    {changes.map(({ is, what, was, now }, i) => (
      <li key={`${i} ${what}`}>
        {is === 'changed' ? (
          <>
            {what}: {now} <span className="soft">(was: {was})</span>
          </>
        ) : (
          `${what}: ${is}`
        )}
      </li>
    ))}
  </ul>
);
