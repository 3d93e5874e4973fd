import { Button } from '@mantine/core';
import { addDevice, addMade } from '@yunta/core/edits/devices';
import { theFirst } from '@yunta/core/known/the';
import { useState } from 'react';
import { newPartId } from '../../session/ids.js';
import { useRig } from '../../shared/rig-context.js';
import { Said, SayField, useSaid } from '../../shared/said/said.js';
import { Shelves } from './shelves.js';

/** The line in which a person says what they have, and what it was taken for, before anything is added. */
export const KitLine = () => {
  const { rig, hookup, edit } = useRig();
  const said = useSaid();
  const [browsing, browse] = useState(false);
  const { count, boxes } = said;
  const add = () => {
    if (count === 0) return;
    const label = count === 1 ? `Add ${theFirst(boxes).box.says[0]}` : `Add ${count} boxes`;
    if (edit(said.adding(rig, hookup?.id), label).length === 0) said.keepRest();
  };
  return (
    <div className="card">
      <label htmlFor="kit-line" className="soft">
        Say what you have, as you would say it. Enter adds it; a pasted list works too.
      </label>
      <div className="said-line">
        <SayField
          id="kit-line"
          size="md"
          said={said}
          done={add}
          minRows={1}
          maxRows={8}
          autoFocus
          placeholder="guitar into wah into 2 drives, then stereo delay midi ch 3, then a combo"
        />
        <Button size="md" disabled={count === 0} onClick={add}>
          {count === 0 ? 'Add boxes' : count === 1 ? 'Add 1 box' : `Add ${count} boxes`}
        </Button>
        <Button size="md" variant="default" onClick={() => browse(true)}>
          Shelves
        </Button>
      </div>
      <Shelves
        opened={browsing}
        close={() => browse(false)}
        add={(g) => edit(addDevice(rig, g.key, newPartId('device')), `Add ${theFirst(g.says)}`)}
        addOwn={(box) => edit(addMade(rig, box, newPartId('device')), `Add ${box.name}`)}
      />
      <Said said={said} />
    </div>
  );
};
