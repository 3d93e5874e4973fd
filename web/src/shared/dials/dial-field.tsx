import './dials.css';
import { Button } from '@mantine/core';
import type { DialNote, DialNoteCard } from '@yunta/core/derive/views/dial-notes';
import { readDials } from '@yunta/core/dials/knob-words';
import { dropDialCard, setDials } from '@yunta/core/edits/dial-cards';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse } from '@yunta/core/rig/result';
import { useState } from 'react';
import { useRig } from '../rig-context.js';
import { TypedText } from '../typed-text.js';
import { today } from './today.js';
import { Scales } from './scales.js';

type Dialled = Pick<DialNote, 'device' | 'code' | 'name' | 'isInstrument'>;

/** One line of knobs, read when it is left; what is not understood is kept and said beside it. */
export const DialField = ({ note, card }: { note: Dialled; card: DialNoteCard }) => {
  const { rig, edit } = useRig();
  const [unclear, setUnclear] = useState<readonly string[]>([]);
  const what = `${note.code || note.name}${card.where ? ` ${card.where}` : ''}`;
  const read = (text: string) => {
    const line = readDials(text);
    setUnclear(line.unclear);
    const refused = edit(setDials(rig, note.device, card.in, line.stands, today()), `${what}: where the knobs stand`);
    return refused.length ? refuse(refused) : ok(undefined);
  };
  const told = unclear.length ? unclear : card.unclear;
  const { id } = card;
  return (
    <div>
      {card.where && (
        <div className="dial-where">
          {card.where}
          {id && (
            <Button
              variant="subtle"
              size="compact-xs"
              aria-label={`As always again: ${what}`}
              onClick={() => edit(dropDialCard(id), `${what}: as always again`)}
            >
              As always again
            </Button>
          )}
        </div>
      )}
      <TypedText
        label={`Where the knobs stand: ${what}`}
        placeholder={note.isInstrument ? 'volume 7, pickup neck, capo 2' : "gain 2 o'clock, tone noon, level 3"}
        most={LONGEST.text}
        text={card.line}
        read={read}
      />
      <Scales knobs={card.knobs} />
      {told.map((t) => (
        <p key={t} className="soft dial-unclear" role="status">
          {t}
        </p>
      ))}
      {card.day && <p className="soft dial-unclear">Written {card.day}</p>}
    </div>
  );
};
