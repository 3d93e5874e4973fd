import { Textarea } from '@mantine/core';
import { LONGEST, wrongText } from '@yunta/core/rig/limits';
import { ABOUT, partOf } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { useRig } from '../shared/rig-context.js';

/** What is written down about the rig as a whole. */
export const AboutRig = () => {
  const { rig, edit } = useRig();
  const about = partOf(rig, ABOUT);
  const [typed, setTyped] = useState<string>();
  if (!about) return null;
  const text = typed ?? about.notes;
  const wrong = wrongText(text, LONGEST.text);
  const done = () => {
    if (typed === undefined || wrong) return;
    if (typed !== about.notes) edit({ put: [{ ...about, notes: typed }], remove: [] }, 'What is written about the rig');
    setTyped(undefined);
  };
  return (
    <Textarea
      mb={12}
      autosize
      minRows={2}
      maxRows={8}
      label={`About ${about.name}`}
      value={text}
      error={wrong}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={done}
    />
  );
};
