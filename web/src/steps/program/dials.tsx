import { Select } from '@mantine/core';
import { caseWords, dialNotes, type DialNote, type DialNoteCard } from '@yunta/core/derive/views/dial-notes';
import { dialDays, dialsCompared } from '@yunta/core/dials/dial-cards';
import type { DialCase } from '@yunta/core/rig/dial-card';
import { all, partOf, soundsInOrder, type Rig } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { Paper } from '../../shared/paper/paper.js';
import { useRig } from '../../shared/rig-context.js';
import { DialField } from '../../shared/dials/dial-field.js';
import { Scales } from '../../shared/dials/scales.js';

/**
 * What no memory holds: where knobs stand and what hands do, a line a box, as one dictates it with the board in front
 * of one.
 */
export const Dials = () => {
  const { rig } = useRig();
  const [then, setThen] = useState<string | null>(null);
  const notes = dialNotes(rig);
  const days = dialDays(rig);
  const written = notes.filter((n) => n.cards.some((c) => c.line));
  return (
    <>
      <div className="dials no-print">
        <p className="soft" style={{ margin: 0, maxWidth: '68ch' }}>
          Where knobs and switches stand that no memory holds. Say them in one line: gain 2 o’clock, tone noon, level 3.
          A number counts to ten. The bars begin at 7 o’clock and end at 5 o’clock. What differs in one sound is turned
          by your hand, and Proof says so.
        </p>
        {days.length > 1 && (
          <div className="dials-how">
            <Select
              size="xs"
              label="Compare with the day"
              placeholder="no other day"
              clearable
              value={then}
              onChange={setThen}
              data={days.slice(1)}
            />
          </div>
        )}
        {then !== null && days[0] !== undefined && <Compared then={then} now={days[0]} />}
        <div className="card" style={{ padding: '4px 18px' }}>
          {notes.map((note) => (
            <Note key={note.device ?? 'hand'} note={note} />
          ))}
        </div>
      </div>
      <Paper title="Where the knobs stand">
        {written.length === 0 ? (
          <p>Nothing is written down yet.</p>
        ) : (
          written.map((n) => <OnPaper key={n.name} note={n} />)
        )}
      </Paper>
    </>
  );
};

const Note = ({ note }: { note: DialNote }) => {
  const { rig } = useRig();
  const [begun, setBegun] = useState<DialCase>();
  const { device, code, name, held } = note;
  const what = code || name;
  const isWritten = begun && note.cards.some((c) => caseWords(rig, c.in) === caseWords(rig, begun));
  const cards: readonly DialNoteCard[] = [
    ...note.cards,
    ...(begun && !isWritten ? [{ in: begun, where: caseWords(rig, begun), line: '', knobs: [], unclear: [] }] : []),
  ];
  return (
    <section className="dial-note" aria-label={name}>
      <div>
        <h2>
          {code || name}
          <small>{code ? name : 'Pickup, volume, tone, capo, slide'}</small>
        </h2>
        <Select
          size="xs"
          aria-label={`Where ${what} stands otherwise`}
          placeholder="Otherwise in …"
          searchable
          value={null}
          data={casesOf(rig, device)}
          onChange={(v) => v && setBegun(caseOf(v))}
        />
      </div>
      <div className="dial-cards">
        {cards.map((card) => (
          <DialField key={card.where} note={note} card={card} />
        ))}
        {held.length > 0 && (
          <p className="soft dial-unclear">
            Its programs hold {held.slice(0, 4).join(', ')}
            {held.length > 4 ? ' and more' : ''}: say those in Sounds.
          </p>
        )}
      </div>
    </section>
  );
};

/** A case as a choice: what kind of thing it is, and which. */
const caseOf = (choice: string): DialCase => {
  const kind = choice.slice(0, choice.indexOf(' ')) as keyof DialCase;
  return { [kind]: choice.slice(kind.length + 1) };
};

const casesOf = (rig: Rig, device: DialNote['device']) =>
  [
    { group: 'In a sound', items: soundsInOrder(rig).map((s) => ({ value: `sound ${s.id}`, label: s.name })) },
    { group: 'In a song', items: all(rig, 'song').map((s) => ({ value: `song ${s.id}`, label: s.title })) },
    {
      group: 'With an instrument',
      items: all(rig, 'device')
        .filter((d) => d.id !== device && d.zone === 'hands' && d.ends?.some((e) => e.is === 'source'))
        .map((d) => ({ value: `instrument ${d.id}`, label: d.name })),
    },
    { group: 'In a hook-up', items: all(rig, 'hookup').map((h) => ({ value: `hookup ${h.id}`, label: h.name })) },
  ].filter((g) => g.items.length > 0);

const cardName = (rig: Rig, { device, where }: { device: DialNote['device']; where: string }): string =>
  `${device === undefined ? 'Instrument in hand' : (partOf(rig, device)?.code ?? '')}${where ? ` ${where}` : ''}`;

/** What stood elsewhere on another day. */
const Compared = ({ then, now }: { then: string; now: string }) => {
  const { rig } = useRig();
  const differences = dialsCompared(rig, then, now);
  if (differences.length === 0) return <p role="status">Nothing stands elsewhere than on {then}.</p>;
  return (
    <table className="plain">
      <caption>What stands elsewhere than on {then}</caption>
      <thead>
        <tr>
          <th>box</th>
          <th>knob</th>
          <th>{then}</th>
          <th>{now}</th>
        </tr>
      </thead>
      <tbody>
        {differences.map(({ card, knob, then: before, now: after }) => (
          <tr key={`${card.id} ${knob}`}>
            <td>{cardName(rig, { device: card.device, where: caseWords(rig, card.in ?? {}) })}</td>
            <td>{knob}</td>
            <td>{before ?? 'not said'}</td>
            <td>{after ?? 'not said'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
};

const OnPaper = ({ note }: { note: DialNote }) => (
  <section>
    <h2>
      {note.code} {note.name}
    </h2>
    {note.cards
      .filter((c) => c.line)
      .map((c) => (
        <div key={c.where}>
          {c.where && <p>{c.where}</p>}
          <Scales knobs={c.knobs} />
        </div>
      ))}
  </section>
);
