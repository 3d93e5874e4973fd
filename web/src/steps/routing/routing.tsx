import './routing.css';
import { Button, SegmentedControl, Select } from '@mantine/core';
import { connect, givesOut, offers, takesIn, unplug } from '@yunta/core/edits/cables';
import { carryOutWiring, planControl, planWiring, type School, type WiringPlan } from '@yunta/core/edits/wire';
import { ref, splitRef, type Ref } from '@yunta/core/rig/ids';
import { all, cablesOf, partOf, soundsInOrder } from '@yunta/core/rig/rig';
import { useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Paper, PrintButton, usePrinting } from '../../shared/paper/paper.js';
import { Run } from '../../picture/run.js';
import type { ListedCable } from '@yunta/core/signal/graph/order';
import { newPartId } from '../../session/ids.js';
import { ForTheHouse } from './for-the-house.js';
import { Hookups } from './hookups.js';
import { boxName, jackText } from './jack-text.js';
import { PasteCables } from './paste-cables.js';
import { MapRoom } from './map-room.js';
import { Starts } from './starts.js';
import { surely, theOne } from '@yunta/core/known/the';
import { jackAt } from '@yunta/core/rig/box';

const LETTERS: Readonly<Record<string, string>> = {
  audio: 'A',
  air: 'air',
  midi: 'M',
  contact: 'C',
  expression: 'E',
  power: 'P',
  mains: '~',
  usb: 'U',
};

const PARTS = [
  { part: 'map', name: 'Map' },
  { part: 'cables', name: 'Cables' },
  { part: 'hookups', name: 'Hook-ups' },
  { part: 'house', name: 'For the house' },
  { part: 'start', name: 'Starting points' },
] as const;

export const Routing = () => {
  const { rig, hookup, selected } = useRig();
  const sounds = soundsInOrder(rig);
  const [chosen, choose] = useState<string>();
  const sound = sounds.find((s) => s.id === chosen) ?? sounds.find((s) => s.id === selected) ?? sounds[0];
  const run = useAsked(['run', sound?.id], (worker) => worker.answers.run(sound?.id));
  const devices = all(rig, 'device').length;
  const [params, setParams] = useSearchParams();
  const cables = hookup ? cablesOf(rig, hookup.id).length : 0;
  /** Whoever has nothing to wire, or nothing wired, is shown ways to begin. */
  const part = PARTS.find((p) => p.part === params.get('show'))?.part ?? (cables ? 'map' : 'start');
  const shown = devices === 0 ? 'start' : part;
  return (
    <div className={`routing-grid ${shown === 'map' ? 'wide' : ''}`}>
      <div className="headline" style={{ marginBottom: 0 }}>
        <h1>Routing</h1>
        <span className="soft">{hookup ? `${hookup.name}, ${cables} cables` : 'no hook-up yet'}</span>
        <div className="tools">
          {devices > 0 && (
            <SegmentedControl
              aria-label="What to look at"
              size="xs"
              value={shown}
              onChange={(v) => setParams({ show: v }, { replace: true })}
              data={PARTS.map((p) => ({
                value: p.part,
                label: p.part === 'hookups' ? `Hook-ups (${all(rig, 'hookup').length})` : p.name,
              }))}
            />
          )}
          {sounds.length > 0 && (
            <Select
              aria-label="Sound that the run shows"
              size="xs"
              w={190}
              allowDeselect={false}
              searchable
              data={sounds.map((s) => ({ value: s.id, label: s.name }))}
              value={sound?.id ?? null}
              onChange={(v) => v && choose(v)}
            />
          )}
        </div>
      </div>
      {shown === 'start' && <Starts done={() => setParams({ show: 'map' }, { replace: true })} />}
      {shown === 'map' && <MapRoom key={hookup?.id} sound={sound} />}
      {(shown === 'cables' || shown === 'hookups') && (
        <div className="card">
          {run && (
            <Run names="in one row" items={run} label={sound ? `Run of ${sound.name}` : 'Run of the rig at rest'} />
          )}
        </div>
      )}
      {shown === 'cables' && (
        <>
          <WireForMe />
          <Cables />
        </>
      )}
      {shown === 'hookups' && <Hookups />}
      {shown === 'house' && <ForTheHouse />}
    </div>
  );
};

type Wished = School | 'control';
const SCHOOLS: readonly { readonly school: Wished; readonly name: string }[] = [
  { school: 'straight', name: 'Straight chain' },
  { school: 'loops', name: 'Loops in order' },
  { school: 'four cables', name: 'Four cables' },
  { school: 'control', name: 'MIDI and contacts only' },
];

/** Plans a whole hook-up with what is in the kit; each step with its reason, nothing plugged until it is wanted. */
const WireForMe = () => {
  const { rig, hookup, edit } = useRig();
  const [school, setSchool] = useState<Wished>();
  const plan = useMemo<WiringPlan | undefined>(() => {
    if (!school || !hookup) return undefined;
    return school === 'control' ? planControl(rig, hookup.id) : planWiring(rig, school);
  }, [rig, school, hookup]);
  if (!hookup) return null;
  const pulled = plan?.adds ? 0 : cablesOf(rig, hookup.id).length;
  const carryOut = () => {
    if (
      plan &&
      edit(
        carryOutWiring(rig, hookup.id, plan, () => newPartId('cable')),
        `Wire it: ${theOne(SCHOOLS, (s) => s.school === school).name.toLowerCase()}`,
      ).length === 0
    )
      setSchool(undefined);
  };
  return (
    <div className="card">
      <div style={{ display: 'flex', gap: 10, alignItems: 'center', flexWrap: 'wrap' }}>
        <strong>Wire it for me</strong>
        {SCHOOLS.map((s) => (
          <Button
            key={s.school}
            size="xs"
            variant={school === s.school ? 'filled' : 'default'}
            aria-pressed={school === s.school}
            onClick={() => setSchool(school === s.school ? undefined : s.school)}
          >
            {s.name}
          </Button>
        ))}
      </div>
      {plan && (
        <>
          {plan.notes.map((n) => (
            <p key={n} style={{ margin: '8px 0 0' }}>
              ● {n}
            </p>
          ))}
          <ol className="plan">
            {plan.steps.map((s) => (
              <li key={`${s.from} ${s.to}`}>
                <span className="cable-line">
                  {jackText(rig, s.from)} → {jackText(rig, s.to)}
                </span>{' '}
                <span className="soft">{s.why}</span>
              </li>
            ))}
          </ol>
          {plan.steps.length > 0 && (
            <Button size="xs" onClick={carryOut}>
              Plug these {plan.steps.length}
              {pulled ? `, pull the ${pulled} that are there` : ''}
            </Button>
          )}
        </>
      )}
    </div>
  );
};

const Cables = () => {
  const { rig, hookup, edit, view, select } = useRig();
  const [pasting, paste] = useState(false);
  const isPrinting = usePrinting();
  const listed = view?.hookup === hookup?.id ? (view?.cables.filter((c) => partOf(rig, c.cable.id)) ?? []) : [];
  if (!hookup) return null;
  return (
    <div className="card cable-list">
      {isPrinting && <CablePaper listed={listed} />}
      <NewCable />
      <table className="plain folds">
        <thead>
          <tr>
            <th>kind</th>
            <th>from</th>
            <th>to</th>
            <th>length</th>
            <th>
              <span className="visually-hidden">pull</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {listed.map(({ cable, from, to, kind }) => (
            <tr key={cable.id}>
              <td data-head="kind">
                <span className={`pattern ${kind}`} aria-hidden="true" />
                <span className="mono" title={kind}>
                  {LETTERS[kind] ?? kind}
                  <span className="visually-hidden"> {kind}</span>
                </span>
              </td>
              <td data-head="from">
                <button
                  type="button"
                  className="link"
                  style={{ textDecoration: 'none' }}
                  onClick={() => select(splitRef(from).device)}
                >
                  <span className="cable-line">{jackText(rig, from)}</span>
                </button>{' '}
                <span className="soft">{boxName(rig, from)}</span>
              </td>
              <td data-head="to">
                <span className="cable-line">{jackText(rig, to)}</span> <span className="soft">{boxName(rig, to)}</span>
              </td>
              <td data-head="length" className="mono">
                {cable.m ? `${cable.m} m` : ''}
              </td>
              <td style={{ textAlign: 'right' }}>
                <Button
                  variant="default"
                  size="compact-xs"
                  aria-label={`Pull the cable from ${jackText(rig, from)} to ${jackText(rig, to)}`}
                  onClick={() => edit(unplug(cable.id), `Pull ${jackText(rig, from)} → ${jackText(rig, to)}`)}
                >
                  Pull
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {pasting ? (
        <PasteCables hookup={hookup.id} done={() => paste(false)} />
      ) : (
        <div className="cable-tools">
          <Button variant="default" size="xs" onClick={() => paste(true)}>
            Paste a table of cables
          </Button>
          {listed.length > 0 && <PrintButton what="the list of cables" />}
        </div>
      )}
      {listed.length === 0 && (
        <p className="soft" style={{ padding: '0 10px' }}>
          No cable yet. Plug one above, or let it be wired.
        </p>
      )}
    </div>
  );
};

/** Every cable of the hook-up on paper, to be ticked off while it is plugged. */
const CablePaper = ({ listed }: { listed: readonly ListedCable[] }) => {
  const { rig } = useRig();
  return (
    <Paper title={`${listed.length} cables`}>
      <table>
        <thead>
          <tr>
            <th>☐</th>
            <th>from</th>
            <th>to</th>
            <th>kind</th>
            <th>length</th>
            <th>tag</th>
          </tr>
        </thead>
        <tbody>
          {listed.map(({ cable, from, to, kind }) => (
            <tr key={cable.id}>
              <td>☐</td>
              <td>
                <strong>{jackText(rig, from)}</strong> {boxName(rig, from)}
              </td>
              <td>
                <strong>{jackText(rig, to)}</strong> {boxName(rig, to)}
              </td>
              <td>{kind}</td>
              <td>{cable.m ? `${cable.m} m` : ''}</td>
              <td>{[cable.label, cable.colour].filter(Boolean).join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Paper>
  );
};

/** One cable: from a jack, to a jack that fits, best first. */
const NewCable = () => {
  const { rig, hookup, edit } = useRig();
  const [from, setFrom] = useState<Ref | null>(null);
  const [to, setTo] = useState<Ref | null>(null);
  const first = useRef<HTMLInputElement>(null);
  const taken = new Set(cablesOf(rig, surely(hookup).id).flatMap((c) => c.ends));
  const starts = all(rig, 'device')
    .map((d) => ({
      group: `${d.code} ${d.name}`,
      items: d.jacks
        .filter((j) => givesOut(j) || takesIn(j))
        .map((j) => ({
          value: ref(d.id, j.id),
          label: `${d.code} ${j.id}${taken.has(ref(d.id, j.id)) ? ' (plugged)' : ''}`,
        })),
    }))
    .filter((g) => g.items.length);
  const fitting = useMemo(() => (from && hookup ? offers(rig, hookup.id, from) : []), [rig, hookup, from]);
  const plug = () => {
    if (!from || !to || !hookup) return;
    const outFirst = jackAt(rig, from)?.poles.tip === 'out';
    const [a, b] = outFirst ? [from, to] : [to, from];
    if (
      edit(connect(rig, hookup.id, newPartId('cable'), a, b), `Plug ${jackText(rig, a)} → ${jackText(rig, b)}`)
        .length === 0
    ) {
      setFrom(null);
      setTo(null);
      first.current?.focus();
    }
  };
  return (
    <form
      style={{ display: 'flex', gap: 10, alignItems: 'end', padding: '4px 10px 12px', flexWrap: 'wrap' }}
      onSubmit={(e) => {
        e.preventDefault();
        plug();
      }}
    >
      <Select
        ref={first}
        label="A cable from"
        w={220}
        searchable
        clearable
        placeholder="box and jack"
        data={starts}
        value={from}
        onChange={(v) => {
          setFrom(v);
          setTo(null);
        }}
        maxDropdownHeight={320}
        nothingFoundMessage="No such jack"
      />
      <Select
        label="to"
        w={320}
        searchable
        clearable
        disabled={!from}
        placeholder={from ? 'what fits, best first' : 'choose where it starts'}
        maxDropdownHeight={320}
        nothingFoundMessage="Nothing fits"
        data={fitting.map((o) => ({ value: o.jack, label: `${jackText(rig, o.jack)}: ${o.why}` }))}
        value={to}
        onChange={(v) => setTo(v)}
      />
      <Button type="submit" disabled={!from || !to}>
        Plug it
      </Button>
    </form>
  );
};
