import { Button } from '@mantine/core';
import type { PackingView } from '@yunta/core/board/packed';
import { pack, readThing } from '@yunta/core/edits/packing';
import { together } from '@yunta/core/change/edit';
import type { Id } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import type { PackCase, Packed } from '@yunta/core/rig/packing';
import { sayRefusal } from '@yunta/core/rig/result';
import { Choice } from '../../../shared/choice.js';
import { useRig } from '../../../shared/rig-context.js';
import { TypedLine } from '../../../shared/typed-line.js';

interface LooseProps {
  readonly view: PackingView;
  readonly into: PackCase;
  readonly choose: (id: Id<'packCase'>) => void;
}

/** What no case holds yet, and a line for whatever else comes along. */
export const Loose = ({ view, into, choose }: LooseProps) => {
  const { rig, edit } = useRig();
  const put = (name: string, thing: Packed): void => void edit(pack(into, name, thing), `${name} into ${into.name}`);
  const add = (text: string): readonly string[] => {
    const read = readThing(rig, text);
    if (!read.ok) return read.error.map(sayRefusal);
    return edit(pack(into, read.value.name, read.value.thing), `${read.value.name} into ${into.name}`).map(sayRefusal);
  };
  const all = [
    ...view.looseBoards.map((board): [string, Packed] => [board, { board }]),
    ...view.loose.map((d): [string, Packed] => [d.name, { device: d.id }]),
  ];
  const everything = (): void => {
    const filled = all.reduce((one, [name, thing]) => pack(one, name, thing).put[0], into);
    edit(together({ put: [filled], remove: [] }), `${all.length} things into ${into.name}`);
  };
  return (
    <section className="card" aria-label="Put into a case">
      <h2>Put into a case</h2>
      <Choice
        label="Into"
        data={view.cases.map((c) => ({ value: c.case.id, label: c.case.name }))}
        value={into.id}
        choose={choose}
      />
      <TypedLine
        label="Anything else"
        description="How many, what, what one weighs."
        placeholder="3 picks, 2 g"
        button="Put in"
        most={LONGEST.name}
        add={add}
      />
      {all.length > 0 && (
        <>
          <h3>Not packed yet: {all.length}</h3>
          <ul className="packing-loose">
            {all.map(([name, thing]) => (
              <li key={name}>
                <Button size="compact-sm" variant="default" onClick={() => put(name, thing)}>
                  {name}
                </Button>
              </li>
            ))}
          </ul>
          {all.length > 1 && (
            <Button size="xs" mt="xs" variant="default" onClick={everything}>
              All of it into {into.name}
            </Button>
          )}
        </>
      )}
      {view.stays.length > 0 && (
        <p className="soft">Packed, and not plugged in this hook-up: {view.stays.join(', ')}. It may stay at home.</p>
      )}
    </section>
  );
};
