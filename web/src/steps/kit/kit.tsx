import './kit.css';
import { Button, Textarea } from '@mantine/core';
import { understand, type Understood } from '@yunta/core/catalogue/kit-line';
import { saysNumbers } from '@yunta/core/midi/numbering';
import { together } from '@yunta/core/change/edit';
import { addDevice, addMade } from '@yunta/core/edits/devices';
import { blankBox } from '@yunta/core/catalogue/box-parts';
import { ZONES, type Device } from '@yunta/core/rig/device';
import { all, rigName } from '@yunta/core/rig/rig';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { PasteTable } from '../../shared/paste-table.js';
import { useRig } from '../../shared/rig-context.js';
import { fileName, saveFile } from '../../shared/save-file.js';
import { newPartId } from '../../session/ids.js';
import { BoxInspector, wakesText } from './box-inspector.js';
import { BoxEditor } from './box-editor.js';
import { doesText } from './does-text.js';
import { useShelf } from './use-shelf.js';
import { ZONE_NAMES } from './zone-names.js';
import { Shelves } from './shelves.js';
import { surely, theFirst } from '@yunta/core/known/the';

const midiText = (device: Device): string => {
  if (!device.midi)
    return device.memories.some((m) => m.by === 'slot') && device.jacks.some((j) => j.kind === 'midi') ? 'sends' : '';
  const memory = device.memories[0];
  return `${device.midi.omni ? 'all' : device.midi.channel}${memory ? ` · ${saysNumbers(memory.shows, memory.size)}` : ''}`;
};

export const Kit = () => {
  const { rig, selected, select, edit } = useRig();
  const devices = all(rig, 'device');
  const chosen = devices.find((d) => d.id === selected);
  const [pasting, paste] = useState(false);
  const [opened, open] = useState(false);
  const { shelve, kept } = useShelf();
  const make = () => {
    const id = newPartId('device');
    if (edit(addMade(rig, blankBox(id), id), 'A new box').length > 0) return;
    select(id);
    open(true);
  };
  const save = async () =>
    saveFile(
      `${fileName(rigName(rig), 'kit')}.csv`,
      (await import('@yunta/core/formats/tables')).kitCsv(rig),
      'text/csv',
    );
  if (chosen && opened)
    return (
      <BoxEditor
        key={chosen.id}
        device={chosen}
        close={() => open(false)}
        shelve={shelve}
        shelved={kept?.id === chosen.id}
      />
    );
  return (
    <div className="kit">
      <div>
        <div className="headline">
          <h1>Kit</h1>
          <span className="soft">
            {devices.length} {devices.length === 1 ? 'box' : 'boxes'}
          </span>
          <div className="tools">
            <Button size="xs" variant="default" onClick={make}>
              New box
            </Button>
            <Button size="xs" variant="default" aria-expanded={pasting} onClick={() => paste(!pasting)}>
              Paste a table
            </Button>
            {devices.length > 0 && (
              <Button size="xs" variant="default" onClick={() => void save()}>
                Save as CSV
              </Button>
            )}
          </div>
        </div>
        {pasting ? (
          <PasteTable
            columns="code, name, box, zone, MIDI channel"
            label="Add these boxes"
            of="kit"
            done={() => paste(false)}
          />
        ) : (
          <KitLine />
        )}
        {devices.length === 0 ? (
          <p className="soft" style={{ marginTop: 16 }}>
            Say what you have: an instrument first, then what stands on the floor, the amp and what is heard. Every box
            can be changed afterwards.
          </p>
        ) : (
          <Boxes devices={devices} />
        )}
      </div>
      {chosen ? (
        <BoxInspector key={chosen.id} device={chosen} open={() => open(true)} />
      ) : (
        <NextStep count={devices.length} />
      )}
    </div>
  );
};

/** Every box, zone by zone; one of them can be chosen. */
const Boxes = ({ devices }: { devices: readonly Device[] }) => {
  const { selected, select } = useRig();
  return (
    <div className="card kit-boxes">
      <table className="plain">
        <thead>
          <tr>
            <th>code</th>
            <th>box</th>
            <th>what it is in the path</th>
            <th>MIDI</th>
            <th>wakes up</th>
          </tr>
        </thead>
        {ZONES.map((zone) => {
          const here = devices.filter((d) => d.zone === zone);
          return here.length === 0 ? null : (
            <tbody key={zone}>
              <tr>
                <th colSpan={5} scope="rowgroup">
                  {ZONE_NAMES[zone]}
                </th>
              </tr>
              {here.map((d) => (
                <tr key={d.id} className="kit-row" aria-selected={d.id === selected} onClick={() => select(d.id)}>
                  <td>
                    <button type="button" aria-label={`${d.code}, ${d.name}: show it`}>
                      {d.code}
                    </button>
                  </td>
                  <td className="any-name">{d.name}</td>
                  <td className="soft">{doesText(d)}</td>
                  <td className="mono">{midiText(d)}</td>
                  <td className="soft one-row">{wakesText(d)}</td>
                </tr>
              ))}
            </tbody>
          );
        })}
      </table>
    </div>
  );
};

const NextStep = ({ count }: { count: number }) => {
  const navigate = useNavigate();
  if (count === 0)
    return (
      <aside className="card">
        <h2>How to say it</h2>
        <p className="soft">
          “8-loop switcher, compressor, 2 x low-gain drive, stereo delay midi ch 2”. One per line or with commas; a
          pasted list works too.
        </p>
        <h2>Nothing yet?</h2>
        <p className="soft">Ten ways to wire a rig say what they need and add it.</p>
        <Button variant="default" onClick={() => void navigate('../routing')}>
          Starting points
        </Button>
      </aside>
    );
  return (
    <aside className="card">
      <h2>What next</h2>
      <p className="soft">
        Choose a box to change its name, code, MIDI channel, numbering and what it does at power-up. When the kit is
        complete, wire it.
      </p>
      <Button onClick={() => void navigate('../routing')}>Wire it</Button>
    </aside>
  );
};

const KitLine = () => {
  const { rig, edit } = useRig();
  const [line, setLine] = useState('');
  const [browsing, browse] = useState(false);
  const pieces = useMemo(() => understand(line), [line]);
  const known = pieces.filter((p) => p.box);
  const count = known.reduce((n, p) => n + p.count, 0);
  const add = () => {
    if (count === 0) return;
    const codes: string[] = [];
    const edits = known.flatMap((p) =>
      Array.from({ length: p.count }, () => {
        const made = addDevice(
          rig,
          surely(p.box).key,
          newPartId('device'),
          p.channel ? { channel: p.channel } : {},
          codes,
        );
        codes.push(made.put[0].code);
        return made;
      }),
    );
    const all = together(...edits);
    const wrong = edit(all, count === 1 ? `Add ${surely(theFirst(known).box).says[0]}` : `Add ${count} boxes`);
    if (wrong.length === 0)
      setLine(
        pieces
          .filter((p) => !p.box)
          .map((p) => p.said)
          .join(', '),
      );
  };
  return (
    <div className="card">
      <label htmlFor="kit-line" className="soft">
        Say what you have, as you would say it. Enter adds it; a pasted list works too.
      </label>
      <div style={{ display: 'flex', gap: 12, alignItems: 'flex-start', marginTop: 8 }}>
        <Textarea
          id="kit-line"
          style={{ flex: 1 }}
          size="md"
          autosize
          minRows={1}
          maxRows={8}
          value={line}
          onChange={(e) => setLine(e.currentTarget.value)}
          autoFocus
          onKeyDown={(e) => {
            if (e.key === 'Enter' && !e.shiftKey) {
              e.preventDefault();
              add();
            }
          }}
          placeholder="8-loop switcher, compressor, low-gain drive, stereo delay midi ch 2"
        />
        <Button size="md" disabled={count === 0} onClick={add}>
          {count === 0 ? 'Add boxes' : count === 1 ? 'Add 1 box' : `Add ${count} boxes`}
        </Button>
        <Button size="md" variant="default" onClick={() => browse(true)}>
          Shelves
        </Button>
      </div>
      <Shelves
        opened={browsing}
        close={() => browse(false)}
        add={(g) => edit(addDevice(rig, g.key, newPartId('device')), `Add ${theFirst(g.says)}`)}
        addOwn={(box) => edit(addMade(rig, box, newPartId('device')), `Add ${box.name}`)}
      />
      {pieces.length > 0 && (
        <ul className="pieces" aria-label="What will be added">
          {pieces.map((p, i) => (
            <Piece key={`${i} ${p.said}`} piece={p} replace={(name) => setLine(line.replace(p.said, name))} />
          ))}
        </ul>
      )}
    </div>
  );
};

const Piece = ({ piece, replace }: { piece: Understood; replace: (name: string) => void }) => {
  if (piece.box) {
    const { box } = piece.box;
    return (
      <li>
        <strong>
          {piece.count > 1 ? `${piece.count} × ` : ''}
          {box.name}
        </strong>
        <div className="soft">
          {[
            box.code,
            piece.channel ? `MIDI ${piece.channel}` : box.midi ? `MIDI ${String(box.midi.channel)}` : undefined,
          ]
            .filter(Boolean)
            .join(', ')}
        </div>
      </li>
    );
  }
  return (
    <li className="unknown">
      <strong>“{piece.said}”</strong>
      <div>
        {piece.maybe.length ? (
          <>
            did you mean{' '}
            {piece.maybe.map((m, i) => (
              <span key={m.key}>
                {i > 0 && ', '}
                <button type="button" className="link" onClick={() => replace(theFirst(m.says))}>
                  {theFirst(m.says).toLowerCase()}
                </button>
              </span>
            ))}
            ?
          </>
        ) : (
          'not known; say it more generally'
        )}
      </div>
    </li>
  );
};
