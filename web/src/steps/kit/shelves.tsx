import { Button, Drawer, TextInput } from '@mantine/core';
import { SHELVES } from '@yunta/core/catalogue/boxes';
import type { Generic } from '@yunta/core/catalogue/parts';
import type { Device } from '@yunta/core/rig/device';
import { useState } from 'react';
import { doesText } from '../../shared/does-text.js';
import { MyShelf } from './my-shelf.js';
import { theFirst } from '@yunta/core/known/the';

/** The whole catalogue, shelf by shelf, for those who would rather look than say. */
export const Shelves = ({
  opened,
  close,
  add,
  addOwn,
}: {
  opened: boolean;
  close: () => void;
  add: (box: Generic) => void;
  addOwn: (box: Device) => void;
}) => {
  const [words, setWords] = useState('');
  const wanted = words.trim().toLowerCase();
  const shown = SHELVES.map((s) => ({
    ...s,
    boxes: s.boxes.filter(
      (g) => !wanted || [s.name, g.box.code, ...g.says].some((t) => t.toLowerCase().includes(wanted)),
    ),
  })).filter((s) => s.boxes.length);
  return (
    <Drawer opened={opened} onClose={close} position="right" size="lg" title={<strong>The shelves</strong>}>
      <TextInput
        data-autofocus
        aria-label="Find on the shelves"
        placeholder="a word: drive, loop, splitter, bass …"
        value={words}
        onChange={(e) => setWords(e.currentTarget.value)}
        mb={12}
      />
      <MyShelf wanted={wanted} add={addOwn} />
      {shown.length === 0 && <p>Nothing on the shelves is called “{words.trim()}”.</p>}
      {shown.map((shelf) => (
        <section key={shelf.name} style={{ marginBottom: 16 }}>
          <h2>{shelf.name}</h2>
          <table className="plain">
            <tbody>
              {shelf.boxes.map((g) => (
                <tr key={g.key}>
                  <td className="mono" style={{ width: 56 }}>
                    <strong>{g.box.code}</strong>
                  </td>
                  <td>
                    {g.says[0]}
                    <div className="soft" style={{ fontSize: 13 }}>
                      {doesText(g.box)}
                    </div>
                  </td>
                  <td style={{ textAlign: 'right', width: 70 }}>
                    <Button
                      variant="default"
                      size="compact-xs"
                      aria-label={`Add ${theFirst(g.says)}`}
                      onClick={() => add(g)}
                    >
                      Add
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </Drawer>
  );
};
