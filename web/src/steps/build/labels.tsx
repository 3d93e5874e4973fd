import { flagsOf, loomsOf, tapesOf, type Flag, type LeadView } from '@yunta/core/derive/views/leads';
import { changeCable } from '@yunta/core/edits/cables';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok } from '@yunta/core/rig/result';
import { boxesAlong } from '@yunta/core/rig/box';
import { all, partOf } from '@yunta/core/rig/rig';
import { Paper, PrintButton, usePrinting } from '../../shared/paper/paper.js';
import { useRig } from '../../shared/rig-context.js';
import { TypedText } from '../../shared/typed-text.js';

/** Flags for every end of a lead and tags for boxes, with the owner's own codes, as they come out of the printer. */
export const Labels = ({ leads }: { leads: readonly LeadView[] }) => {
  const flags = flagsOf(leads);
  const isPrinting = usePrinting();
  return (
    <>
      <div className="field-labels-head">
        <p className="soft">
          A flag for each end of each lead, folded around it, a tag for each box and each loom, and tape for each jack.
          Write your own code where you have one; else it says where the lead goes.
        </p>
        <PrintButton what="labels" />
      </div>
      <div className="build-both">
        <section className="card">
          <table className="plain tight folds build-codes">
            <thead>
              <tr>
                <th>lead</th>
                <th>your own code</th>
              </tr>
            </thead>
            <tbody>
              {leads.map((lead) => (
                <tr key={lead.cable}>
                  <td data-head="lead" className="mono">
                    {lead.from} → {lead.to}
                  </td>
                  <td data-head="your own code">
                    <OwnCode lead={lead} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        <section className="card" aria-label="Labels as they are printed">
          <Flags flags={flags} />
          <Tags />
          <Looms leads={leads} />
          <Tapes leads={leads} />
        </section>
      </div>
      {isPrinting && (
        <Paper title="Labels">
          <Flags flags={flags} />
          <Tags />
          <Looms leads={leads} />
          <Tapes leads={leads} />
        </Paper>
      )}
    </>
  );
};

const OwnCode = ({ lead }: { lead: LeadView }) => {
  const { rig, edit } = useRig();
  const name = `${lead.from} → ${lead.to}`;
  return (
    <TypedText
      label={`${name}, your own code`}
      most={LONGEST.label}
      text={lead.label ?? ''}
      read={(typed) => {
        const cable = partOf(rig, lead.cable);
        if (cable) edit(changeCable(cable, { label: typed.trim() || undefined }), `${name}: its code`);
        return ok(typed);
      }}
    />
  );
};

const Flags = ({ flags }: { flags: readonly Flag[] }) => (
  <ul className="build-flags" aria-label="Flags for leads">
    {flags.map((f) => (
      <li key={f.key}>
        <strong className="mono">{f.big}</strong>
        <span>here {f.here}</span>
        <span>there {f.there}</span>
      </li>
    ))}
  </ul>
);

/** A tag for every loom: what stays plugged together. */
const Looms = ({ leads }: { leads: readonly LeadView[] }) => {
  const looms = loomsOf(leads);
  if (looms.length === 0) return null;
  return (
    <ul className="build-flags" aria-label="Tags for looms">
      {looms.map(({ name, leads: some }) => (
        <li key={name}>
          <strong className="mono">{name}</strong>
          <span>
            {some.length} {some.length === 1 ? 'lead' : 'leads'}
          </span>
          <span>{some.map((l) => l.label ?? `${l.from} → ${l.to}`).join(', ')}</span>
        </li>
      ))}
    </ul>
  );
};

/** Tape beside every jack in which a plug sits. */
const Tapes = ({ leads }: { leads: readonly LeadView[] }) => (
  <ul className="build-flags" aria-label="Tape for jacks">
    {tapesOf(leads).map((t) => (
      <li key={t.key}>
        <strong className="mono">{t.jack}</strong>
        <span>{t.lead}</span>
      </li>
    ))}
  </ul>
);

/** A tag for every box that has a lead in this hook-up. */
const Tags = () => {
  const { rig, hookup } = useRig();
  if (!hookup) return null;
  const here = boxesAlong(rig, hookup.id);
  return (
    <ul className="build-flags" aria-label="Tags for boxes">
      {all(rig, 'device')
        .filter((d) => here.has(d.id))
        .map((d) => (
          <li key={d.id}>
            <strong className="mono">{d.code}</strong>
            <span>{d.name}</span>
          </li>
        ))}
    </ul>
  );
};
