import { Button, NumberInput, Select } from '@mantine/core';
import type { Listening, Setting, Terms } from '@yunta/core/derive/views/terms';
import { setHeard, setSetting, usualHeard } from '@yunta/core/edits/hookups';
import type { HeardWish, Hookup } from '@yunta/core/rig/hookup';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { theOne } from '@yunta/core/known/the';

const ASKED: readonly { readonly value: HeardWish['as']; readonly label: string }[] = [
  { value: 'sounds', label: 'must be heard' },
  { value: 'stereo', label: 'must be heard with two sides' },
  { value: 'silent', label: 'must be silent' },
  { value: 'either', label: 'may be heard or not' },
];

/**
 * What holds for every sound in a hook-up: who is heard where, a mono house or a stereo one, an amp or none, and what
 * is set once.
 */
export const HookupTerms = ({ hookup }: { hookup: Hookup }) => {
  const terms = useAsked(['terms', hookup.id], (worker) => worker.answers.terms());
  const { edit } = useRig();
  if (!terms || (terms.listening.length === 0 && terms.settings.length === 0)) return null;
  return (
    <div className="card">
      <h2>What holds in {hookup.name}</h2>
      {terms.listening.length > 0 && (
        <>
          <p className="soft" style={{ margin: '2px 0 8px' }}>
            {terms.usual
              ? 'Nobody said who is to be heard where, so the instrument is to be heard in the house, or from the loudspeakers on stage where there is no house.'
              : 'For every sound, unless a sound says otherwise.'}
            {!terms.usual && (
              <>
                {' '}
                <Button
                  variant="default"
                  size="compact-xs"
                  onClick={() => edit(usualHeard(hookup), `${hookup.name}: heard as usual`)}
                >
                  Back to the usual
                </Button>
              </>
            )}
          </p>
          <table className="plain">
            <thead>
              <tr>
                <th>from</th>
                <th>to</th>
                <th>wanted</th>
                <th>what the sounds do</th>
              </tr>
            </thead>
            <tbody>
              {terms.listening.map((l) => (
                <Pair key={`${l.from} ${l.at}`} pair={l} terms={terms} hookup={hookup} />
              ))}
            </tbody>
          </table>
        </>
      )}
      {terms.settings.length > 0 && (
        <>
          <h2 style={{ marginTop: 16 }}>Set once, before the first song</h2>
          <table className="plain" style={{ width: 'auto' }}>
            <tbody>
              {terms.settings.map((s) => (
                <Once key={s.control} setting={s} hookup={hookup} />
              ))}
            </tbody>
          </table>
        </>
      )}
    </div>
  );
};

const doesText = ({ heard, wide, of }: Listening): string => {
  if (of === 0) return 'no sounds yet';
  if (heard === 0) return 'silent in every sound';
  return `heard in ${heard === of ? 'every sound' : `${heard} of ${of}`}${wide ? `, with two sides in ${wide === of ? 'every one' : wide}` : ''}`;
};

const keeps = ({ as, heard, wide, of }: Listening): boolean =>
  !((as === 'sounds' && heard < of) || (as === 'silent' && heard > 0) || (as === 'stereo' && wide < of));

const Pair = ({ pair, terms, hookup }: { pair: Listening; terms: Terms; hookup: Hookup }) => {
  const { edit } = useRig();
  const from = theOne(terms.sources, (s) => s.ref === pair.from).name;
  const at = theOne(terms.ends, (e) => e.ref === pair.at).name;
  return (
    <tr>
      <td>{from}</td>
      <td>{at}</td>
      <td>
        <Select
          aria-label={`${from} at ${at}`}
          size="xs"
          w={220}
          allowDeselect={false}
          data={[...ASKED]}
          value={pair.as ?? 'either'}
          onChange={(as) =>
            as &&
            edit(
              setHeard(hookup, terms.standing, { from: pair.from, at: pair.at, as: as }),
              `${from} ${theOne(ASKED, (a) => a.value === as).label} at ${at}`,
            )
          }
        />
      </td>
      <td className={keeps(pair) ? '' : 'broken'}>
        {keeps(pair) ? '' : '≠ '}
        {doesText(pair)}
      </td>
    </tr>
  );
};

const AS_IT_WAKES = 'as it comes on';

const Once = ({ setting, hookup }: { setting: Setting; hookup: Hookup }) => {
  const { edit } = useRig();
  const { control, box, name, domain, value, said } = setting;
  const label = `${box}: ${name}`;
  const set = (to: Setting['value'] | undefined) =>
    edit(setSetting(hookup, control, to), `${label} ${to ?? AS_IT_WAKES}`);
  return (
    <tr>
      <td style={{ paddingRight: 40 }}>{label}</td>
      <td style={{ width: 250 }}>
        {'values' in domain && (
          <Select
            aria-label={label}
            size="xs"
            w={220}
            allowDeselect={false}
            value={said ? String(value) : AS_IT_WAKES}
            data={[
              { value: AS_IT_WAKES, label: `as the box comes on: ${value}` },
              ...domain.values.map((v) => ({ value: String(v), label: String(v) })),
            ]}
            onChange={(v) => v && set(v === AS_IT_WAKES ? undefined : domain.values.find((x) => String(x) === v))}
          />
        )}
        {'min' in domain && (
          <div style={{ display: 'flex', gap: 8 }}>
            <NumberInput
              aria-label={label}
              size="xs"
              w={120}
              min={domain.min}
              max={domain.max}
              clampBehavior="strict"
              suffix={domain.unit ? ` ${domain.unit}` : ''}
              value={Number(value)}
              onChange={(v) => typeof v === 'number' && v >= domain.min && v <= domain.max && v !== value && set(v)}
            />
            {said && (
              <Button variant="default" size="compact-xs" onClick={() => set(undefined)}>
                As it comes on
              </Button>
            )}
          </div>
        )}
        {'arrange' in domain && <span className="mono">{String(value)}</span>}
      </td>
    </tr>
  );
};
