import { Button } from '@mantine/core';
import type { BoardFault } from '@yunta/core/board/faults';
import { changeCable } from '@yunta/core/edits/cables';
import type { Cable } from '@yunta/core/rig/hookup';
import { splitRef, type Id, type Ref } from '@yunta/core/rig/ids';
import { partOf, type Rig } from '@yunta/core/rig/rig';
import { useRig } from '../../../shared/rig-context.js';

const jackText = (rig: Rig, at: Ref): string => {
  const { device, name } = splitRef(at);
  return `${partOf(rig, device)?.name ?? device} (${name})`;
};

/** What is wrong, in words. */
const faultText = (rig: Rig, fault: BoardFault): string => {
  const name = (id: Id<'device'>): string => partOf(rig, id)?.name ?? id;
  const jack = (at: Ref): string => jackText(rig, at);
  switch (fault.is) {
    case 'overlap':
      return `${name(fault.box)} and ${name(fault.other)} stand on the same place.`;
    case 'overhang':
      return `${name(fault.box)} hangs ${Math.ceil(fault.mm)} mm over the edge.`;
    case 'too high':
      return `${name(fault.box)} is ${Math.ceil(fault.mm)} mm too high${fault.under ? ` under ${fault.under}` : ''}.`;
    case 'blocked':
      return `${name(fault.other)} stands where the plug at ${jack(fault.jack)} has to be.`;
    case 'plugs':
      return `The plugs at ${jack(fault.jack)} and ${jack(fault.other)} need the same place.`;
  }
};

/** A lead that is too short for its way. */
export interface ShortLead {
  readonly cable: Cable;
  readonly least: number;
  readonly step: number;
}

interface FaultsProps {
  readonly faults: readonly BoardFault[];
  readonly short: readonly ShortLead[];
}

/** What keeps the board from being built as it is drawn. */
export const Faults = ({ faults, short }: FaultsProps) => {
  const { rig, select, edit } = useRig();
  if (faults.length + short.length === 0)
    return <p className="board-right">Everything has room: boxes and plugs. No lead is too short.</p>;
  return (
    <ul className="board-faults" aria-label="What is in the way">
      {faults.map((fault, i) => (
        <li key={i}>
          <button type="button" className="link" onClick={() => select(fault.box)}>
            {faultText(rig, fault)}
          </button>
        </li>
      ))}
      {short.map(({ cable, least, step }) => (
        <li key={cable.id}>
          The lead from {jackText(rig, cable.ends[0])} to {jackText(rig, cable.ends[1])} is {cable.m} m long and needs
          at least {least.toFixed(2)} m.{' '}
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => edit(changeCable(cable, { m: step, have: undefined }), `A lead of ${step} m`)}
          >
            Use one of {step} m
          </Button>
        </li>
      ))}
    </ul>
  );
};
