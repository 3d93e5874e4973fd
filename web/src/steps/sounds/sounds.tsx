import './sounds.css';
import { together } from '@yunta/core/change/edit';
import { addSound, giveSlots } from '@yunta/core/edits/sounds';
import type { Id, Ref } from '@yunta/core/rig/ids';
import { all, soundsInOrder } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { turnInRun } from '@yunta/core/sheets/turn-in-run';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Run } from '../../picture/run.js';
import { newPartId } from '../../session/ids.js';
import { addable, withColumns } from './columns.js';
import { Compare } from './compare.js';
import { Detail } from './detail.js';
import { GainLadder } from './gain-ladder.js';
import { Head, type Panel } from './head.js';
import { Moves } from './moves.js';
import { SheetTools, type SheetKind } from './sheet-tools.js';
import { AS_IT_STANDS, SoundSheet } from './sound-rows.js';
import { NewSound, OfferSlots, type AddSound } from './sound-tools.js';
import { Stored } from './stored.js';
import { Without } from './without.js';

/** The room: the run of the chosen sound above, the sheet of all of them below. */
export const Sounds = () => {
  const { rig, edit, selected, select } = useRig();
  const sounds = soundsInOrder(rig);
  const chosen = sounds.find((s) => s.id === selected) ?? sounds[0];
  const add: AddSound = (name, role, parent) => {
    const id = newPartId('sound');
    const made = addSound(rig, id, name, role, parent);
    const isUncalled = sounds.some((s) => s.calls.length === 0);
    const label = parent ? `Derive ${name}` : `Add ${name}`;
    const isDone = edit(isUncalled ? together(giveSlots(rig), made) : made, label).length === 0;
    if (isDone) select(id);
    return isDone;
  };
  return chosen ? <AllSounds chosen={chosen} add={add} /> : <FirstSound add={add} />;
};

const FirstSound = ({ add }: { add: AddSound }) => (
  <>
    <div className="headline">
      <h1>Sounds</h1>
    </div>
    <div className="card first-sound">
      <h2>The first sound</h2>
      <p className="soft">
        A sound says which stages are in it; whatever loop, program or foot brings them there is worked out. What it
        does not name is out.
      </p>
      <NewSound add={add} />
    </div>
  </>
);

/**
 * The card of the run keeps the height of the tallest that it showed: from sound to sound nothing below it moves.
 * @param shown what it shows; a panel that is opened or closed begins anew
 */
const useTallest = ([run, open]: readonly [unknown, ReadonlySet<Panel>]) => {
  const card = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    card.current?.style.setProperty('min-height', '');
  }, [open]);
  useLayoutEffect(() => {
    const { current } = card;
    if (current && run) current.style.setProperty('min-height', `${current.offsetHeight}px`);
  }, [run, open]);
  return card;
};

const SHEETS: readonly SheetKind[] = ['sounds', 'moves'];

const AllSounds = ({ chosen, add }: { chosen: Sound; add: AddSound }) => {
  const { rig, view, select, edit } = useRig();
  const [complaint, complain] = useState('');
  const [open, setOpen] = useState<ReadonlySet<Panel>>(new Set());
  const [isForThisOnly, setOnly] = useState(false);
  const [params, setParams] = useSearchParams();
  const sheet = SHEETS.find((kind) => kind === params.get('show')) ?? 'sounds';
  const turnTo = (kind: SheetKind) => setParams(kind === 'sounds' ? {} : { show: kind }, { replace: true });
  const [arrangement, arrange] = useState(AS_IT_STANDS);
  const [more, setMore] = useState<readonly Ref[]>([]);
  const [looked, look] = useState<Id<'device'>>();
  const columns = useMemo(() => withColumns(rig, view?.columns ?? [], more), [rig, view?.columns, more]);
  const controls = useMemo(() => addable(rig, columns), [rig, columns]);
  const run = useAsked(['run', chosen.id], (worker) => worker.answers.run(chosen.id));
  const levels = useAsked(['levels shown', chosen.id], (worker) => worker.answers.levelsShown(chosen.id));
  const runCard = useTallest([run, open]);
  const only = isForThisOnly && all(rig, 'hookup').length > 1;
  const press = (device: Id<'device'>) => {
    if (open.has('without')) return look(device);
    if (!view) return;
    const turned = turnInRun(rig, chosen, device, columns, { hookup: view.hookup, only });
    if (turned) edit(turned.edit, `${chosen.name}: ${turned.says}`);
  };
  const turn = (panel: Panel) =>
    setOpen((before) => new Set(before.has(panel) ? [...before].filter((p) => p !== panel) : [...before, panel]));
  return (
    <div className="sounds">
      <Head sound={chosen} shown={view?.sounds.find((s) => s.id === chosen.id)} add={add} open={open} turn={turn} />
      <OfferSlots />
      <div className="card run-card" ref={runCard}>
        {open.has('compare') ? (
          <Compare sound={chosen} />
        ) : (
          run && <Run names="in one row" items={run} levels={levels} label={`Run of ${chosen.name}`} press={press} />
        )}
        {open.has('without') && <Without key={chosen.id} sound={chosen} device={looked} look={look} />}
        {open.has('stored') && <Stored sound={chosen} />}
      </div>
      {open.has('detail') && view && <Detail sound={chosen} scope={{ hookup: view.hookup, only }} />}
      {open.has('ladder') && <GainLadder />}
      <SheetTools
        sheet={sheet}
        turnTo={turnTo}
        arrangement={arrangement}
        arrange={arrange}
        controls={controls}
        addColumns={(asked) => setMore([...more, ...asked])}
        only={isForThisOnly}
        setOnly={setOnly}
        add={add}
      />
      {complaint && (
        <p role="alert" className="broken complaint">
          {complaint}
        </p>
      )}
      {view && sheet === 'sounds' && (
        <SoundSheet
          view={view}
          columns={columns}
          scope={{ hookup: view.hookup, only }}
          arrangement={arrangement}
          chosen={chosen.id}
          choose={select}
          complain={complain}
        />
      )}
      {view && sheet === 'moves' && <Moves hookup={view.hookup} columns={columns} complain={complain} />}
    </div>
  );
};
