import { Button, NativeSelect } from '@mantine/core';
import { figuresOf, withFigure, type Figure } from '@yunta/core/catalogue/figures';
import type { Device } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { sayRefusal } from '@yunta/core/rig/result';
import { useId, useState } from 'react';
import { TextField } from '../../shared/text-field.js';

/**
 * What neither the lines nor the tables of a box say, row by row, with what reckons with it; more can be written down.
 */
export const BoxFigures = ({ device, save }: { device: Device; save: (device: Device) => void }) => {
  const [added, setAdded] = useState<readonly string[]>([]);
  const figures = figuresOf(device);
  const written = figures.filter((f) => f.text !== '' || added.includes(f.key));
  const open = figures.filter((f) => !written.includes(f));
  const [chosen, setChosen] = useState('');
  const next = open.some((f) => f.key === chosen) ? chosen : (open[0]?.key ?? '');
  const places = [...new Set(open.map((f) => f.where))];
  return (
    <section className="card">
      <h2>Figures inside</h2>
      <p className="soft" style={{ margin: '2px 0 6px' }}>
        What is not used yet is kept with the box. {written.length === 0 && 'Nothing is written down.'}
      </p>
      {written.length > 0 && (
        <table className="plain tight">
          <thead>
            <tr>
              <th>of</th>
              <th>figure</th>
              <th>is</th>
              <th>used for</th>
            </tr>
          </thead>
          <tbody>
            {written.map((f) => (
              <FigureRow key={f.key} figure={f} device={device} save={save} />
            ))}
          </tbody>
        </table>
      )}
      <div className="figure-choice">
        <NativeSelect
          size="xs"
          aria-label="Figure to write down"
          value={next}
          onChange={(e) => setChosen(e.currentTarget.value)}
          data={places.map((group) => ({
            group,
            items: open.filter((f) => f.where === group).map((f) => ({ value: f.key, label: `${f.where}: ${f.what}` })),
          }))}
        />
        <Button size="compact-sm" variant="default" onClick={() => setAdded([...added, next])}>
          Write it down
        </Button>
      </div>
    </section>
  );
};

/** A figure is kept as soon as it can be read; what cannot be read stays in its field with the reason. */
const FigureRow = ({ figure, device, save }: { figure: Figure; device: Device; save: (device: Device) => void }) => {
  const [typed, setTyped] = useState<string>();
  const about = useId();
  const wish = typed === undefined ? undefined : withFigure(device, figure.key, typed);
  const type = (text: string) => {
    setTyped(text);
    const done = withFigure(device, figure.key, text);
    if (done.ok) save(done.value);
  };
  return (
    <tr>
      <td>{figure.where}</td>
      <td>{figure.what}</td>
      <td>
        <TextField
          most={LONGEST.name}
          size="xs"
          aria-label={`${figure.where}, ${figure.what}`}
          aria-describedby={about}
          placeholder={figure.like}
          value={typed ?? figure.text}
          onChange={(e) => type(e.currentTarget.value)}
          onBlur={() => wish?.ok && setTyped(undefined)}
          error={wish && !wish.ok ? wish.error.map(sayRefusal).join(' ') : undefined}
        />
      </td>
      <td id={about} className={figure.usedFor ? '' : 'soft'}>
        {figure.usedFor ?? 'not used yet'}
      </td>
    </tr>
  );
};
