import { NativeSelect } from '@mantine/core';
import { figuresOf, withFigure } from '@yunta/core/catalogue/figures';
import { changeDevice } from '@yunta/core/edits/devices';
import { fedOver, leadOver, supplyWays } from '@yunta/core/edits/feed';
import { needsNoSupply, noiseByKind, supplyNeeds, type SupplyNeed } from '@yunta/core/electric/supply';
import { SUPPLY_NOISES, type Device } from '@yunta/core/rig/device';
import { splitRef } from '@yunta/core/rig/ids';
import { LONGEST } from '@yunta/core/rig/limits';
import { all, cablesOf, thePart } from '@yunta/core/rig/rig';
import { newPartId } from '../../session/ids.js';
import { SourceChoice } from '../../shared/figures/source-choice.js';
import { TypedText } from '../../shared/typed-text.js';
import { useRig } from '../../shared/rig-context.js';

/** What each box takes, to be written over as its label says. */
export const BoxesThatNeed = () => {
  const { rig, hookup } = useRig();
  const needs = supplyNeeds(rig);
  const none = all(rig, 'device').filter(needsNoSupply);
  const hasWays = hookup !== undefined && supplyWays(rig).length > 0;
  if (all(rig, 'device').length === 0) return null;
  return (
    <section className="card">
      <h2>What each box takes</h2>
      <p className="soft">As it is printed beside its jack. What nobody wrote down is a typical value, assumed.</p>
      {needs.length > 0 && (
        <table className="plain tight power-needs">
          <thead>
            <tr>
              <th>box</th>
              <th>takes</th>
              <th>on a shared supply</th>
              {hasWays && <th>its lead goes</th>}
              <th>from</th>
            </tr>
          </thead>
          <tbody>
            {needs.map((need) => (
              <Need key={need.jack} need={need} hasWays={hasWays} />
            ))}
          </tbody>
        </table>
      )}
      {none.length > 0 && <p className="soft">Need none: {none.map((d) => d.name).join(', ')}.</p>}
    </section>
  );
};

const Need = ({ need, hasWays }: { need: SupplyNeed; hasWays: boolean }) => {
  const { rig, edit } = useRig();
  const device = thePart(rig, need.device);
  const { name: jack } = splitRef(need.jack);
  const key = `jack ${jack}: supply`;
  const text = figuresOf(device).find((f) => f.key === key)?.text ?? '';
  const own = device.figures.onSupply;
  const change = (figures: Device['figures'], what: string) =>
    edit(changeDevice(device, { figures }), `${device.code}: ${what}`);
  return (
    <tr>
      <td>
        <span className="mono">{device.code}</span> {device.name}
      </td>
      <td>
        <TypedText
          label={`${device.name}, what it takes`}
          most={LONGEST.name}
          text={text}
          read={(typed) => {
            const done = withFigure(device, key, typed);
            if (done.ok) edit({ put: [done.value], remove: [] }, `${device.code}: what it takes`);
            return done;
          }}
        />
      </td>
      <td>
        <NativeSelect
          size="xs"
          aria-label={`${device.name}, on a shared supply`}
          value={own ?? ''}
          data={[{ value: '', label: `${noiseByKind(device)}, by its kind` }, ...SUPPLY_NOISES]}
          onChange={(e) => {
            const { onSupply: _, ...figures } = device.figures;
            const chosen = SUPPLY_NOISES.find((n) => n === e.currentTarget.value);
            change(chosen ? { ...figures, onSupply: chosen } : figures, 'on a shared supply');
          }}
        />
      </td>
      {hasWays && (
        <td>
          <LedOver need={need} />
        </td>
      )}
      <td>
        <SourceChoice
          device={device}
          of={`jack ${jack}.supply`}
          about={`${device.name}, what it takes`}
          save={(next) => edit({ put: [next], remove: [] }, `${device.code}: where its figure comes from`)}
        />
      </td>
    </tr>
  );
};

/** Straight from the supply, or over a way of a multicore. */
const LedOver = ({ need }: { need: SupplyNeed }) => {
  const { rig, hookup, edit } = useRig();
  if (!hookup) return null;
  const device = thePart(rig, need.device);
  const ways = supplyWays(rig);
  const over = fedOver(rig, hookup.id, need.jack);
  const taken = new Set(cablesOf(rig, hookup.id).flatMap((c) => c.ends));
  const lead = (out: string) =>
    edit(
      leadOver(
        rig,
        hookup.id,
        need.jack,
        ways.find((w) => w.out === out),
        () => newPartId('cable'),
      ),
      `${device.code}: where its supply lead goes`,
    );
  return (
    <NativeSelect
      size="xs"
      aria-label={`${device.name}, where its supply lead goes`}
      value={over?.out ?? ''}
      data={[
        { value: '', label: 'straight' },
        ...ways.map((w) => ({
          value: w.out,
          label: `over ${thePart(rig, w.device).code} ${splitRef(w.into).name}`,
          disabled: taken.has(w.out) && w.out !== over?.out,
        })),
      ]}
      onChange={(e) => lead(e.currentTarget.value)}
    />
  );
};
