import { Checkbox } from '@mantine/core';
import { labelsOn, onSheets, readLabelPaper, type LabelPaper } from '@yunta/core/board/label-paper';
import { flagsOf, loomsOf, tapesOf, type LeadView } from '@yunta/core/derive/views/leads';
import { changeCable } from '@yunta/core/edits/cables';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok } from '@yunta/core/rig/result';
import { boxesAlong } from '@yunta/core/rig/box';
import { all, partOf } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { createPortal } from 'react-dom';
import { LabelSheetSvg, smallLetters, type Label } from '../../picture/label-sheet-svg.js';
import { Numbered } from '../../shared/numbered.js';
import { Paper, PrintButton, usePrinting } from '../../shared/paper/paper.js';
import { useRig } from '../../shared/rig-context.js';
import { TypedText } from '../../shared/typed-text.js';
import { labelPaperHere, labelPaperOf, rememberLabelPaper } from './label-paper.js';

/** How small letters may be to be read at arm's length, in mm (assumed). */
const READABLE = 1.5;

/**
 * Flags for every end of a lead, tags and tape with the owner's own codes, as they come out of the printer: to be cut out
 * of plain paper, or on label paper of any size.
 */
export const Labels = ({ leads }: { leads: readonly LeadView[] }) => {
  const isPrinting = usePrinting();
  const groups = useLabels(leads);
  const [said, setSaid] = useState(labelPaperHere);
  const [first, setFirst] = useState(1);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const paper = labelPaperOf(said);
  const labels = groups.filter((g) => !left.has(g.name)).flatMap((g) => g.labels);
  const sheets = paper && onSheets(paper, labels, first - 1);
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
          <div className="label-asked">
            <div>
              <span className="field-label">Label paper; empty for plain paper</span>
              <TypedText
                label="Label paper"
                most={LONGEST.label}
                placeholder="3 x 8 of 70 x 36 mm on A4"
                text={said}
                read={(text) => {
                  const is = text.trim() ? readLabelPaper(text) : ok(undefined);
                  if (is.ok) {
                    rememberLabelPaper(text.trim());
                    setSaid(text.trim());
                    setFirst(1);
                  }
                  return is;
                }}
              />
            </div>
            {paper && (
              <Numbered shown label="First free label" min={1} max={labelsOn(paper)} value={first} save={setFirst} />
            )}
            <div className="label-kinds" role="group" aria-label="What is printed">
              {groups.map(({ name, labels: some }) => (
                <Checkbox
                  key={name}
                  size="xs"
                  label={`${some.length} ${name}`}
                  checked={!left.has(name)}
                  onChange={() => setLeft((l) => (l.has(name) ? without(l, name) : new Set([...l, name])))}
                />
              ))}
            </div>
          </div>
          {paper && sheets ? (
            <OnLabelPaper paper={paper} sheets={sheets} labels={labels} />
          ) : (
            <OnPlainPaper groups={groups.filter((g) => !left.has(g.name))} />
          )}
        </section>
      </div>
      {isPrinting && paper && sheets && <Sheets paper={paper} sheets={sheets} />}
      {isPrinting && !paper && (
        <Paper title="Labels">
          <OnPlainPaper groups={groups.filter((g) => !left.has(g.name))} />
        </Paper>
      )}
    </>
  );
};

const without = (some: ReadonlySet<string>, one: string): ReadonlySet<string> =>
  new Set([...some].filter((s) => s !== one));

type Sheet = ReturnType<typeof onSheets<Label>>[number];
interface SheetsProps {
  readonly paper: LabelPaper;
  readonly sheets: readonly Sheet[];
}

/** What the sheets will look like, and what to set at the printer. */
const OnLabelPaper = ({ paper, sheets, labels }: SheetsProps & { labels: readonly Label[] }) => {
  const tiny = labels.filter((l) => smallLetters(paper, l) < READABLE).length;
  return (
    <>
      <p>
        {labels.length} labels on {sheets.length} {sheets.length === 1 ? 'sheet' : 'sheets'}. Print at 100 %, without
        margins of the printer’s own.
      </p>
      {tiny > 0 && (
        <p className="soft">
          The small words on {tiny} of them are under {READABLE} mm high. Larger labels, or shorter names, read better.
        </p>
      )}
      <div className="label-sheets-seen">
        {sheets.map((sheet, i) => (
          <LabelSheetSvg key={i} paper={paper} labels={sheet} title={`Sheet ${i + 1} of ${sheets.length}`} />
        ))}
      </div>
    </>
  );
};

/** Nothing but the labels, at their places on the sheet. */
const Sheets = ({ paper, sheets }: SheetsProps) =>
  createPortal(
    <article className={`paper label-sheets on-${paper.paper}`}>
      {sheets.map((sheet, i) => (
        <LabelSheetSvg key={i} paper={paper} labels={sheet} title={`Sheet ${i + 1} of ${sheets.length}`} />
      ))}
    </article>,
    document.body,
  );

interface LabelGroup {
  readonly name: string;
  readonly labels: readonly Label[];
}

/** Every label of the hook-up, kind by kind. */
const useLabels = (leads: readonly LeadView[]): readonly LabelGroup[] => {
  const { rig, hookup } = useRig();
  const here = hookup ? boxesAlong(rig, hookup.id) : new Set();
  const groups: readonly LabelGroup[] = [
    {
      name: 'flags for leads',
      labels: flagsOf(leads).map(({ key, big, here: at, there }) => ({
        key,
        big,
        lines: [`here ${at}`, `there ${there}`],
        isFolded: true,
      })),
    },
    {
      name: 'tags for boxes',
      labels: all(rig, 'device')
        .filter((d) => here.has(d.id))
        .map((d) => ({ key: d.id, big: d.code, lines: [d.name] })),
    },
    {
      name: 'tags for looms',
      labels: loomsOf(leads).map(({ name, leads: some }) => ({
        key: `loom ${name}`,
        big: name,
        lines: [
          `${some.length} ${some.length === 1 ? 'lead' : 'leads'}`,
          some.map((l) => l.label ?? `${l.from} → ${l.to}`).join(', '),
        ],
      })),
    },
    {
      name: 'tapes for jacks',
      labels: tapesOf(leads).map((t) => ({ key: `tape ${t.key}`, big: t.jack, lines: [t.lead] })),
    },
  ];
  return groups.filter((g) => g.labels.length > 0);
};

/** Side by side, to be cut out. */
const OnPlainPaper = ({ groups }: { groups: readonly LabelGroup[] }) =>
  groups.map(({ name, labels }) => (
    <ul key={name} className="build-flags" aria-label={name}>
      {labels.map(({ key, big, lines }) => (
        <li key={key}>
          <strong className="mono">{big}</strong>
          {lines.map((line) => (
            <span key={line}>{line}</span>
          ))}
        </li>
      ))}
    </ul>
  ));

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
