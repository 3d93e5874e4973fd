import { Button, Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { songsOfBand } from '@yunta/core/edits/band';
import { sayRefusal } from '@yunta/core/rig/result';
import { all } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { api } from '../../session/api.js';
import { newPartId } from '../../session/ids.js';
import { useRig } from '../../shared/rig-context.js';

const ALL = 'all songs';

/** Songs, bars and order of the band, from the rig of another player on this server. */
export const BandSongs = () => {
  const { rigId, rig, edit } = useRig();
  const [isOpen, open] = useState(false);
  const [chosen, choose] = useState<string | null>(null);
  const [set, setSet] = useState<string>(ALL);
  const [said, say] = useState('');
  const rigs = useQuery({ queryKey: ['rigs of the band'], queryFn: api.rigs, enabled: isOpen });
  const other = useQuery({
    queryKey: ['rig of the band', chosen],
    queryFn: () => api.rig(chosen ?? ''),
    enabled: chosen !== null,
    gcTime: 0,
  });
  if (!isOpen)
    return (
      <Button size="xs" variant="default" onClick={() => open(true)}>
        Songs of another rig
      </Button>
    );
  const others = (rigs.data ?? []).filter((r) => r.id !== rigId && !r.removed);
  const lists = other.data ? all(other.data, 'setList') : [];
  const list = lists.find((l) => l.id === set);
  const plan =
    other.data &&
    songsOfBand(rig, other.data, list, { song: () => newPartId('song'), setList: () => newPartId('setList') });
  const take = (): void => {
    if (!plan) return;
    const refused = edit(plan.edit, `Songs of ${others.find((r) => r.id === chosen)?.name ?? 'another rig'}`);
    say(
      refused.length
        ? refused.map(sayRefusal).join(' ')
        : `${plan.added.length} added, ${plan.changed.length} brought up to date. ${plan.open.length} of their cues ask for a sound of yours.`,
    );
  };
  return (
    <div className="card band-songs">
      <p className="soft">
        Title, tempo, bars, words and order are the band’s. Instrument, tuning, notes and what you call stay yours. Do
        it again whenever they change something.
      </p>
      <div className="sheet-tools">
        <Select
          size="xs"
          w={220}
          aria-label="Which rig of the band"
          placeholder="which rig"
          data={others.map((r) => ({ value: r.id, label: r.name }))}
          value={chosen}
          onChange={(id) => {
            choose(id);
            setSet(ALL);
            say('');
          }}
          nothingFoundMessage="No other rig is here"
        />
        {other.data && (
          <Select
            size="xs"
            w={220}
            aria-label="Which set of theirs"
            allowDeselect={false}
            data={[
              { value: ALL, label: 'all their songs' },
              ...lists.map((l) => ({ value: l.id, label: `the set ${l.name}` })),
            ]}
            value={set}
            onChange={(v) => setSet(v ?? ALL)}
          />
        )}
        <Button size="xs" disabled={!plan || plan.added.length + plan.changed.length === 0} onClick={take}>
          {plan ? `Take ${plan.added.length} new, update ${plan.changed.length}` : 'Take them'}
        </Button>
        <Button size="xs" variant="default" onClick={() => open(false)}>
          Close
        </Button>
      </div>
      {(rigs.isError || other.isError) && (
        <p className="broken" role="alert">
          The server does not answer. Try again when it does.
        </p>
      )}
      {said && <p role="status">{said}</p>}
    </div>
  );
};
