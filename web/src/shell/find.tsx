import { Spotlight, type SpotlightActionData } from '@mantine/spotlight';
import { ref } from '@yunta/core/rig/ids';
import { all, type Rig } from '@yunta/core/rig/rig';
import { useNavigate } from 'react-router';
import { useRig } from '../shared/rig-context.js';
import { ROOMS, roomOf, VIEWS } from '../shared/rooms.js';

/** Something that can be done from every room. */
export interface Doing {
  readonly name: string;
  readonly what: string;
  readonly act: () => void;
}

/** What a hook-up sets once and for all: channels, modes, switches on the back. */
const settingsOf = (rig: Rig): readonly { readonly control: string; readonly text: string }[] =>
  all(rig, 'device').flatMap((d) =>
    d.controls
      .filter((c) => c.use === 'setting')
      .map((c) => ({ control: ref(d.id, c.id), text: `${d.code} ${c.name ?? c.id}` })),
  );

/** Find anything: rooms, views, sounds, boxes, songs, hook-ups, findings, what can be done. Ctrl K, wherever one writes. */
export const Find = ({ doings }: { doings: readonly Doing[] }) => {
  const { rig, view, select, point, chooseHookup } = useRig();
  const navigate = useNavigate();
  const actions: SpotlightActionData[] = [
    ...ROOMS.map(({ path, name }) => ({
      id: path,
      label: name,
      description: 'Room',
      onClick: () => void navigate(path),
    })),
    ...VIEWS.map(({ to, name, what }) => ({
      id: to,
      label: name,
      description: what,
      onClick: () => void navigate(to),
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
    ...all(rig, 'song').map((s) => ({
      id: s.id,
      label: s.title,
      description: 'Song',
      onClick: () => void navigate('set?show=songs'),
    })),
    ...all(rig, 'song').flatMap((s) =>
      s.cues.map((cue, i) => ({
        id: `${s.id} ${i}`,
        label: `${cue.name}, ${s.title}`,
        description: 'Cue of a song',
        onClick: () => void navigate('set?show=songs'),
      })),
    ),
    ...all(rig, 'move').map((m) => ({
      id: m.id,
      label: m.name,
      description: 'Move',
      onClick: () => void navigate('sounds?show=moves'),
    })),
    ...settingsOf(rig).map(({ control, text }) => ({
      id: `setting ${control}`,
      label: text,
      description: 'Setting, set once in a hook-up',
      onClick: () => void navigate('routing?show=hookups'),
    })),
    ...all(rig, 'hookup').map((h) => ({
      id: h.id,
      label: h.name,
      description: 'Hook-up: look at the rig as it is wired there',
      onClick: () => chooseHookup(h.id),
    })),
    ...(view?.findings ?? []).map((f) => ({
      id: f.fingerprint,
      label: f.title,
      description: f.why,
      onClick: () => {
        point(f.evidence);
        void navigate(roomOf(f.code) ?? '.');
      },
    })),
    ...doings.map(({ name, what, act }) => ({ id: name, label: name, description: what, onClick: act })),
  ];
  return (
    <Spotlight
      tagsToIgnore={[]}
      actions={actions}
      shortcut="mod + K"
      nothingFound="Nothing of that name"
      highlightQuery
      limit={12}
      searchProps={{
        placeholder: 'A room, a sound, a box, a song, a cue, a finding, something to do',
        'aria-label': 'Find anything',
      }}
    />
  );
};
