import { Button } from '@mantine/core';
import { notOffered, type Offer } from '@yunta/core/edits/cables';
import type { Jack } from '@yunta/core/rig/device';
import { ref, splitRef, type Id, type Ref } from '@yunta/core/rig/ids';
import { cablesOf, partOf } from '@yunta/core/rig/rig';
import type { LevelsShown } from '@yunta/core/derive/views/levels-shown';
import type { Lit } from '@yunta/core/signal/drawing/map';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { isPressing } from '../../shared/findings.js';
import { useRig } from '../../shared/rig-context.js';
import { roomOf } from '../../shared/rooms.js';
import { SeverityMark } from '../../shared/severity.js';
import { dbuText } from '../../picture/dbu-text.js';
import type { MapFocus } from '../../picture/map.js';
import { StandingSample } from '../../picture/map-drawing.js';
import { CableTags } from './cable-tags.js';
import { boxName, jackText } from './jack-text.js';
import { MoveBox } from './move-box.js';
import { Trial } from './trial.js';
import { jackIn } from '@yunta/core/rig/box';

interface Hands {
  readonly plug: (from: Ref, to: Ref) => void;
  readonly pull: (cable: Id<'cable'>) => void;
  readonly pickBox: (id: Id<'device'>) => void;
  readonly pickJack: (jack: Ref) => void;
  readonly aim: (device: Id<'device'> | undefined) => void;
  readonly letGo: () => void;
}

export const MapPanel = ({
  focus,
  lit,
  levels,
  soundName,
  offers,
  ...hands
}: {
  focus: MapFocus;
  lit: Lit | undefined;
  levels: LevelsShown | undefined;
  soundName: string | undefined;
  offers: readonly Offer[];
} & Hands) => {
  if (focus.jack) return <JackPanel jack={focus.jack} offers={offers} {...hands} />;
  if (focus.cable) return <CablePanel cable={focus.cable} {...hands} />;
  if (focus.box)
    return <BoxPanel box={focus.box} lit={lit} dbu={levels?.boxes[focus.box]} soundName={soundName} {...hands} />;
  return <Idle lit={lit} soundName={soundName} />;
};

const Idle = ({ lit, soundName }: { lit: Lit | undefined; soundName: string | undefined }) => {
  const { view, hookup, point, pointed } = useRig();
  const here = view?.findings.filter((f) => isPressing(f) && roomOf(f.code) === 'routing') ?? [];
  return (
    <aside className="card map-panel">
      {lit?.silent && (
        <p className="broken">
          {soundName ? `“${soundName}” is silent in this hook-up.` : 'The rig is silent as it stands.'}
        </p>
      )}
      <h2>{here.length ? 'Findings here' : 'Nothing to find fault with here'}</h2>
      {here.map((f) => (
        <button
          key={f.fingerprint}
          type="button"
          className={`map-finding ${pointed === f.evidence ? 'chosen' : ''}`}
          onClick={() => point(pointed === f.evidence ? [] : f.evidence)}
        >
          <SeverityMark severity={f.severity} /> <strong>{f.title}</strong>
          <span>{f.why}</span>
        </button>
      ))}
      <ul className="map-standings soft" aria-label="How boxes are drawn">
        {(
          [
            ['in', 'in the path'],
            ['bypassed', 'in the path, bypassed'],
            ['fed', 'fed, but not heard'],
            ['outside', 'outside the path'],
            ['apart', 'no signal comes by'],
          ] as const
        ).map(([standing, text]) => (
          <li key={standing}>
            <StandingSample standing={standing} /> {text}
          </li>
        ))}
      </ul>
      {hookup && <Trial hookup={hookup} />}
      <p className="soft" style={{ fontSize: 14 }}>
        Click a box for its jacks, a jack to patch it, a cable to pull it. By key: Tab to a box, Enter, then the number
        of the offer.
      </p>
    </aside>
  );
};

const jackKind = (jack: Jack): string =>
  [
    jack.poles.tip && jack.poles.ring && jack.poles.tip !== jack.poles.ring
      ? 'send and return on one jack'
      : (jack.poles.tip ?? jack.poles.ring) === 'in'
        ? 'takes'
        : 'gives',
    jack.kind === 'audio' ? `${jack.level ?? 'instrument'} level` : jack.kind,
    jack.connector,
  ].join(', ');

const BoxPanel = ({
  box,
  lit,
  dbu,
  soundName,
  pickJack,
  pull,
  letGo,
}: { box: Id<'device'>; lit: Lit | undefined; dbu: number | undefined; soundName: string | undefined } & Hands) => {
  const { rig, hookup, view } = useRig();
  const navigate = useNavigate();
  const device = partOf(rig, box);
  if (!device || !hookup) return null;
  const cables = cablesOf(rig, hookup.id);
  const findings = view?.findings.filter((f) => isPressing(f) && f.evidence.includes(box)) ?? [];
  const standing = lit?.boxes[box];
  return (
    <aside className="card map-panel" aria-label={`Jacks of ${device.name}`}>
      <h2>
        <span className="mono">{device.code}</span> {device.name}
      </h2>
      {soundName && (
        <p className="soft" style={{ margin: '0 0 8px' }}>
          {standing
            ? { in: 'In the path', bypassed: 'Bypassed', fed: 'Fed, but not heard', outside: 'Outside the path' }[
                standing
              ]
            : 'Not in the signal path'}{' '}
          in “{soundName}”.{dbu !== undefined && ` Behind it ${dbuText(dbu)} on average.`}
        </p>
      )}
      <table className="plain jacks">
        <tbody>
          {device.jacks.map((jack) => {
            const r = ref(device.id, jack.id);
            const cable = cables.find((c) => c.ends.includes(r));
            const far = cable?.ends.find((end) => end !== r);
            return (
              <tr key={jack.id}>
                <td>
                  <button type="button" className="link mono" title={jackKind(jack)} onClick={() => pickJack(r)}>
                    {jack.id}
                  </button>
                </td>
                <td className={far ? 'mono' : 'soft'}>
                  {far ? `${(jack.poles.tip ?? jack.poles.ring) === 'in' ? '←' : '→'} ${jackText(rig, far)}` : 'free'}
                </td>
                <td style={{ textAlign: 'right' }}>
                  {cable && (
                    <Button
                      variant="default"
                      size="compact-xs"
                      aria-label={`Pull the plug out of ${jack.id}`}
                      onClick={() => pull(cable.id)}
                    >
                      Pull
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <MoveBox key={device.id} device={device} hookup={hookup} />
      {findings.map((f) => (
        <p key={f.fingerprint} style={{ margin: '10px 0 0' }}>
          <SeverityMark severity={f.severity} /> {f.why}
        </p>
      ))}
      <div style={{ display: 'flex', gap: 8, marginTop: 12 }}>
        <Button size="xs" variant="default" onClick={() => void navigate('../kit')}>
          Change the box
        </Button>
        <Button size="xs" variant="default" onClick={letGo}>
          Done
        </Button>
      </div>
    </aside>
  );
};

const MOST_OFFERS = 9;

const JackPanel = ({ jack, offers, plug, pickBox, aim, letGo }: { jack: Ref; offers: readonly Offer[] } & Hands) => {
  const { rig, hookup } = useRig();
  const [every, showEvery] = useState(false);
  const [why, showWhy] = useState(false);
  const { device, name } = splitRef(jack);
  const part = jackIn(partOf(rig, device), name);
  if (!part || !hookup) return null;
  const far = cablesOf(rig, hookup.id)
    .find((c) => c.ends.includes(jack))
    ?.ends.find((end) => end !== jack);
  const refused = notOffered(rig, jack);
  const shown = every ? offers : offers.slice(0, MOST_OFFERS);
  return (
    <aside className="card alarm map-panel" aria-label={`Where ${jackText(rig, jack)} goes`}>
      <p className="soft" style={{ margin: 0 }}>
        {(part.poles.tip ?? part.poles.ring) === 'in' ? 'What should come here?' : 'Where should this go?'}
      </p>
      <h2 style={{ margin: '2px 0' }}>
        <span className="mono">{jackText(rig, jack)}</span>
      </h2>
      <p className="soft" style={{ margin: '0 0 8px', fontSize: 14 }}>
        {jackKind(part)}
        {far ? `; now ${jackText(rig, far)}` : ''}
      </p>
      {offers.length === 0 && <p>Nothing in the kit fits this jack.</p>}
      <ol className="map-offers">
        {shown.map((o, i) => (
          <li key={o.jack}>
            <button
              type="button"
              onClick={() => plug(jack, o.jack)}
              onMouseEnter={() => aim(splitRef(o.jack).device)}
              onMouseLeave={() => aim(undefined)}
              onFocus={() => aim(splitRef(o.jack).device)}
            >
              <strong>
                {i < MOST_OFFERS && <kbd className="mono">{i + 1}</kbd>}{' '}
                <span className="mono">{jackText(rig, o.jack)}</span>
              </strong>{' '}
              <span className="soft">{boxName(rig, o.jack)}</span>
              <span>{o.why}</span>
            </button>
          </li>
        ))}
      </ol>
      {offers.length > MOST_OFFERS && !every && (
        <button type="button" className="link" onClick={() => showEvery(true)}>
          all {offers.length}
        </button>
      )}
      {refused.length > 0 && (
        <div className="soft" style={{ marginTop: 10, fontSize: 14 }}>
          Not offered: {refused.length} {refused.length === 1 ? 'jack' : 'jacks'}.{' '}
          <button type="button" className="link" aria-expanded={why} onClick={() => showWhy(!why)}>
            Why?
          </button>
          {why && (
            <ul style={{ margin: '6px 0 0', paddingLeft: 18 }}>
              {[...new Set(refused.map((r) => r.why))].map((reason) => (
                <li key={reason}>
                  {reason}:{' '}
                  {refused
                    .filter((r) => r.why === reason)
                    .slice(0, 12)
                    .map((r) => jackText(rig, r.jack))
                    .join(', ')}
                  {refused.filter((r) => r.why === reason).length > 12 ? ' …' : ''}
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
      <div style={{ display: 'flex', gap: 8, marginTop: 12 }}>
        <Button size="xs" variant="default" onClick={() => pickBox(device)}>
          Its box
        </Button>
        <Button size="xs" variant="default" onClick={letGo}>
          Done
        </Button>
      </div>
    </aside>
  );
};

const CablePanel = ({ cable: id, pull, pickBox, letGo }: { cable: Id<'cable'> } & Hands) => {
  const { rig, view } = useRig();
  const cable = partOf(rig, id);
  const listed = view?.cables.find((c) => c.cable.id === id);
  if (!cable) return null;
  const [from, to] = listed ? [listed.from, listed.to] : cable.ends;
  const findings = view?.findings.filter((f) => isPressing(f) && f.evidence.includes(id)) ?? [];
  return (
    <aside className="card map-panel" aria-label="Cable">
      <h2>
        <span className="mono">
          {jackText(rig, from)} → {jackText(rig, to)}
        </span>
      </h2>
      <p style={{ margin: '0 0 8px' }}>
        <button type="button" className="link" onClick={() => pickBox(splitRef(from).device)}>
          {boxName(rig, from)}
        </button>{' '}
        to{' '}
        <button type="button" className="link" onClick={() => pickBox(splitRef(to).device)}>
          {boxName(rig, to)}
        </button>
      </p>
      <CableTags key={id} cable={cable} called={`${jackText(rig, from)} → ${jackText(rig, to)}`} />
      {findings.map((f) => (
        <p key={f.fingerprint}>
          <SeverityMark severity={f.severity} /> {f.why}
        </p>
      ))}
      <div style={{ display: 'flex', gap: 8 }}>
        <Button size="xs" onClick={() => pull(id)}>
          Pull it
        </Button>
        <Button size="xs" variant="default" onClick={letGo}>
          Done
        </Button>
      </div>
    </aside>
  );
};
