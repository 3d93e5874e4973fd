import { Button, NativeSelect } from '@mantine/core';
import { figuresOf, type Figure } from '@yunta/core/catalogue/figures';
import type { Device } from '@yunta/core/rig/device';
import { useState } from 'react';
import { FigureField } from '../../../shared/figures/figure-field.js';
import { SourceChoice } from '../../../shared/figures/source-choice.js';

/**
 * What neither the lines nor the tables of a box say, row by row, with what reckons with it; more can be written down.
 */
export const BoxFigures = ({ device, save }: { device: Device; save: (device: Device) => void }) => {
  const [added, setAdded] = useState<readonly string[]>([]);
  const figures = figuresOf(device).filter((f) => !f.inTable);
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
              <th>from</th>
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
  const figures = figuresOf(device).filter((f) => !f.inTable && f.key.startsWith(`${at}: `));
  const written = figures.filter((f) => f.text !== '' || added.includes(f.key));
  const open = figures.filter((f) => !written.includes(f));
  if (figures.length === 0) return null;
  return (
    <div className="figures-at">
      {written.map((f) => (
        <div key={f.key} className="part-line">
          <span className="soft">{f.what}</span>
          <div>
            <FigureField figure={f} device={device} save={save} />
            {f.source && f.text !== '' && (
              <SourceChoice of={f.source} device={device} save={save} about={`${f.where}, ${f.what}`} />
            )}
          </div>
        </div>
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

const FigureRow = (of: { figure: Figure; device: Device; save: (device: Device) => void }) => (
  <tr>
    <td>{of.figure.where}</td>
    <td>{of.figure.what}</td>
    <td>
      <FigureField {...of} />
    </td>
    <td>
      {of.figure.source && of.figure.text !== '' && (
        <SourceChoice of={of.figure.source} {...of} about={`${of.figure.where}, ${of.figure.what}`} />
      )}
    </td>
    <td className={of.figure.usedFor ? '' : 'soft'}>{of.figure.usedFor ?? 'not used yet'}</td>
  </tr>
);
