import { Button, Menu, Modal } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { ABOUT, partOf, rigName } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../session/api.js';
import { copyRig, whyNot } from '../session/rig-keeping.js';
import { saveOpenRig } from '../shared/save-file.js';
import { fits, TextField } from '../shared/text-field.js';
import { useRig } from '../shared/rig-context.js';

/** The rig's name, and behind it what can be done with the rig as a whole, from every room. */
export const RigMenu = ({ showHistory }: { showHistory: () => void }) => {
  const { rig, rigId, store } = useRig();
  const navigate = useNavigate();
  const [naming, name] = useState(false);
  const [wrong, setWrong] = useState('');
  const copy = async () => {
    try {
      const names = (await api.rigs()).map((r) => r.name);
      const { rig: asItIs, confirmed } = await store.toHandOn();
      const id = await copyRig(asItIs, rigId, names, confirmed);
      void navigate(`/rig/${id}/kit`);
    } catch (e) {
      setWrong(whyNot(e));
    }
  };
  return (
    <>
      <Menu position="bottom-start" width={230}>
        <Menu.Target>
          <button
            type="button"
            className="rig-name clip"
            title={rigName(rig)}
            aria-label={`${rigName(rig)}: the whole rig`}
          >
            {rigName(rig)} <span aria-hidden>▾</span>
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => void saveOpenRig(store)}>Save as a rig file</Menu.Item>
          <Menu.Item onClick={() => void copy()}>Make a copy</Menu.Item>
          <Menu.Item onClick={() => name(true)}>Rename</Menu.Item>
          <Menu.Item onClick={showHistory}>History</Menu.Item>
          <Menu.Item component={Link} to={`/rig/${rigId}/merge`}>
            Compare or merge
          </Menu.Item>
          <Menu.Divider />
          <Menu.Item component={Link} to="/">
            All rigs
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {naming && <Naming close={() => name(false)} />}
      <Modal opened={wrong !== ''} onClose={() => setWrong('')} title="No copy was made">
        {wrong}
      </Modal>
    </>
  );
};

const Naming = ({ close }: { close: () => void }) => {
  const { rig, edit } = useRig();
  const [typed, setTyped] = useState(rigName(rig));
  const about = partOf(rig, ABOUT);
  return (
    <Modal opened onClose={close} title="Rename the rig">
      <form
        className="rig-naming"
        onSubmit={(e) => {
          e.preventDefault();
          if (!about || !fits(typed, LONGEST.name)) return;
          edit({ put: [{ ...about, name: typed.trim() }], remove: [] }, `Name: ${typed.trim()}`);
          close();
        }}
      >
        <TextField
          label="Name of the rig"
          most={LONGEST.name}
          value={typed}
          onChange={(e) => setTyped(e.currentTarget.value)}
          data-autofocus
        />
        <Button type="submit" disabled={!fits(typed, LONGEST.name)}>
          Rename
        </Button>
      </form>
    </Modal>
  );
};
