import { Button, FileButton } from '@mantine/core';
import { LONGEST } from '@yunta/core/rig/limits';
import { useState } from 'react';
import { Said, SayField, useSaid } from '../../shared/said/said.js';
import { TextField } from '../../shared/text-field.js';
import { useBegin } from './use-begin.js';

/** How a rig begins: by saying what is in it, by a way to wire it, from a table, from files. */
export const NewRig = ({ changed }: { changed: () => Promise<unknown> }) => {
  const [name, setName] = useState('');
  const said = useSaid();
  const { begin, open, making, wrong } = useBegin(name, said, changed);
  const isFitting = name.trim().length <= LONGEST.name;
  const start = () => {
    if (isFitting && !making) void begin(said.isChain && said.count > 1 ? 'routing' : 'kit');
  };
  return (
    <section className="card rigs-new" aria-labelledby="new">
      <h2 id="new">A new rig</h2>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          start();
        }}
      >
        <TextField
          label="Name"
          most={LONGEST.name}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
          autoFocus
        />
        <SayField
          said={said}
          done={start}
          label="What is in it, as you would say it"
          description="May stay empty. “guitar into wah into drive, then a combo” is wired in that order."
          minRows={2}
          maxRows={6}
        />
        <Said said={said} />
        <Button type="submit" disabled={making || !isFitting}>
          {said.count ? `Begin with ${said.count} ${said.count === 1 ? 'box' : 'boxes'}` : 'Begin'}
        </Button>
      </form>
      <div className="rigs-begin">
        <Button variant="default" disabled={making} onClick={() => void begin('routing?show=start')}>
          By a way to wire it
        </Button>
        <Button variant="default" disabled={making} onClick={() => void begin('kit?paste')}>
          From a table
        </Button>
        <FileButton multiple accept=".json,application/json" onChange={(files) => files.length > 0 && void open(files)}>
          {(props) => (
            <Button variant="default" disabled={making} {...props}>
              From rig files
            </Button>
          )}
        </FileButton>
      </div>
      {wrong.map((why) => (
        <p key={why} role="alert" className="broken">
          {why}
        </p>
      ))}
    </section>
  );
};
