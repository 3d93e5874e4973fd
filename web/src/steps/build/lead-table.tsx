import { Button, NativeSelect } from '@mantine/core';
import { together, type Edit } from '@yunta/core/change/edit';
import { lengthsByBoard, type LeadIs, type LeadView } from '@yunta/core/derive/views/leads';
import { changeCable } from '@yunta/core/edits/cables';
import { theOneOf } from '@yunta/core/known/keys';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok } from '@yunta/core/rig/result';
import type { Id } from '@yunta/core/rig/ids';
import { partOf, type Rig } from '@yunta/core/rig/rig';
import { Metres } from '../../shared/lead-fields.js';
import { useRig } from '../../shared/rig-context.js';
import { TypedText } from '../../shared/typed-text.js';

const FOR_NOW = 'there, for now';
type Stands = LeadIs | typeof FOR_NOW;
const STANDS: readonly Stands[] = ['there', FOR_NOW, 'to make', 'to buy'];

/** Every lead with its length, its plugs, and whether it is there. */
export const LeadTable = ({ leads }: { leads: readonly LeadView[] }) => {
  const { rig, edit } = useRig();
  const open = leads.filter((l) => l.byBoard && l.m === undefined);
  const bought = leads.filter((l) => l.is === 'to buy');
  return (
    <section className="card">
      {open.length > 0 && (
        <p>
          The board knows how long {open.length === 1 ? 'a lead' : `${open.length} leads`} must be.{' '}
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => edit(lengthsByBoard(rig, open), `Lengths of ${open.length} leads from the board`)}
          >
            Take {open.length === 1 ? 'its length' : 'their lengths'}
          </Button>
        </p>
      )}
      {bought.length > 1 && (
        <p>
          <Button
            size="compact-xs"
            variant="default"
            onClick={() =>
              edit(together(...bought.flatMap(({ cable }) => hadOf(rig, cable))), `${bought.length} leads are there`)
            }
          >
            All {bought.length} to buy are there
          </Button>
        </p>
      )}
      <table className="plain tight folds build-leads">
        <caption className="visually-hidden">Leads of this hook-up</caption>
        <thead>
          <tr>
            <th>lead</th>
            <th>kind, plugs</th>
            <th>m</th>
            <th>is</th>
            <th>loom</th>
          </tr>
        </thead>
        <tbody>
          {leads.map((lead) => (
            <Lead key={lead.cable} lead={lead} />
          ))}
        </tbody>
      </table>
    </section>
  );
};

const hadOf = (rig: Rig, id: Id<'cable'>): readonly Edit[] => {
  const cable = partOf(rig, id);
  return cable ? [changeCable(cable, { have: true })] : [];
};

const Lead = ({ lead }: { lead: LeadView }) => {
  const { rig, edit } = useRig();
  const name = `${lead.from} → ${lead.to}`;
  const stand = (is: Stands): void => {
    const cable = partOf(rig, lead.cable);
    if (!cable) return;
    const change = {
      have: is === 'there' || is === FOR_NOW || undefined,
      forNow: is === FOR_NOW || undefined,
      byHand: is === 'to make' || (is === 'there' && cable.byHand) || undefined,
    };
    edit(changeCable(cable, change), `${name}: ${is}`);
  };
  const say = (change: Parameters<typeof changeCable>[1], what: string): void => {
    const cable = partOf(rig, lead.cable);
    if (cable) edit(changeCable(cable, change), `${name}: ${what}`);
  };
  const takeLength = () => edit(lengthsByBoard(rig, [lead]), `${name}: length from the board`);
  return (
    <tr>
      <td data-head="lead">
        <span className="mono">{name}</span>
        {lead.label && <span className="soft"> {lead.label}</span>}
      </td>
      <td data-head="kind, plugs">
        {lead.kind}
        <span className="soft"> {plugsText(lead)}</span>
      </td>
      <td data-head="m">
        <Metres of={name} cable={lead.cable} />
        {lead.byBoard && lead.m === undefined && (
          <button type="button" className="link" aria-label={`${name}: ${lead.byBoard.step} m`} onClick={takeLength}>
            {lead.byBoard.step}
          </button>
        )}
      </td>
      <td data-head="is">
        <NativeSelect
          size="xs"
          aria-label={`${name}, is`}
          value={lead.forNow ? FOR_NOW : lead.is}
          data={STANDS.filter((is) => lead.kind !== 'mains' || is !== 'to make')}
          onChange={(e) => stand(theOneOf(STANDS, e.currentTarget.value))}
        />
      </td>
      <td data-head="loom">
        <TypedText
          label={`${name}, loom`}
          most={LONGEST.label}
          text={lead.loom ?? ''}
          read={(typed) => {
            say({ loom: typed.trim() || undefined }, 'its loom');
            return ok(typed);
          }}
        />
      </td>
    </tr>
  );
};

/** Both plugs; said once where they are alike. @example '6.35 TS to XLR' */
export const plugsText = ({ plugs: [a, b] }: Pick<LeadView, 'plugs'>): string => (a === b ? a : `${a} to ${b}`);
