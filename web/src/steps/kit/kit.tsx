import './kit.css';
import { Button } from '@mantine/core';
import { saysNumbers } from '@yunta/core/midi/numbering';
import { addMade } from '@yunta/core/edits/devices';
import { blankBox } from '@yunta/core/catalogue/box-parts';
import type { Power } from '@yunta/core/derive/views/power';
import { ZONES, type Device } from '@yunta/core/rig/device';
import { all, rigName } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { Gig } from './gig/gig.js';
import { PasteKit } from './paste-kit.js';
import { useRig } from '../../shared/rig-context.js';
import { usePower } from '../../shared/use-power.js';
import { countText } from '../../shared/outputs-text.js';
import { fileName, saveFile } from '../../shared/save-file.js';
import { newPartId } from '../../session/ids.js';
import { BoxInspector, wakesText } from './box-inspector.js';
import { BoxEditor } from './box/editor.js';
import { TagSign } from '../../shared/tag-sign.js';
import { doesText } from '../../shared/does-text.js';
import { useShelf } from './use-shelf.js';
import { ZONE_NAMES } from './zone-names.js';
import { KitLine } from './kit-line.js';

const midiText = (device: Device): string => {
  if (!device.midi)
    return device.memories.some((m) => m.by === 'slot') && device.jacks.some((j) => j.kind === 'midi') ? 'sends' : '';
  const memory = device.memories[0];
  return `${device.midi.omni ? 'all' : device.midi.channel}${memory ? ` · ${saysNumbers(memory.shows, memory.size)}` : ''}`;
};

/** The boxes, or what a kind of gig asks of them. */
export const Kit = () => {
  const [params] = useSearchParams();
  return params.get('show') === 'gig' ? <Gig /> : <KitRoom />;
};

const KitRoom = () => {
  const { rig, selected, select, edit } = useRig();
  const devices = all(rig, 'device');
  const chosen = devices.find((d) => d.id === selected);
  const [params] = useSearchParams();
  const [pasting, paste] = useState(params.has('paste'));
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
            <Button size="xs" variant="default" component={Link} to="?show=gig">
              The gig
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
        {devices.length > 0 && <OutputsCounted />}
        {pasting ? <PasteKit done={() => paste(false)} /> : <KitLine />}
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

/**
 * Whether the supplies suffice for what was chosen so far; the room beside says how. It keeps its line while it is
 * worked out, so that nothing below it moves under a finger.
 */
const OutputsCounted = () => {
  const { power } = usePower(false);
  return <p className="outputs-counted">{power && power.boxes > 0 && <Outputs power={power} />}</p>;
};

const Outputs = ({ power }: { power: Power }) => {
  const lacks = power.outputs.there > 0 && power.left.length > 0;
  const text = `${countText(power)}${lacks ? `, but none for ${power.left.map((b) => b.code).join(', ')}` : ''}`;
  return (
    <Link to="../power" className={lacks ? 'broken' : 'soft'} title={text}>
      {text}
    </Link>
  );
};

/** The kit as it stands, zone by zone from the hands to the house; one box can be chosen. */
const Boxes = ({ devices }: { devices: readonly Device[] }) => (
  <div className="zones">
    {ZONES.map((zone) => {
      const here = devices.filter((d) => d.zone === zone);
      return here.length === 0 ? null : (
        <section key={zone} className="zone" aria-label={ZONE_NAMES[zone]}>
          <h2>{ZONE_NAMES[zone]}</h2>
          <ul>
            {here.map((d) => (
              <Box key={d.id} device={d} />
            ))}
          </ul>
        </section>
      );
    })}
  </div>
);

/** How most boxes are when they are switched on; only the others say it. */
const AS_MOST = 'as you left it';

const Box = ({ device }: { device: Device }) => {
  const { selected, select } = useRig();
  const does = doesText(device);
  const isSaid = device.name.toLowerCase().includes(does);
  const midi = midiText(device);
  const wakes = wakesText(device);
  return (
    <li className={device.id === selected ? 'box-tile chosen' : 'box-tile'}>
      <TagSign code={device.code} />
      <button
        type="button"
        aria-pressed={device.id === selected}
        aria-label={`${device.code}, ${device.name}: show it`}
        title={device.name}
        onClick={() => select(device.id)}
      >
        <span className="box-name">{device.name}</span>
      </button>
      {!isSaid && <span className="soft">{does}</span>}
      {midi && <span className="soft">MIDI {midi}</span>}
      {wakes && wakes !== AS_MOST && <span className="soft">switched on: {wakes}</span>}
    </li>
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
        <p className="soft">Eleven ways to wire a rig say what they need and add it.</p>
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
