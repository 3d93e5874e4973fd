import { Button, NumberInput, Textarea } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { withChannel } from '@yunta/core/catalogue/box-parts';
import { insideText, readInside } from '@yunta/core/catalogue/inside';
import { apply } from '@yunta/core/change/apply';
import { changeDevice } from '@yunta/core/edits/devices';
import { ZONES, type Device } from '@yunta/core/rig/device';
import type { Refusal } from '@yunta/core/rig/result';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { Inside } from '../../picture/inside.js';
import { Controls } from './box-controls.js';
import { BoxFigures } from './box-figures.js';
import { Ends } from './box-ends.js';
import { Jacks } from './box-jacks.js';
import { ZONE_NAMES } from './zone-names.js';
import { TextField } from '../../shared/text-field.js';
import { Choice } from '../../shared/choice.js';

const ORIGINS = [
  { value: 'assumed', label: 'assumed' },
  { value: 'maker', label: "the maker's figure" },
  { value: 'measured', label: 'measured' },
] as const;
const MOST_SAID = 5;

/**
 * All of a box: its jacks, what lies between them as lines that are drawn while they are typed, its controls, its
 * figures. A draft until it is kept.
 */
export const BoxEditor = ({
  device,
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
  const [draft, setDraft] = useState(device);
  const [lines, setLines] = useState(() => insideText(device.chains));
  const inside = useMemo(() => readInside(lines, draft.chains), [lines, draft.chains]);
  const wish = useMemo(
    (): Device => withChannel(inside.ok ? { ...draft, chains: inside.value } : draft),
    [draft, inside],
  );
  const refused = useMemo((): readonly Refusal[] => {
    if (!inside.ok) return inside.error;
    const applied = apply(rig, changeDevice(wish, {}));
    return applied.ok ? [] : applied.error;
  }, [rig, wish, inside]);
  const change = (part: Partial<Device>) => setDraft({ ...draft, ...part });
  const keep = () => {
    if (edit(changeDevice(wish, {}), `Rebuild ${wish.code} ${wish.name}`).length === 0) close();
  };
  return (
    <div className="box-editor">
      <div className="headline">
        <h1 ref={top}>
          <span className="mono">{draft.code}</span> {draft.name}
        </h1>
        {shelved && (
          <span className="soft" role="status">
            on your shelf
          </span>
        )}
        <div className="tools">
          <Button size="xs" variant="default" disabled={refused.length > 0} onClick={() => shelve(wish)}>
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
      <section className="card">
        <h2>Inside</h2>
        <div className="inside-drawn">
          <Inside chains={wish.chains} />
        </div>
        <Textarea
          aria-label="Chains, one a line"
          autosize
          minRows={2}
          maxRows={14}
          value={lines}
          onChange={(e) => setLines(e.currentTarget.value)}
          spellCheck={false}
          styles={{ input: { fontFamily: 'var(--mantine-font-family-monospace)', fontSize: 13 } }}
          error={!inside.ok}
        />
        <HowToWrite />
      </section>
      <Jacks device={draft} save={(jacks) => change({ jacks })} />
      <Controls device={draft} change={setDraft} />
      <Ends device={wish} save={(ends) => change({ ends })} />
      <Plate device={draft} change={change} />
      <BoxFigures device={wish} save={setDraft} />
    </div>
  );
};

/** Why what is typed is not yet a box that can be kept. */
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
  <details className="soft how-to-write">
    <summary>How to write it</summary>
    <p>
      One chain a line: <code>name: jack &gt; stage &gt; stage &gt; jack</code>. Jacks that share a chain are joined by{' '}
      <code>+</code>, a side is <code>@left</code> or <code>@right</code>.
    </p>
    <p>
      When: <code>overdrive [on=on]</code>, <code>in-l [in-r unplugged]</code> (a normal), <code>[mix=0..50]</code>.
      How: <code>delay (spread)</code>, <code>(sum)</code>, <code>(each)</code>.
    </p>
    <p>
      An insert: <code>loop1:&lt;send1 / return1&gt; [loop1=on]</code>, with <code>(broken)</code> if it is silent while
      nothing is plugged in, <code>(breaks=send)</code>, <code>(direct)</code>. A fork:{' '}
      <code>channel:{'{ clean [channel=clean]: preamp | lead [channel=lead]: preamp > boost }'}</code>.
    </p>
  </details>
);

const Plate = ({ device, change }: { device: Device; change: (part: Partial<Device>) => void }) => {
  const { figures } = device;
  const [w, d, h] = figures.mm ?? [0, 0, 0];
  const side = (i: number, v: number | string) =>
    typeof v === 'number' &&
    change({ figures: { ...figures, mm: [i === 0 ? v : w, i === 1 ? v : d, i === 2 ? v : h] } });
  return (
    <section className="card">
      <h2>Plate and figures</h2>
      <div className="plate">
        <TextField
          most={LONGEST.name}
          size="xs"
          label="Name"
          value={device.name}
          onChange={(e) => change({ name: e.currentTarget.value })}
        />
        <TextField
          most={LONGEST.code}
          size="xs"
          label="Code"
          value={device.code}
          onChange={(e) => change({ code: e.currentTarget.value.toUpperCase() })}
        />
        <Choice
          label="Where it stands"
          data={ZONES.map((z) => ({ value: z, label: ZONE_NAMES[z] }))}
          value={device.zone}
          choose={(zone) => change({ zone })}
        />
        <NumberInput
          size="xs"
          label="Width, mm"
          hideControls
          min={0}
          max={3000}
          value={w || ''}
          onChange={(v) => side(0, v)}
        />
        <NumberInput
          size="xs"
          label="Depth, mm"
          hideControls
          min={0}
          max={3000}
          value={d || ''}
          onChange={(v) => side(1, v)}
        />
        <NumberInput
          size="xs"
          label="Height, mm"
          hideControls
          min={0}
          max={3000}
          value={h || ''}
          onChange={(v) => side(2, v)}
        />
        <NumberInput
          size="xs"
          label="Weight, kg"
          hideControls
          min={0}
          max={200}
          decimalScale={2}
          value={figures.kg ?? ''}
          onChange={(v) => typeof v === 'number' && change({ figures: { ...figures, kg: v } })}
        />
        <Choice
          label="These figures are"
          data={ORIGINS}
          value={figures.origin ?? 'assumed'}
          choose={(origin) => change({ figures: { ...figures, origin } })}
        />
      </div>
      <p className="soft" style={{ margin: '6px 0 0' }}>
        Sizes and weight are not used yet.
      </p>
    </section>
  );
};
