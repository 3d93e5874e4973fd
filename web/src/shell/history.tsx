import { Button, Drawer } from '@mantine/core';
import type { LogEntry } from '@yunta/core/rig/show';
import { all } from '@yunta/core/rig/rig';
import { difference } from '@yunta/core/change/diff';
import { leavingTicks } from '@yunta/core/edits/ticks';
import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { api, HISTORY_PAGE } from '../session/api.js';
import { sayAll } from '../session/store.js';
import { AboutRig } from './about.js';
import { YourName } from '../shared/your-name.js';
import { HistoryList, SetMark, SinceTheLastGig } from './history-list.js';
import { useRig } from '../shared/rig-context.js';
import { surely } from '@yunta/core/known/the';

/** Every change of the rig, the newest first; any revision can be brought back, as a change of its own. */
export const History = ({ opened, close }: { opened: boolean; close: () => void }) => {
  const { rigId, state, store, edit } = useRig();
  const revision = surely(state.session).confirmed.revision;
  const { data, isError, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: ['history', rigId, revision],
    enabled: opened,
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) => api.history(rigId, pageParam),
    getNextPageParam: (page) => (page.length === HISTORY_PAGE ? surely(page.at(-1)).revision : undefined),
  });
  const back = useMutation({
    networkMode: 'always',
    mutationFn: async (to: number) => {
      const then = await api.at(rigId, to);
      const { rig } = surely(store.snapshot().session);
      return edit(leavingTicks(rig, difference(rig, then)), `Back to revision ${to}`);
    },
  });
  const said = back.isPending
    ? `Going back to revision ${back.variables} …`
    : back.isError
      ? `Nothing was brought back: the server, which keeps revision ${back.variables}, does not answer. Try again when it does.`
      : back.data?.length
        ? `Revision ${back.variables} could not be brought back: ${sayAll(back.data)}`
        : back.data
          ? `Revision ${back.variables} is back. Undo takes that back.`
          : '';
  const leave = () => {
    back.reset();
    close();
  };
  return (
    <Drawer opened={opened} onClose={leave} position="right" size="lg" title={<strong>History</strong>}>
      <p className="soft">
        Going back is a change of its own: nothing in between is lost. What was ticked off as typed in stays ticked,
        because the boxes still hold it.
      </p>
      {isError && (
        <p className="broken">The server does not answer; the history is with it. Your own changes are kept here.</p>
      )}
      <p
        role="status"
        className={back.isError || back.data?.length ? 'broken' : 'soft'}
        style={{ minHeight: '1.5em', margin: '0 0 8px' }}
      >
        {said}
      </p>
      <div className="history-who">
        <YourName />
        <SetMark />
      </div>
      <SinceTheLastGig />
      <AboutRig />
      <Notes />
      <HistoryList
        entries={data?.pages.flat() ?? []}
        revision={revision}
        goBack={(to) => back.mutate(to)}
        isGoing={back.isPending}
      />
      {hasNextPage && (
        <Button variant="default" size="xs" mt={10} disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          Older changes
        </Button>
      )}
    </Drawer>
  );
};

/** Notes in the rig's log: such as what could not be kept, to be done again by hand. */
const Notes = () => {
  const { rig, edit } = useRig();
  const notes = all(rig, 'logEntry').filter((note) => !note.point);
  if (notes.length === 0) return null;
  const remove = (note: LogEntry) => edit({ put: [], remove: [note.id] }, 'Remove a note');
  return (
    <details className="notes">
      <summary>
        {notes.length} {notes.length === 1 ? 'note' : 'notes'}
      </summary>
      {notes.map((note) => (
        <div key={note.id} className="note">
          <p className="note-text">{note.text}</p>
          <span className="soft">{new Date(note.when).toLocaleString()}</span>{' '}
          <Button size="compact-xs" variant="default" onClick={() => remove(note)}>
            Remove
          </Button>
        </div>
      ))}
    </details>
  );
};
