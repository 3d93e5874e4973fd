import { Button, FileButton, Textarea } from '@mantine/core';
import { addEntry, addPhoto } from '@yunta/core/edits/logbook';
import { isId, type AnyId } from '@yunta/core/rig/ids';
import { LONGEST, wrongText } from '@yunta/core/rig/limits';
import { sayRefusal, type Refusal } from '@yunta/core/rig/result';
import { useState } from 'react';
import { newPartId } from '../../../session/ids.js';
import { personHere } from '../../../session/person.js';
import { Choice } from '../../../shared/choice.js';
import { useRig } from '../../../shared/rig-context.js';
import { TextField } from '../../../shared/text-field.js';
import { madeSmaller, PICTURE_KINDS } from './picture.js';
import { useSubjects } from './subjects.js';

const NOTHING = 'the rig as a whole';

/** A few words, what they are about, what failed, or a picture with them. */
export const NewEntry = () => {
  const { edit } = useRig();
  const subjects = useSubjects();
  const [text, write] = useState('');
  const [broke, setBroke] = useState('');
  const [about, setAbout] = useState<AnyId>();
  const [wrong, setWrong] = useState('');
  const said = () => ({ text: text.trim(), when: new Date().toISOString(), by: personHere(), about });
  const end = (refused: readonly Refusal[]): void => {
    setWrong(refused.map(sayRefusal).join(' '));
    if (refused.length) return;
    write('');
    setBroke('');
  };
  const add = (): void =>
    end(
      edit(
        addEntry(newPartId('logEntry'), { ...said(), broke: broke.trim() || undefined }),
        `Log: ${text.trim().slice(0, LONGEST.label)}`,
      ),
    );
  const addPicture = async (file: File | null): Promise<void> => {
    if (!file) return;
    const picture = await madeSmaller(file);
    end(picture.ok ? edit(addPhoto(newPartId('photo'), picture.value, said()), 'A photograph') : picture.error);
  };
  const tooLong = wrongText(text.trim(), LONGEST.remark);
  return (
    <section className="card" aria-label="Write down">
      <h2>Write down</h2>
      <Textarea
        size="sm"
        autosize
        minRows={2}
        label="What happened, or why it was changed"
        placeholder="Foot switch sticks when it is cold"
        value={text}
        error={tooLong}
        onChange={(e) => write(e.currentTarget.value)}
      />
      <div className="fields">
        <Choice
          label="About"
          data={[NOTHING, ...subjects]}
          value={about ?? NOTHING}
          choose={(id) => setAbout(isId(id) ? id : undefined)}
        />
        {about?.startsWith('device:') && (
          <TextField
            size="xs"
            label="Which part failed, if one did"
            placeholder="foot switch"
            most={LONGEST.word}
            value={broke}
            onChange={(e) => setBroke(e.currentTarget.value)}
          />
        )}
      </div>
      {wrong && (
        <p className="broken" role="alert">
          {wrong}
        </p>
      )}
      <div className="logbook-do">
        <Button size="sm" disabled={text.trim() === '' || tooLong !== undefined} onClick={add}>
          Write down
        </Button>
        <FileButton accept={PICTURE_KINDS.join(',')} onChange={(file) => void addPicture(file)}>
          {(props) => (
            <Button size="sm" variant="default" {...props}>
              Add a photograph
            </Button>
          )}
        </FileButton>
      </div>
      <p className="soft">
        A photograph takes the words above with it. It is made small; where it was taken is left out.
      </p>
    </section>
  );
};
