import { Spotlight, type SpotlightActionData } from '@mantine/spotlight';
import { all } from '@yunta/core/rig/rig';
import { useNavigate } from 'react-router';
import { useRig } from '../shared/rig-context.js';
import { ROOMS } from '../shared/rooms.js';

/** Find anything: rooms, boxes, sounds, songs. Ctrl K. */
export const Find = () => {
  const { rig, select } = useRig();
  const navigate = useNavigate();
  const actions: SpotlightActionData[] = [
    ...ROOMS.map(({ path, name }) => ({
      id: path,
      label: name,
      description: 'Room',
      onClick: () => void navigate(path),
    })),
    ...all(rig, 'sound').map((s) => ({
      id: s.id,
      label: s.name,
      description: `Sound, ${s.role}`,
      onClick: () => {
        select(s.id);
        void navigate('sounds');
      },
    })),
    ...all(rig, 'device').map((d) => ({
      id: d.id,
      label: `${d.code} ${d.name}`,
      description: 'Box',
      onClick: () => {
        select(d.id);
        void navigate('kit');
      },
    })),
  ];
  return (
    <Spotlight
      actions={actions}
      shortcut="mod + K"
      nothingFound="Nothing of that name"
      highlightQuery
      limit={12}
      searchProps={{ placeholder: 'A room, a box, a sound', 'aria-label': 'Find anything' }}
    />
  );
};
