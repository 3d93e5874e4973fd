import { Button } from '@mantine/core';
import { readRigFile } from '@yunta/core/formats/rig-file';
import { ABOUT, partOf } from '@yunta/core/rig/rig';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

/** The rig files that ship with the handbook; read when somebody looks for them. */
const FILES = import.meta.glob<string>('../../../../examples/*/*.json', { query: '?raw', import: 'default' });
const FAILING = '/recall/';

interface Example {
  readonly path: string;
  readonly file: string;
  readonly name: string;
  readonly notes: string;
}

const read = async (): Promise<readonly Example[]> =>
  Promise.all(
    Object.entries(FILES).map(async ([path, load]) => {
      const file = await load();
      const rig = readRigFile(file);
      const about = rig.ok ? partOf(rig.value, ABOUT) : undefined;
      return { path, file, name: about?.name ?? path, notes: about?.notes ?? '' };
    }),
  );

/** Rigs to learn from: those in which recall breaks, each in its own way, and plain ones as people play them. */
export const Learn = ({ open }: { open: (file: string, name: string) => void }) => {
  const [shown, show] = useState(false);
  const { data } = useQuery({ queryKey: ['examples'], queryFn: read, enabled: shown, staleTime: Infinity });
  const list = (title: string, of: readonly Example[]) => (
    <>
      <h3>{title}</h3>
      <ul className="learn">
        {of.map((one) => (
          <li key={one.path}>
            <button type="button" className="link" onClick={() => open(one.file, one.name)}>
              {one.name}
            </button>
            {one.notes && <div className="soft">{one.notes}</div>}
          </li>
        ))}
      </ul>
    </>
  );
  return (
    <section className="card" aria-labelledby="learn">
      <h2 id="learn">Rigs to learn from</h2>
      {!shown && (
        <>
          <p className="soft">Twelve in which a sound does not come back, and some as people wire and play them.</p>
          <Button variant="default" onClick={() => show(true)}>
            Show them
          </Button>
        </>
      )}
      {data &&
        list(
          'A sound does not come back',
          data.filter((e) => e.path.includes(FAILING)),
        )}
      {data &&
        list(
          'As people play them',
          data.filter((e) => !e.path.includes(FAILING)),
        )}
    </section>
  );
};
