import { Button, FileButton } from '@mantine/core';
import { readShelfFile, writeShelfFile } from '@yunta/core/formats/shelf-file';
import type { Device } from '@yunta/core/rig/device';
import { sayRefusal } from '@yunta/core/rig/result';
import { useState } from 'react';
import { saveFile } from '../../shared/save-file.js';
import { doesText } from '../../shared/does-text.js';
import { useShelf } from './use-shelf.js';

/** Boxes of one's own, for use in any rig; as a file from and to others. */
export const MyShelf = ({ wanted, add }: { wanted: string; add: (box: Device) => void }) => {
  const { boxes, away, shelve, takeOff, taken, putBack, trouble } = useShelf();
  const [wrong, setWrong] = useState<string>();
  const shown = boxes.filter(({ box }) => !wanted || `${box.code} ${box.name}`.toLowerCase().includes(wanted));
  const bring = async (file: File | null) => {
    const read = file && readShelfFile(await file.text());
    if (!read) return;
    setWrong(read.ok ? undefined : `Nothing was put on the shelf. ${read.error.slice(0, 3).map(sayRefusal).join(' ')}`);
    if (read.ok) read.value.forEach(shelve);
  };
  return (
    <section style={{ marginBottom: 16 }}>
      <h2>My shelf</h2>
      {away && <p className="soft">The server does not answer; the shelf is there again when it does.</p>}
      {!away && boxes.length === 0 && (
        <p className="soft" style={{ margin: '0 0 8px' }}>
          Nothing yet. Open a box, change it, and save it to your shelf.
        </p>
      )}
      <table className="plain">
        <tbody>
          {shown.map((entry) => (
            <tr key={entry.key}>
              <td className="mono" style={{ width: 56 }}>
                <strong>{entry.box.code}</strong>
              </td>
              <td>
                {entry.box.name}
                <div className="soft" style={{ fontSize: 13 }}>
                  {doesText(entry.box)}
                </div>
              </td>
              <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
                <Button
                  variant="default"
                  size="compact-xs"
                  aria-label={`Add ${entry.box.name} from my shelf`}
                  onClick={() => add(entry.box)}
                >
                  Add
                </Button>{' '}
                <Button
                  variant="default"
                  size="compact-xs"
                  aria-label={`Take ${entry.box.name} off my shelf`}
                  onClick={() => takeOff(entry)}
                >
                  Take off
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {taken && (
        <p className="soft">
          {taken.box.name} is off the shelf.{' '}
          <button type="button" className="link" onClick={putBack}>
            Put it back
          </button>
        </p>
      )}
      {(wrong ?? trouble) && (
        <p role="alert" className="broken">
          {wrong ?? trouble}
        </p>
      )}
      <div style={{ display: 'flex', gap: 8, marginTop: 8 }}>
        <FileButton accept=".json,application/json" onChange={(file) => void bring(file)}>
          {(props) => (
            <Button size="compact-sm" variant="default" {...props}>
              From a shelf file
            </Button>
          )}
        </FileButton>
        {boxes.length > 0 && (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => saveFile('shelf.yunta.json', writeShelfFile(boxes.map((b) => b.box)), 'application/json')}
          >
            Save as a shelf file
          </Button>
        )}
      </div>
    </section>
  );
};
