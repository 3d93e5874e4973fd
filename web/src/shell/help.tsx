import { Drawer } from '@mantine/core';
import { useLocation } from 'react-router';
import { ROOMS } from '../shared/rooms.js';
import { GLOSSARY, ROOM_HELP } from './help-words.js';

/** How the room that one stands in is used; the other rooms and the words below it. */
export const Help = ({ opened, close }: { opened: boolean; close: () => void }) => {
  const { pathname } = useLocation();
  const here = ROOMS.find(({ path }) => pathname.endsWith(`/${path}`)) ?? ROOMS[0];
  return (
    <Drawer opened={opened} onClose={close} position="right" size="md" title={<strong>Help: {here.name}</strong>}>
      <Sentences of={ROOM_HELP[here.path]} />
      {ROOMS.filter((room) => room !== here).map(({ path, name }) => (
        <details key={path} className="help-room">
          <summary>{name}</summary>
          <Sentences of={ROOM_HELP[path]} />
        </details>
      ))}
      <h3>By key</h3>
      <p>
        Alt and 1 to 9, 0 and - change the room. Ctrl K finds anything. Ctrl Z takes back what you did last, in every
        room. Tab goes on, arrows move in sheets and on boards.
      </p>
      <h3>Words</h3>
      <dl className="help-words">
        {GLOSSARY.map(([word, means]) => (
          <div key={word}>
            <dt>{word}</dt>
            <dd>{means}</dd>
          </div>
        ))}
      </dl>
    </Drawer>
  );
};

const Sentences = ({ of }: { of: readonly string[] }) => (
  <ul className="help-list">
    {of.map((sentence) => (
      <li key={sentence}>{sentence}</li>
    ))}
  </ul>
);
