import { Select } from '@mantine/core';
import { dialNotes } from '@yunta/core/derive/views/dial-notes';
import type { Sound } from '@yunta/core/rig/sound';
import { useState } from 'react';
import { Link } from 'react-router';
import { DialField } from '../../shared/dials/dial-field.js';
import { useRig } from '../../shared/rig-context.js';

/** What hands do in one sound: at the instrument, and at knobs that no memory holds. */
export const Hands = ({ sound }: { sound: Sound }) => {
  const { rig } = useRig();
  const [more, setMore] = useState<readonly string[]>([]);
  const notes = dialNotes(rig);
  const cardOf = (note: (typeof notes)[number]) =>
    note.cards.find((c) => c.in.sound === sound.id) ?? {
      in: { sound: sound.id },
      where: `in ${sound.name}`,
      line: '',
      knobs: [],
      unclear: [],
    };
  const isShown = (note: (typeof notes)[number]): boolean =>
    note.device === undefined || cardOf(note).line !== '' || more.includes(note.device);
  return (
    <section>
      <h2>Hands in this sound</h2>
      {notes.filter(isShown).map((note) => (
        <div key={note.device ?? 'hand'} className="sound-hands">
          <span className="soft">{note.code || 'At the instrument'}</span>
          <DialField note={note} card={{ ...cardOf(note), where: '' }} />
        </div>
      ))}
      <Select
        size="xs"
        aria-label="A box whose knobs stand otherwise in this sound"
        placeholder="Turn a knob of …"
        searchable
        value={null}
        data={notes.flatMap((n) =>
          n.device && !isShown(n) ? [{ value: n.device, label: `${n.code} ${n.name}` }] : [],
        )}
        onChange={(v) => v && setMore([...more, v])}
      />
      <p className="soft" style={{ margin: '6px 0 0' }}>
        What holds in all sounds stands in <Link to="../program?show=knobs">Program, Knobs and hands</Link>.
      </p>
    </section>
  );
};
