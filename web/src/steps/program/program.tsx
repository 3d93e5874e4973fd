import './program.css';
import { SegmentedControl } from '@mantine/core';
import { PrintButton } from '../../shared/paper/paper.js';
import { useSearchParams } from 'react-router';
import { useRig } from '../../shared/rig-context.js';
import { AsItStands } from './as-it-stands.js';
import { Dials } from './dials.js';
import { PlanRoom } from './plan.js';
import { TypeIn } from './type-in.js';
import { WireCheckRoom } from './wire-check.js';

const PARTS = [
  { value: 'plan', label: 'Plan programs' },
  { value: 'type', label: 'Type it in' },
  { value: 'write', label: 'As it stands' },
  { value: 'knobs', label: 'Knobs and hands' },
  { value: 'check', label: 'Check the wire' },
] as const;

/**
 * In front of the boxes: which program is to hold what, what each box must hold, ticked off while it is typed in; then
 * whether they really send it.
 */
export const Program = () => {
  const { hookup } = useRig();
  const [params, setParams] = useSearchParams();
  const part = PARTS.find((p) => p.value === params.get('show'))?.value ?? 'type';
  return (
    <>
      <div className="headline no-print">
        <h1>Program</h1>
        <span className="soft">{hookup?.name}</span>
        <div className="tools">
          <SegmentedControl
            aria-label="What to do"
            size="xs"
            value={part}
            onChange={(v) => setParams({ show: v }, { replace: true })}
            data={[...PARTS]}
          />
          {part === 'type' && <PrintButton what="what to type in" />}
          {part === 'knobs' && <PrintButton what="where the knobs stand" />}
        </div>
      </div>
      {part === 'plan' ? (
        <PlanRoom />
      ) : part === 'type' ? (
        <TypeIn />
      ) : part === 'write' ? (
        <AsItStands />
      ) : part === 'knobs' ? (
        <Dials />
      ) : (
        <WireCheckRoom />
      )}
    </>
  );
};
