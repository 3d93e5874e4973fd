import './packing.css';
import { NativeSelect, SegmentedControl } from '@mantine/core';
import { packingView, type CaseView, type PackingView } from '@yunta/core/board/packed';
import { addCase } from '@yunta/core/edits/packing';
import type { Hookup } from '@yunta/core/rig/hookup';
import type { Id } from '@yunta/core/rig/ids';
import { sayRefusal } from '@yunta/core/rig/result';
import { all } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { newPartId } from '../../../session/ids.js';
import { PrintButton } from '../../../shared/paper/paper.js';
import { useRig } from '../../../shared/rig-context.js';
import { today } from '../../../shared/today.js';
import { TypedLine } from '../../../shared/typed-line.js';
import { YourName } from '../../../shared/your-name.js';
import { CaseCard } from './case-card.js';
import { Loose } from './loose.js';
import { Spares } from './spares.js';
import { PackingPaper } from './packing-paper.js';

export type Way = 'out' | 'back';
const WAYS = [
  { value: 'out', label: 'Going out' },
  { value: 'back', label: 'Coming back' },
] as const;

/** What belongs in which case, ticked when it goes out and when it comes back; the missing thing shouts. */
export const PackingList = ({ hookup }: { hookup: Hookup }) => {
  const { rig, edit } = useRig();
  const [day, setDay] = useState(today());
  const [way, setWay] = useState<Way>('out');
  const [chosen, choose] = useState<Id<'packCase'>>();
  const view = packingView(rig, hookup, day);
  const into = view.cases.find((c) => c.case.id === chosen) ?? view.cases[0];
  const days = [...new Set([today(), ...all(rig, 'packing').map((p) => p.on)])].sort().reverse();
  const add = (name: string): readonly string[] => {
    const id = newPartId('packCase');
    const refused = edit(addCase(id, name.trim()), `${name.trim()}: a case`);
    if (refused.length === 0) choose(id);
    return refused.map(sayRefusal);
  };
  return (
    <>
      {view.cases.length > 0 && (
        <div className="packing-head">
          <NativeSelect
            size="sm"
            aria-label="Packed for which day"
            value={day}
            data={days.map((d) => ({ value: d, label: d === today() ? `today, ${d}` : d }))}
            onChange={(e) => setDay(e.currentTarget.value)}
          />
          <SegmentedControl
            aria-label="Which way"
            size="xs"
            value={way}
            onChange={(w) => setWay(w === 'back' ? 'back' : 'out')}
            data={[...WAYS]}
          />
          <YourName />
          <PrintButton what="case labels and packing lists" />
        </div>
      )}
      <Standing view={view} way={way} />
      <div className="packing-both">
        <div className="packing-cases">
          {view.cases.length === 0 && (
            <p className="soft">
              No case yet. Write what you pack into, then put boxes and things into it; the list may grow over days.
            </p>
          )}
          {view.cases.map((one) => (
            <CaseCard key={one.case.id} one={one} others={view.cases} day={day} way={way} />
          ))}
        </div>
        <div className="packing-right">
          <section className="card" aria-label="Add a case">
            <TypedLine
              label={view.cases.length ? 'Another case or bag' : 'Your first case or bag'}
              description=""
              placeholder="Board case"
              button="Add"
              most={100}
              add={add}
            />
          </section>
          {into && <Loose view={view} into={into.case} choose={choose} />}
          {into && <Spares into={into.case} />}
        </div>
      </div>
      <PackingPaper cases={view.cases} day={day} />
    </>
  );
};

const count = (cases: readonly CaseView[], way: Way): string => {
  const things = cases.flatMap((c) => c.things);
  return `${things.filter((t) => t[way]).length} of ${things.length}`;
};

/** How far it is, and what is missing, before anything else. */
const Standing = ({ view, way }: { view: PackingView; way: Way }) => {
  if (view.cases.length === 0) return null;
  const wanting = way === 'out' ? view.open : view.missing.map((m) => `${m.name} (${m.by.by || 'somebody'} packed it)`);
  return (
    <div role="status">
      <p>
        <strong>
          {count(view.cases, way)} {way === 'out' ? 'in' : 'back'}
        </strong>
      </p>
      {wanting.length > 0 && (
        <p
          className={way === 'back' ? 'packing-missing' : 'packing-open'}
          {...(way === 'back' ? { role: 'alert' } : {})}
        >
          {way === 'back' ? 'Missing: ' : 'Not in yet: '}
          {wanting.join(', ')}
        </p>
      )}
    </div>
  );
};
