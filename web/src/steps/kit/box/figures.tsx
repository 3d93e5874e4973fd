import { Button, NativeSelect } from '@mantine/core';
import { figuresOf, withFigure, type Figure } from '@yunta/core/catalogue/figures';
import type { Device } from '@yunta/core/rig/device';
import { LONGEST } from '@yunta/core/rig/limits';
import { readWhen, whenWords } from '@yunta/core/catalogue/inside';
import { useState } from 'react';
import { Conditions } from './conditions.js';
import { TypedText } from '../../../shared/typed-text.js';

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

/** The figures of one thing in a box, where it is chosen: those written down, and the others to be written down. */
export const FiguresAt = ({ device, at, save }: { device: Device; at: string; save: (device: Device) => void }) => {
  const [added, setAdded] = useState<readonly string[]>([]);
  const figures = figuresOf(device).filter((f) => f.key.startsWith(`${at}: `));
  const written = figures.filter((f) => f.text !== '' || added.includes(f.key));
  const open = figures.filter((f) => !written.includes(f));
  if (figures.length === 0) return null;
  return (
    <div className="figures-at">
      {written.map((f) => (
        <label key={f.key} className="part-line">
          <span className="soft">{f.what}</span>
          <FigureField figure={f} device={device} save={save} />
        </label>
      ))}
      {open.length > 0 && (
        <NativeSelect
          size="xs"
          aria-label={`Say more of ${figures[0]?.where ?? at}`}
          value=""
          onChange={(e) => setAdded([...added, e.currentTarget.value])}
          data={[{ value: '', label: 'Say more …' }, ...open.map((f) => ({ value: f.key, label: f.what }))]}
        />
      )}
    </div>
  );
};

const FigureField = ({ figure, device, save }: { figure: Figure; device: Device; save: (device: Device) => void }) => {
  const read = (text: string) => {
    const done = withFigure(device, figure.key, text);
    if (done.ok) save(done.value);
    return done;
  };
  const label = `${figure.where}, ${figure.what}`;
  if (figure.isWhen)
    return (
      <Conditions
        device={device}
        of={label}
        when={readWhen(figure.text)}
        always="not said"
        save={(when) => read(when ? whenWords(when) : '')}
      />
    );
  return figure.choices ? (
    <NativeSelect
      size="xs"
      aria-label={label}
      value={figure.text}
      data={[{ value: '', label: 'not said' }, ...figure.choices]}
      onChange={(e) => read(e.currentTarget.value)}
    />
  ) : (
    <TypedText most={LONGEST.name} label={label} placeholder={figure.like} text={figure.text} read={read} />
  );
};

const FigureRow = (of: { figure: Figure; device: Device; save: (device: Device) => void }) => (
  <tr>
    <td>{of.figure.where}</td>
    <td>{of.figure.what}</td>
    <td>
      <FigureField {...of} />
    </td>
    <td className={of.figure.usedFor ? '' : 'soft'}>{of.figure.usedFor ?? 'not used yet'}</td>
  </tr>
);
