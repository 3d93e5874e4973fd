import { Button, Textarea } from '@mantine/core';
import { LARGEST_TABLE, MOST_ROWS } from '@yunta/core/formats/cells';
import type { Id } from '@yunta/core/rig/ids';
import type { Refusal } from '@yunta/core/rig/result';
import { everyPart } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';

const MOST_SAID = 6;

/**
 * Cables pasted from a spreadsheet or a CSV file: all of them are taken, or nothing and the reasons row by row.
 */
export const PasteCables = ({ hookup, done }: { hookup: Id<'hookup'>; done: () => void }) => {
  const { edit, rig, ask } = useRig();
  const [reading, setReading] = useState(false);
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<readonly Refusal[]>([]);
  const tooLarge =
    text.length > LARGEST_TABLE
      ? `${text.length.toLocaleString('en')} characters; at most ${LARGEST_TABLE.toLocaleString('en')} are taken at once. Paste it in parts.`
      : undefined;
  const take = async () => {
    setReading(true);
    const result = await ask.answers.readCables(hookup, everyPart(rig), text);
    setReading(false);
    const refused = result.ok ? edit(result.value, 'Plug these') : result.error;
    setWrong(refused);
    if (refused.length === 0) done();
  };
  return (
    <div className="card" style={{ marginTop: 10 }}>
      <Textarea
        label="Paste a table: from box, from jack, to box, to jack, metres, label"
        description={`From a spreadsheet or a CSV file, with or without its heading. At most ${MOST_ROWS} rows at once.`}
        error={tooLarge}
        autosize
        minRows={3}
        maxRows={10}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)' } }}
      />
      {wrong.length > 0 && (
        <div role="alert">
          <p className="broken" style={{ margin: '8px 0 0' }}>
            Nothing was taken.
          </p>
          <ul style={{ margin: '4px 0 0', paddingLeft: 18 }}>
            {wrong.slice(0, MOST_SAID).map((w) => (
              <li key={`${w.where} ${w.wrong}`}>
                {w.where ? `${w.where}: ` : ''}
                {w.wrong} {w.would}
              </li>
            ))}
          </ul>
          {wrong.length > MOST_SAID && <p className="soft">and {wrong.length - MOST_SAID} more</p>}
        </div>
      )}
      <div style={{ display: 'flex', gap: 8, marginTop: 8 }}>
        <Button size="xs" disabled={reading || !!tooLarge || !text.trim()} onClick={() => void take()}>
          {reading ? 'Reading …' : 'Plug these'}
        </Button>
        <Button size="xs" variant="default" onClick={done}>
          Cancel
        </Button>
      </div>
    </div>
  );
};
