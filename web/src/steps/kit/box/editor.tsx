import { Button, Tabs, Textarea } from '@mantine/core';
import { addChain } from '@yunta/core/catalogue/inside-edits';
import { insideText, readInside } from '@yunta/core/catalogue/inside';
import { rebuildDevice } from '@yunta/core/edits/devices';
import type { Device } from '@yunta/core/rig/device';
import { sayRefusal, type Refusal } from '@yunta/core/rig/result';
import { useEffect, useRef, useState } from 'react';
import { useRig } from '../../../shared/rig-context.js';
import { Controls } from './controls.js';
import { ChosenPart } from './chosen.js';
import { Ends } from './ends.js';
import { BoxFigures } from './figures.js';
import { InsideDrawn, type Chosen } from './inside-drawn.js';
import { Jacks } from './jacks.js';
import { Plate } from './plate.js';
import { Programs } from './programs.js';
import { Switches } from './switches.js';
import { useDraft, type Draft } from './use-draft.js';

const MOST_SAID = 5;

/**
 * All of a box. Its inside is drawn as signal runs and built in the drawing; what is chosen there can be said below it,
 * then by topics what else it has. A draft until it is kept.
 */
export const BoxEditor = ({
  device: start,
  close,
  shelve,
  shelved,
}: {
  device: Device;
  close: () => void;
  shelve: (device: Device) => void;
  shelved: boolean;
}) => {
  const { rig, edit } = useRig();
  const top = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    void top.current?.scrollIntoView({ block: 'end' });
  }, []);
  const draft = useDraft(rig, start);
  const { device, refused, undo } = draft;
  const keep = () => {
    const done = rebuildDevice(rig, device, draft.renamed);
    if (edit(done, `Rebuild ${device.code} ${device.name}`).length === 0) close();
  };
  return (
    <div className="box-editor">
      <div className="headline">
        <h1 ref={top}>
          <span className="mono">{device.code}</span> {device.name}
        </h1>
        {shelved && (
          <span className="soft" role="status">
            on your shelf
          </span>
        )}
        <div className="tools">
          <Button size="xs" variant="default" disabled={!undo} onClick={undo}>
            Step back
          </Button>
          <Button size="xs" variant="default" disabled={refused.length > 0} onClick={() => shelve(device)}>
            Save to my shelf
          </Button>
          <Button size="xs" variant="default" onClick={close}>
            Leave it as it was
          </Button>
          <Button size="xs" disabled={refused.length > 0} onClick={keep}>
            Keep
          </Button>
        </div>
      </div>
      {refused.length > 0 && <Refused refused={refused} />}
      <InsideOf draft={draft} />
      <Topics draft={draft} />
    </div>
  );
};

const InsideOf = ({ draft }: { draft: Draft }) => {
  const { device, change } = draft;
  const [chosen, choose] = useState<Chosen>();
  return (
    <section className="card">
      <h2>Inside</h2>
      <InsideDrawn device={device} change={change} chosen={chosen} choose={choose} />
      <ChosenPart draft={draft} chosen={chosen} choose={choose} />
      <div className="part-head">
        <Button size="compact-sm" variant="default" onClick={() => change(addChain(device))}>
          Another way through the box
        </Button>
        <AsLines draft={draft} />
      </div>
    </section>
  );
};

const Topics = ({ draft }: { draft: Draft }) => {
  const { device, change } = draft;
  return (
    <Tabs defaultValue="jacks" keepMounted={false}>
      <Tabs.List>
        <Tabs.Tab value="jacks">Jacks</Tabs.Tab>
        <Tabs.Tab value="controls">Controls</Tabs.Tab>
        <Tabs.Tab value="switches">Switches and messages</Tabs.Tab>
        <Tabs.Tab value="programs">Programs and MIDI</Tabs.Tab>
        <Tabs.Tab value="ends">Where it is heard</Tabs.Tab>
        <Tabs.Tab value="plate">Plate and figures</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="jacks">
        <Jacks draft={draft} />
      </Tabs.Panel>
      <Tabs.Panel value="controls">
        <Controls draft={draft} />
      </Tabs.Panel>
      <Tabs.Panel value="switches">
        <Switches device={device} change={change} />
      </Tabs.Panel>
      <Tabs.Panel value="programs">
        <Programs device={device} change={change} />
      </Tabs.Panel>
      <Tabs.Panel value="ends">
        <Ends device={device} save={(ends) => change({ ...device, ends })} />
      </Tabs.Panel>
      <Tabs.Panel value="plate">
        <Plate device={device} change={change} />
        <BoxFigures device={device} save={change} />
      </Tabs.Panel>
    </Tabs>
  );
};

/** The inside as lines of text, for whoever types faster than they click; the drawing follows as they are typed. */
const AsLines = ({ draft }: { draft: Draft }) => {
  const { device, change } = draft;
  const [typed, setTyped] = useState<string>();
  const inside = typed === undefined ? undefined : readInside(typed, device.chains);
  const type = (text: string) => {
    setTyped(text);
    const read = readInside(text, device.chains);
    if (read.ok) change({ ...device, chains: read.value }, 'lines');
  };
  return (
    <details className="as-lines">
      <summary>Written as lines</summary>
      <Textarea
        aria-label="Chains, one a line"
        autosize
        minRows={2}
        maxRows={14}
        value={typed ?? insideText(device.chains)}
        onChange={(e) => type(e.currentTarget.value)}
        onBlur={() => inside?.ok !== false && setTyped(undefined)}
        spellCheck={false}
        styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)', fontSize: 13 } }}
        error={inside?.ok === false && inside.error.map(sayRefusal).join(' ')}
      />
      <HowToWrite />
    </details>
  );
};

/** Why what is there is not yet a box that can be kept. */
const Refused = ({ refused }: { refused: readonly Refusal[] }) => (
  <div className="card alarm refused" role="status">
    <strong>Not yet a box that can be kept.</strong>
    <ul>
      {refused.slice(0, MOST_SAID).map((r) => (
        <li key={`${r.where} ${r.wrong}`}>
          {r.where ? `${r.where}: ` : ''}
          {r.wrong} {r.would}
        </li>
      ))}
    </ul>
    {refused.length > MOST_SAID && <span className="soft">and {refused.length - MOST_SAID} more</span>}
  </div>
);

const HowToWrite = () => (
  <div className="soft how-to-write">
    <p>
      A line that works:{' '}
      <code>path: in &gt; overdrive [on=on] &gt; loop1:&lt;send1 / return1&gt; [loop1=on] &gt; out</code>. One way a
      line. Jacks that share a way are joined by <code>+</code>, a side is <code>@left</code> or <code>@right</code>.
    </p>
    <p>
      When: <code>overdrive [on=on]</code>, <code>in-l [in-r unplugged]</code> (a normal), <code>[mix=0..50]</code>.
      How: <code>delay (spread)</code>, <code>(sum)</code>, <code>(each)</code>.
    </p>
    <p>
      A loop that is silent while nothing is plugged in has <code>(broken)</code>, one with direct sound beside it{' '}
      <code>(direct)</code>. A split:{' '}
      <code>channel:{'{ clean [channel=clean]: preamp | lead [channel=lead]: preamp > boost }'}</code>.
    </p>
  </div>
);
