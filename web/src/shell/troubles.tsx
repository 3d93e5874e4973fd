import './troubles.css';
import { Button, Modal, TextInput } from '@mantine/core';
import { asNote, mendable, mended } from '@yunta/core/change/mend';
import { insist } from '@yunta/core/change/rebase';
import type { Trouble } from '@yunta/core/change/session';
import type { AnyId } from '@yunta/core/rig/ids';
import { rigName, type Part } from '@yunta/core/rig/rig';
import { changeText, sayChange } from '@yunta/core/sheets/change-words';
import { sayClash } from '@yunta/core/sheets/clash-words';
import { useState } from 'react';
import { newPartId } from '../session/ids.js';
import { useRig } from '../shared/rig-context.js';
import { fileName, saveFile } from '../shared/save-file.js';

/**
 * What could not be kept, one at a time: with both values where two people disagree, and otherwise with all that was
 * meant. Nothing vanishes: what is not settled is asked again after a reload.
 */
export const Troubles = () => {
  const { state } = useRig();
  const troubles = state.session?.troubles ?? [];
  const trouble = troubles[0];
  if (!trouble) return null;
  const isClash = trouble.clashes.length > 0;
  return (
    <Modal
      opened
      onClose={() => undefined}
      title={<strong>{isClash ? 'Somebody else changed the same thing' : 'One change could not be kept'}</strong>}
      size="lg"
      withCloseButton={false}
      closeOnClickOutside={false}
      closeOnEscape={false}
    >
      {/* Whoever types on while it comes up must not choose by that. */}
      <p tabIndex={-1} data-autofocus className="trouble-did">
        You did: {trouble.set.label}.
      </p>
      {isClash ? (
        <Clashing trouble={trouble} key={trouble.set.id} />
      ) : (
        <Refused trouble={trouble} key={trouble.set.id} />
      )}
      {state.complaint && (
        <p role="alert" className="broken">
          {state.complaint}
        </p>
      )}
      {troubles.length > 1 && <p className="soft">{troubles.length - 1} more to settle after this.</p>}
    </Modal>
  );
};

const Clashing = ({ trouble }: { trouble: Trouble }) => {
  const { store, rig } = useRig();
  const known = (id: AnyId): Part | undefined =>
    trouble.delta.get(id)?.before ?? trouble.delta.get(id)?.after ?? undefined;
  return (
    <>
      <table className="plain">
        <thead>
          <tr>
            <th>what</th>
            <th>it was</th>
            <th>yours</th>
            <th>theirs</th>
          </tr>
        </thead>
        <tbody>
          {trouble.clashes
            .map((c) => sayClash(rig, c, known(c.part)))
            .map(({ what, was, mine, theirs }) => (
              <tr key={what}>
                <td>{what}</td>
                <td>{was}</td>
                <td>
                  <strong>{mine}</strong>
                </td>
                <td>{theirs}</td>
              </tr>
            ))}
        </tbody>
      </table>
      <div className="trouble-ways">
        <Button onClick={() => store.settle(trouble, true)}>Keep mine</Button>
        <Button variant="default" onClick={() => store.settle(trouble, false)}>
          Keep theirs
        </Button>
      </div>
    </>
  );
};

const MOST_SHOWN = 8;

/** Refused as a whole: why, what it would have made otherwise, and what can become of it. All else is saved. */
const Refused = ({ trouble }: { trouble: Trouble }) => {
  const { state, store, rig } = useRig();
  const isAlone = state.session?.troubles.length === 1 && state.session.waiting.length === 0;
  const meant = sayChange(rig, trouble.delta);
  const canMend = mendable(trouble) !== undefined;
  const text = changeText(rig, trouble.set.label, trouble.delta);
  const note = () =>
    store.settleBy(
      trouble,
      { put: [asNote(newPartId('logEntry'), new Date().toISOString(), `Could not be kept. ${text}`)], remove: [] },
      `Note: ${trouble.set.label}`,
    );
  const save = () =>
    saveFile(
      `${fileName(rigName(rig), trouble.set.label).slice(0, 80)}.txt`,
      `${text}\n\n${JSON.stringify({ put: trouble.set.put, remove: trouble.set.remove }, null, 2)}\n`,
      'text/plain',
    );
  return (
    <>
      {trouble.refusals.map((r) => (
        <p key={r.wrong} className="broken">
          {r.wrong} {r.would}
        </p>
      ))}
      {trouble.after && <p>It builds on “{trouble.after}”, which could not be kept either.</p>}
      <Mend trouble={trouble} />
      <table className="plain">
        <thead>
          <tr>
            <th>what</th>
            <th>it was</th>
            <th>you meant</th>
          </tr>
        </thead>
        <tbody>
          {meant.slice(0, MOST_SHOWN).map(({ what, was, now }, i) => (
            <tr key={i}>
              <td>{what}</td>
              <td>{was}</td>
              <td>
                <strong>{now}</strong>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {meant.length > MOST_SHOWN && <p className="soft">and {meant.length - MOST_SHOWN} more</p>}
      {isAlone && <p className="soft">Everything else you did is saved.</p>}
      <div className="trouble-ways">
        <Button variant={canMend ? 'default' : 'filled'} onClick={note}>
          Keep it as a note
        </Button>
        <Button variant="default" onClick={save}>
          Save it as a file
        </Button>
        <Button variant="default" onClick={() => store.settle(trouble, false)}>
          Let it go
        </Button>
      </div>
    </>
  );
};

/** The very text that was refused, to be typed otherwise. */
const Mend = ({ trouble }: { trouble: Trouble }) => {
  const { store, rig } = useRig();
  const place = mendable(trouble);
  const [text, setText] = useState(place?.text ?? '');
  if (!place) return null;
  return (
    <form
      className="trouble-mend"
      onSubmit={(e) => {
        e.preventDefault();
        store.settleBy(trouble, insist(mended(trouble.delta, place, text), rig), trouble.set.label);
      }}
    >
      <TextInput
        label={`Type the ${place.path.at(-1)} otherwise, and the change can be kept`}
        description={`${text.length} characters now`}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <Button type="submit" disabled={text === place.text}>
        Keep it so
      </Button>
    </form>
  );
};
