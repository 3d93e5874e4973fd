import { Button, NativeSelect } from '@mantine/core';
import { theOneOf } from '@yunta/core/known/keys';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse } from '@yunta/core/rig/result';
import { ABOUT, partOf } from '@yunta/core/rig/rig';
import { STOCK_KINDS, type Stock } from '@yunta/core/rig/show';
import { useState } from 'react';
import { useRig } from '../../shared/rig-context.js';
import { TypedText } from '../../shared/typed-text.js';

const LONGEST_REEL = 1000;

/** Cable on reels and in drawers. */
export const Stocked = () => {
  const { rig, edit } = useRig();
  const [of, choose] = useState<Stock['of']>('instrument');
  const about = partOf(rig, ABOUT);
  if (!about) return null;
  const stock = about.stock ?? [];
  const keep = (next: readonly Stock[], label: string) =>
    edit({ put: [{ ...about, stock: next.length ? next : undefined }], remove: [] }, label);
  return (
    <section className="card" aria-label="Cable on reels">
      <h2>Cable on reels</h2>
      {stock.length === 0 && <p className="soft">None is written down. Leads to make are cut of what stands here.</p>}
      <ul className="build-reels">
        {stock.map((s, i) => (
          <li key={`${s.of} ${s.m} ${i}`}>
            <span>
              {s.m} m of {s.of} cable
            </span>
            <Button
              variant="default"
              size="compact-xs"
              aria-label={`Take away ${s.m} m of ${s.of} cable`}
              onClick={() =>
                keep(
                  stock.filter((_, k) => k !== i),
                  `Take away ${s.m} m of ${s.of} cable`,
                )
              }
            >
              Take away
            </Button>
          </li>
        ))}
      </ul>
      <div className="build-new">
        <NativeSelect
          size="xs"
          label="Kind"
          value={of}
          data={[...STOCK_KINDS]}
          onChange={(e) => choose(theOneOf(STOCK_KINDS, e.currentTarget.value))}
        />
        <div>
          <span className="field-label">Metres, then Enter</span>
          <TypedText
            label="Metres on a new reel"
            most={LONGEST.label}
            placeholder="10"
            text=""
            read={(typed) => {
              const m = Number(typed.trim().replace(',', '.').replace(/\s*m$/i, ''));
              if (!(m > 0 && m <= LONGEST_REEL))
                return refuse([
                  {
                    code: 'length',
                    where: 'Metres on a new reel',
                    wrong: `"${typed.trim().slice(0, 20)}" is no length of a reel.`,
                    would: `Write metres above 0 and up to ${LONGEST_REEL}.`,
                  },
                ]);
              keep([...stock, { of, m }], `${m} m of ${of} cable`);
              return ok(m);
            }}
          />
        </div>
      </div>
    </section>
  );
};
