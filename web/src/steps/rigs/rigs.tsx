import { Button, FileButton, TextInput } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { writeRigFile } from '@yunta/core/formats/rig-file';
import { newRig } from '@yunta/core/rig/rig';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Mark } from '../../app/mark.js';
import { api, Away, Refused } from '../../session/api.js';
import { newId } from '../../session/ids.js';

const slug = (name: string): string => name.toLowerCase().normalize('NFKD').replaceAll(/[^a-z0-9]+/g, '-').replaceAll(/^-+|-+$/g, '').slice(0, 30);

/** All rigs of this person: open one, begin one, or bring one from a file. */
export const Rigs = () => {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { data, isError } = useQuery({ queryKey: ['rigs'], queryFn: api.rigs, refetchInterval: 5000 });
  const [name, setName] = useState('');
  const [wrong, setWrong] = useState('');
  const create = async (file: string, from: string) => {
    const id = `${slug(from) || 'rig'}-${newId().slice(2, 8)}`;
    try {
      await api.create(id, newId(), file);
      await queries.invalidateQueries({ queryKey: ['rigs'] });
      void navigate(`/rig/${id}/kit`);
    } catch (e) {
      setWrong(e instanceof Refused ? e.problem.detail : e instanceof Away ? 'The server does not answer; nothing was made. Try again when it is back.' : String(e));
    }
  };
  return (
    <main style={{ maxWidth: 760, margin: '0 auto', padding: '32px 20px' }}>
      <div style={{ display: 'flex', gap: 12, alignItems: 'center', marginBottom: 24 }}><Mark /><h1>Yunta</h1><span className="soft">Design a stage rig, program it, prove that every sound comes back.</span></div>
      <section className="card" aria-labelledby="rigs">
        <h2 id="rigs">Rigs</h2>
        {isError && <p className="broken">The server does not answer. Rigs that were open in this browser can still be opened at their address.</p>}
        {data?.length === 0 && <p className="soft">No rig yet. Begin one below: name it, then say what is in your kit.</p>}
        <table className="plain">
          <tbody>
            {data?.map((rig) => (
              <tr key={rig.id}>
                <td style={{ maxWidth: 380 }}><Link to={`/rig/${rig.id}/sounds`} style={{ color: 'inherit', fontWeight: 700, overflowWrap: 'anywhere' }}>{rig.name}</Link>{rig.demo && <span className="soft"> · demo</span>}</td>
                <td className="soft">revision {rig.revision}</td>
                <td className="soft">{new Date(rig.changed).toLocaleString()}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section className="card" aria-labelledby="new" style={{ marginTop: 16 }}>
        <h2 id="new">A new rig</h2>
        <form style={{ display: 'flex', gap: 10, alignItems: 'end' }} onSubmit={(e) => { e.preventDefault(); if (name.trim()) void create(writeRigFile(newRig(name.trim())), name); }}>
          <TextInput label="Name" style={{ flex: 1 }} maxLength={120} value={name} onChange={(e) => setName(e.currentTarget.value)} autoFocus />
          <Button type="submit" disabled={!name.trim()}>Begin</Button>
          <FileButton accept=".json,application/json" onChange={(file) => void file?.text().then((text) => create(text, file.name.replace(/\.yunta\.json$|\.json$/, '')))}>
            {(props) => <Button variant="default" {...props}>From a rig file</Button>}
          </FileButton>
        </form>
        {wrong && <p role="alert" className="broken">{wrong}</p>}
      </section>
    </main>
  );
};
