import './power.css';
import { Button, Switch } from '@mantine/core';
import type { Power, PoweredOutput, PoweredSupply, UnpoweredBox } from '@yunta/core/derive/views/power';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { feedBoxes } from '@yunta/core/edits/feed';
import { newPartId } from '../../session/ids.js';
import { useRig } from '../../shared/rig-context.js';
import { usePower } from '../../shared/use-power.js';
import { countText } from '../../shared/outputs-text.js';
import { PrintButton } from '../../shared/paper/paper.js';
import { PowerPaper } from './power-paper.js';
import { BoxesThatNeed } from './needs.js';
import { WallAndBatteries } from './wall.js';

const many = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;

/** Whether everything can be fed: who hangs on which output, who is left, and what to buy. */
export const PowerRoom = () => {
  const [chains, allow] = useState(false);
  const { power, isOlder, failed } = usePower(chains);
  return (
    <div className="power">
      <div className="headline">
        <h1>Power</h1>
        {power && power.boxes > 0 && <span className="soft">{countText(power)}</span>}
        <div className="tools">
          <Switch
            size="sm"
            label="One output may feed several boxes"
            checked={chains}
            onChange={(e) => allow(e.currentTarget.checked)}
          />
          {power && <PlugIt power={power} isOlder={isOlder} />}
          {power && power.supplies.length > 0 && <PrintButton what="who is fed by what" />}
        </div>
      </div>
      {power && <Fed power={power} allowChains={() => allow(true)} />}
      {!power && !failed && <p className="soft">Working it out …</p>}
      {failed && <p className="broken">The planner found nothing in its time.</p>}
      <BoxesThatNeed />
      <WallAndBatteries />
      {power && <PowerPaper power={power} />}
    </div>
  );
};

const NEW_ID = { cable: () => newPartId('cable'), device: () => newPartId('device') };

const PlugIt = ({ power: { toPlug, boxes, outputs }, isOlder }: { power: Power; isOlder: boolean }) => {
  const { rig, edit, hookup } = useRig();
  if (!hookup || boxes === 0 || outputs.used === 0) return null;
  const plug = () => {
    const fed = toPlug.reduce((n, wish) => n + wish.needs.length, 0);
    edit(feedBoxes(rig, hookup.id, toPlug, NEW_ID), `Feed ${many(fed, 'box', 'boxes')} as planned`);
  };
  return toPlug.length > 0 ? (
    <Button size="xs" disabled={isOlder} onClick={plug}>
      Plug it so in {hookup.name}
    </Button>
  ) : (
    <span className="soft">All leads are plugged so in {hookup.name}.</span>
  );
};

const Fed = ({ power, allowChains }: { power: Power; allowChains: () => void }) => {
  const navigate = useNavigate();
  if (power.boxes === 0 && power.supplies.length === 0)
    return (
      <section className="card">
        <p>Nothing in the kit needs a supply yet.</p>
        <Button size="xs" variant="default" onClick={() => void navigate('../kit')}>
          Add boxes in Kit
        </Button>
      </section>
    );
  return (
    <>
      <div aria-live="polite">
        {power.left.length > 0 ? (
          <LeftOver power={power} allowChains={allowChains} />
        ) : (
          <p>
            <strong>Everything can be fed.</strong>{' '}
            {power.isProved && power.special.length > 0 && 'No way needs fewer special leads.'}
          </p>
        )}
      </div>
      {power.special.length > 0 && <p>To have at hand: {power.special.join('; ')}.</p>}
      {power.atHome.length > 0 && (
        <p className="soft">
          Not in this hook-up, and not counted: {power.atHome.map((b) => `${b.code} ${b.name}`).join(', ')}.
        </p>
      )}
      {power.mixed.map((codes) => (
        <p key={codes.join()} className="broken">
          Digital boxes and high gain share one common here: {codes.join(', ')}. That can whine.
        </p>
      ))}
      {power.supplies.map((supply) => (
        <Supply key={supply.device} supply={supply} />
      ))}
    </>
  );
};

const LeftOver = ({ power, allowChains }: { power: Power; allowChains: () => void }) => {
  const navigate = useNavigate();
  return (
    <section className="card alarm">
      <h2>{many(power.left.length, 'box stays', 'boxes stay')} without a supply</h2>
      <ul className="power-left">
        {power.left.map((box) => (
          <Left key={`${box.device} ${box.needs}`} box={box} />
        ))}
      </ul>
      <div className="power-ways">
        {power.byChains !== undefined && (
          <Button size="xs" variant="default" onClick={allowChains}>
            {power.byChains === power.left.length
              ? 'Feed them by leads with several plugs'
              : `Feed ${power.byChains} of them by leads with several plugs`}
          </Button>
        )}
        <Button size="xs" variant="default" onClick={() => void navigate('../kit')}>
          Add a supply in Kit
        </Button>
      </div>
    </section>
  );
};

const Left = ({ box }: { box: UnpoweredBox }) => (
  <li>
    <strong>
      <span className="mono">{box.code}</span> {box.name}
    </strong>{' '}
    ({box.needs}): {box.why}. Needed: {box.buy}.
  </li>
);

const wattsText = ({ watts: { taken, gives } }: PoweredSupply): string =>
  `${taken.toFixed(1)} W${gives === undefined ? '' : ` of ${gives} W`}`;

const Supply = ({ supply }: { supply: PoweredSupply }) => (
  <section className="card" aria-label={`${supply.code} ${supply.name}`}>
    <h2>
      <span className="mono">{supply.code}</span> {supply.name}{' '}
      <small className="soft">
        {supply.outputs.filter((o) => o.boxes.length === 0).length} free, {wattsText(supply)}
        {supply.hours !== undefined && `, lasts about ${supply.hours.toFixed(1)} hours`}
      </small>
    </h2>
    <ol className="sockets">
      {supply.outputs.map((output) => (
        <Socket key={output.jack} output={output} />
      ))}
    </ol>
  </section>
);

/** From here on little is left to spare; the finding says the same. */
const TIGHT = 0.8;

const Socket = ({ output }: { output: PoweredOutput }) => {
  const share = output.takes / output.gives;
  return (
    <li className={`socket ${output.boxes.length ? '' : 'is-free'}`}>
      <div className="socket-head">
        <span className="mono">{output.label}</span>
        <span>{output.volts}</span>
      </div>
      {output.boxes.length === 0 ? (
        <span className="soft">
          free, {output.gives} mA{output.isShared ? ', common with its neighbours' : ''}
        </span>
      ) : (
        <>
          {output.boxes.map((box) => (
            <div key={box.device}>
              <strong className="mono">{box.code}</strong> {box.name}
              {box.adapters.length > 0 && <div>lead: {box.adapters.join(', ')}</div>}
              {!box.isPlugged && <div className="soft">not plugged yet</div>}
            </div>
          ))}
          {output.joinedWith.length > 0 && <div>joined with {output.joinedWith.join(' and ')}</div>}
          <div className={`socket-load ${share > TIGHT ? 'is-tight' : ''}`} aria-hidden="true">
            <span style={{ width: `${Math.min(100, share * 100)}%` }} />
          </div>
          <span className="soft">
            {output.takes} of {output.gives} mA{share > TIGHT ? ', little to spare' : ''}
          </span>
        </>
      )}
    </li>
  );
};
