import './merge.css';
import { Button, FileButton, Select } from '@mantine/core';
import { compare } from '@yunta/core/change/compare';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../../session/api.js';
import { useRig } from '../../shared/rig-context.js';
import { Merging } from './merging.js';
import { useOther } from './use-other.js';

/**
 * Another rig, or a file that somebody changed, beside this one: what stands otherwise, who changed it, and what of it
 * shall stand here too.
 */
export const Merge = () => {
  const { rigId, rig } = useRig();
  const { other, fromRig, fromFile, leave, wrong, isReading } = useOther();
  const { data: rigs } = useQuery({ queryKey: ['rigs'], queryFn: api.rigs });
  const differences = useMemo(() => other && compare(rig, other.rig, other.base), [rig, other]);
  const others = (rigs ?? []).filter((r) => r.id !== rigId && !r.removed);
  return (
    <div className="merge">
      <header>
        <h1>Compare or merge</h1>
        <p className="soft">
          A rig file that was saved here and changed by somebody else comes back without losing what either of you did.
        </p>
      </header>
      <div className="merge-with">
        <FileButton accept=".json,application/json" onChange={(file) => file && void fromFile(file)}>
          {(props) => (
            <Button disabled={isReading} {...props}>
              Choose a rig file
            </Button>
          )}
        </FileButton>
        <Select
          aria-label="Another rig of yours"
          placeholder="or another rig of yours"
          searchable
          w={280}
          data={others.map((r) => ({ value: r.id, label: r.name }))}
          value={null}
          onChange={(id) => id && void fromRig(id)}
          nothingFoundMessage="No rig has this name"
        />
        {isReading && <span className="soft">Reading …</span>}
      </div>
      {wrong && (
        <p role="alert" className="broken">
          {wrong} Nothing was changed.
        </p>
      )}
      {other && differences && <Merging key={other.name} other={other} differences={differences} leave={leave} />}
    </div>
  );
};
