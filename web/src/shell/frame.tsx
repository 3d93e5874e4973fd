import { Button, Select, Tooltip, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { spotlight } from '@mantine/spotlight';
import { addHookup } from '@yunta/core/edits/hookups';
import { all } from '@yunta/core/rig/rig';
import { theId } from '@yunta/core/rig/ids';
import { useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import type { StoreState } from '../session/store.js';
import { newPartId } from '../session/ids.js';
import { Find, type Doing } from './find.js';
import { saveOpenRig } from '../shared/save-file.js';
import type { Finding } from '@yunta/core/checks/check';
import { Findings, isPressing } from '../shared/findings.js';
import { Help } from './help.js';
import { History } from './history.js';
import { Mark } from '../shared/mark.js';
import { RigMenu } from './rig-menu.js';
import { RigProvider, useRig } from '../shared/rig-context.js';
import { ROOM_KEYS, ROOMS, roomOf } from '../shared/rooms.js';
import { StatusLine } from './status-line.js';
import { Troubles } from './troubles.js';
import { surely } from '@yunta/core/known/the';

const waitingText = (state: StoreState): string => {
  if (state.status === 'missing') return 'This rig is not here. It may have been removed, or the address is mistyped.';
  if (state.status === 'away')
    return 'The server does not answer, and this browser has not kept this rig. It tries again by itself.';
  return 'Opening …';
};

/** The frame of every room: rail, top, status line. */
export const Frame = () => {
  const { rigId = '' } = useParams();
  return (
    <RigProvider
      key={rigId}
      rigId={rigId}
      fallback={(state) => (
        <main style={{ padding: 40 }}>
          <h1>{waitingText(state)}</h1>
          <p>
            <Link to="/" style={{ color: 'inherit' }}>
              All rigs
            </Link>
          </p>
        </main>
      )}
    >
      <Framed />
    </RigProvider>
  );
};

const savedText = (state: StoreState): string => {
  const waiting = state.session?.waiting.length ?? 0;
  if (!state.online)
    return waiting
      ? `${waiting} ${waiting === 1 ? 'change waits' : 'changes wait'} for the server`
      : state.why
        ? 'not saving'
        : 'server away';
  return waiting ? 'saving …' : 'saved';
};

/** The key's own effect is kept until the handler says otherwise. */
const ITSELF = { preventDefault: false };

/** A field with text in it undoes its own typing; an empty one has nothing to undo, so the rig is meant. */
const unlessWriting =
  (act: () => void) =>
  (e: KeyboardEvent): void => {
    if (e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement)
      if (e.target.value !== '') return;
    e.preventDefault();
    act();
  };

const Framed = () => {
  const { rig, state, store, view } = useRig();
  const [findings, showFindings] = useState(false);
  const [history, showHistory] = useState(false);
  const [help, showHelp] = useState(false);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  useHotkeys(
    [
      ['mod+Z', unlessWriting(() => store.undo()), ITSELF],
      ['mod+shift+Z', unlessWriting(() => store.redo()), ITSELF],
      ['mod+Y', unlessWriting(() => store.redo()), ITSELF],
    ],
    [],
  );
  useHotkeys(
    ROOMS.map(({ path }, i) => [`alt+${ROOM_KEYS[i] ?? ''}`, () => void navigate(path)]),
    ['INPUT', 'TEXTAREA', 'SELECT'],
  );
  const open = view?.findings.filter(isPressing) ?? [];
  const doings: readonly Doing[] = [
    { name: 'Undo', what: 'Take back what you did last', act: () => store.undo() },
    { name: 'Redo', what: 'Do again what was taken back', act: () => store.redo() },
    {
      name: 'Save as a rig file',
      what: 'The whole rig, to keep or to hand over',
      act: () => void saveOpenRig(store),
    },
    { name: 'History', what: 'Every change, and the way back', act: () => showHistory(true) },
    {
      name: 'Compare or merge',
      what: 'With another rig, or with a rig file that somebody changed',
      act: () => void navigate('merge'),
    },
    { name: 'Findings', what: 'All that is to be looked at', act: () => showFindings(true) },
    { name: 'Help', what: 'How this room is used, and what the words mean', act: () => showHelp(true) },
    { name: 'Print', what: 'What this room shows, on paper', act: () => window.print() },
    { name: 'All rigs', what: 'Home', act: () => void navigate('/') },
  ];
  return (
    <div className="frame">
      <a className="skip" href="#room">
        To the room
      </a>
      <Top showHistory={() => showHistory(true)} />
      <Rail open={open} showHelp={() => showHelp(true)} />
      <main className="room" id="room" tabIndex={-1}>
        {!state.keeps && <CannotKeep isWaiting={surely(state.session).waiting.length > 0} />}
        {rig.parts.hookup.size > 0 || !NEEDS_CABLES.some((room) => pathname.endsWith(`/${room}`)) ? (
          <Outlet />
        ) : (
          <NoHookup />
        )}
      </main>
      <StatusLine openFindings={() => showFindings(true)} count={open.length} />
      <Findings opened={findings} close={() => showFindings(false)} />
      <History opened={history} close={() => showHistory(false)} />
      <Help opened={help} close={() => showHelp(false)} />
      <Troubles />
      <Find doings={doings} />
    </div>
  );
};

/** Which rig and hook-up this is, whether it is kept, and what is at hand in every room. */
const Top = ({ showHistory }: { showHistory: () => void }) => {
  const { state, store } = useRig();
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  const { confirmed, undoable, redoable } = surely(state.session);
  return (
    <header className="top">
      <Link to="/" className="brand" aria-label="Yunta, all rigs">
        <Mark />
        <span>Yunta</span>
      </Link>
      <RigMenu showHistory={showHistory} />
      <HookupChoice />
      <button type="button" className="link soft saved" onClick={showHistory}>
        revision {confirmed.revision}, {savedText(state)}
      </button>
      <div className="tools">
        <Tooltip label="Ctrl Z">
          <Button variant="default" size="xs" disabled={undoable.length === 0} onClick={() => store.undo()}>
            Undo
          </Button>
        </Tooltip>
        <Tooltip label="Ctrl Shift Z">
          <Button variant="default" size="xs" disabled={redoable.length === 0} onClick={() => store.redo()}>
            Redo
          </Button>
        </Tooltip>
        <Button variant="default" size="xs" onClick={() => setColorScheme(scheme === 'dark' ? 'light' : 'dark')}>
          {scheme === 'dark' ? 'Bench light' : 'Blackout'}
        </Button>
        <button type="button" className="link soft" onClick={() => spotlight.open()}>
          <span className="find-label">Find anything </span>
          <kbd className="mono">Ctrl K</kbd>
        </button>
      </div>
    </header>
  );
};

/** The first hook-up of a rig that has none. */
const useMakeHookup = () => {
  const { edit } = useRig();
  return () => edit(addHookup(newPartId('hookup'), 'Main'), 'Make a hook-up');
};

/** Rooms that speak of a wired rig. */
const NEEDS_CABLES = ['program', 'proof', 'bench'];

const NoHookup = () => {
  const make = useMakeHookup();
  return (
    <div className="card no-hookup">
      <h1>No hook-up yet</h1>
      <p className="soft">
        A hook-up is one way of plugging the rig. It needs one before anything here can be worked out.
      </p>
      <Button onClick={make}>Make a hook-up</Button>
    </div>
  );
};

const HookupChoice = () => {
  const { rig, hookup, chooseHookup } = useRig();
  const make = useMakeHookup();
  return (
    <>
      <Select
        aria-label="Hook-up"
        size="xs"
        w={150}
        allowDeselect={false}
        checkIconPosition="right"
        data={all(rig, 'hookup').map((h) => ({ value: h.id, label: h.name }))}
        value={hookup?.id ?? null}
        onChange={(id) => id && chooseHookup(theId('hookup', id))}
        placeholder="no hook-up"
      />
      {!hookup && (
        <Button size="xs" onClick={make}>
          Make a hook-up
        </Button>
      )}
    </>
  );
};

/** The rooms in the order of the job, each with how much in it is to be seen to. */
const Rail = ({ open, showHelp }: { open: readonly Finding[]; showHelp: () => void }) => (
  <nav className="rail" aria-label="Steps of the job">
    {ROOMS.map(({ path, name }, i) => {
      const here = open.filter((f) => roomOf(f.code) === path);
      const isGrave = here.some((f) => f.severity === 'broken' || f.severity === 'danger');
      return (
        <NavLink key={path} to={path} title={`Alt ${ROOM_KEYS[i] ?? ''}`}>
          {name}
          {here.length > 0 && (
            <span className={`count ${isGrave ? 'broken' : ''}`}>
              {here.length}
              <span className="visually-hidden">{here.length === 1 ? ' finding' : ' findings'}</span>
            </span>
          )}
        </NavLink>
      );
    })}
    <button type="button" className="rail-help" onClick={showHelp}>
      Help
    </button>
  </nav>
);

const CannotKeep = ({ isWaiting }: { isWaiting: boolean }) => (
  <p className="notice" role="alert">
    <strong>This browser cannot keep changes.</strong>{' '}
    {isWaiting
      ? 'Stay on this page until they are sent.'
      : 'What you change is safe once it says “saved” above; stay on this page until then.'}{' '}
    A private window, or a full disk, may be why.
  </p>
);
