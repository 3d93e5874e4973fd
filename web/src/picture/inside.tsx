import { insideText } from '@yunta/core/catalogue/inside';
import type { Chain, Slot } from '@yunta/core/rig/device';
import { theId } from '@yunta/core/rig/ids';
import type { Item } from '@yunta/core/signal/drawing/picture';
import { useMemo } from 'react';
import { RunDrawing } from './run.js';

interface Said {
  readonly code: string;
  readonly name: string;
}

/** The inside of a box as runs, one for each chain, in the language in which a sound's path is drawn. */
export const Inside = ({ chains }: { chains: readonly Chain[] }) => {
  const drawn = useMemo(() => chains.map((chain) => ({ chain, ...runOfChain(chain) })), [chains]);
  return drawn.map(({ chain, items, names }) => (
    <div key={chain.id}>
      <div className="soft mono" style={{ fontSize: 13 }}>
        {insideText([chain]).split(':')[0]}
      </div>
      <RunDrawing items={items} label={`Chain ${chain.id}`} said={(id) => names.get(id) ?? { code: '?', name: '' }} />
    </div>
  ));
};

const runOfChain = (chain: Chain): { readonly items: readonly Item[]; readonly names: ReadonlyMap<string, Said> } => {
  const names = new Map<string, Said>();
  const box = (code: string, name: string): Extract<Item, { is: 'box' }> => {
    const id = theId('device', `device:${names.size}`);
    names.set(id, { code, name });
    return { is: 'box', device: id, stages: [] };
  };
  const jacks = (taps: Chain['from']) => [...new Set(taps.map((t) => t.at))].join(' ');
  const series = (slots: readonly Slot[]): readonly Item[] =>
    slots.map((slot): Item => {
      switch (slot.is) {
        case 'block':
          return box(slot.id.slice(0, 5).toUpperCase(), slot.stage);
        case 'insert': {
          const host = box(slot.id, slot.id);
          return {
            is: 'loop',
            device: host.device,
            insert: slot.id,
            on: true,
            inside: [box('▸', `${jacks(slot.send)} / ${jacks(slot.return)}`)],
          };
        }
        case 'fork':
          return {
            is: 'split',
            arms: slot.arms.map((a) => (a.slots.length ? series(a.slots) : [box('—', a.id)])),
            joins: true,
          };
      }
    });
  return {
    items: [
      box('▷', jacks(chain.from)),
      ...series(chain.slots),
      { is: 'end', end: 'device:x.x', name: jacks(chain.to), by: [], sides: [] },
    ],
    names,
  };
};
