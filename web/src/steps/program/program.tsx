import './program.css';
import { Button, SegmentedControl } from '@mantine/core';
import { useSearchParams } from 'react-router';
import { useRig } from '../../app/rig-context.js';
import { TypeIn } from './type-in.js';
import { WireCheckRoom } from './wire-check.js';

const PARTS = [{ value: 'type', label: 'Type it in' }, { value: 'check', label: 'Check the wire' }] as const;

/** In front of the boxes: what each must hold, ticked off while it is typed in; then whether they really send it. */
export const Program = () => {
  const { hookup } = useRig();
  const [params, setParams] = useSearchParams();
  const part = params.get('show') === 'check' ? 'check' : 'type';
  return (
    <>
      <div className="headline">
        <h1>Program</h1><span className="soft">{hookup?.name}</span>
        <div className="tools">
          <SegmentedControl aria-label="What to do" size="xs" value={part} onChange={(v) => setParams({ show: v }, { replace: true })} data={[...PARTS]} />
          {part === 'type' && <Button variant="default" size="xs" onClick={() => window.print()}>Print</Button>}
        </div>
      </div>
      {part === 'type' ? <TypeIn /> : <WireCheckRoom />}
    </>
  );
};
