import { Chip, Group } from '@mantine/core';
import { connect, givesOut, offers, takesIn, unplug } from '@yunta/core/edits/cables';
import type { Jack } from '@yunta/core/rig/device';
import { ref, splitRef, type Id, type Ref } from '@yunta/core/rig/ids';
import { partOf, thePart, type Rig } from '@yunta/core/rig/rig';
import { LAYERS, type Layer } from '@yunta/core/signal/drawing/map';
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { RoutingMapView, type MapFocus } from '../../picture/map.js';
import type { LaidMap } from '../../picture/map-layout.js';
import { useMap } from '../../picture/use-map.js';
import { newPartId } from '../../session/ids.js';
import { jackText } from './jack-text.js';
import { MapPanel } from './map-panel.js';
import { SaveAs } from './save-as.js';
import { theJack } from '@yunta/core/rig/box';
import { surely } from '@yunta/core/known/the';

const LAYER_NAMES: Readonly<Record<Layer, string>> = {
  audio: 'Signal',
  midi: 'MIDI',
  control: 'Control',
  power: 'Power',
};

/** What is in hand: a box, a jack or a cable; the keyboard goes with it, and back to the map when it is let go. */
const useHand = () => {
  const { select } = useRig();
  const [focus, setFocus] = useState<MapFocus>({});
  const pickBox = useCallback(
    (box: Id<'device'>) => {
      select(box);
      setFocus({ box });
    },
    [select],
  );
  const pickJack = useCallback((jack: Ref) => setFocus({ box: splitRef(jack).device, jack }), []);
  const pickCable = useCallback((cable: Id<'cable'>) => setFocus({ cable }), []);
  const letGo = useCallback(() => setFocus({}), []);
  const panel = useRef<HTMLDivElement>(null);
  const inHand = focus.jack ?? focus.cable ?? focus.box;
  const [last, setLast] = useState(inHand);
  useEffect(() => {
    if (inHand) panel.current?.focus({ preventScroll: true });
    else if (last)
      document
        .querySelector<HTMLElement>(`.react-flow__node[data-id="${last.includes('.') ? splitRef(last).device : last}"]`)
        ?.focus({ preventScroll: true });
    setLast(inHand);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what is in hand moves the keyboard
  }, [inHand]);
  return { focus, setFocus, pickBox, pickJack, pickCable, letGo, panel };
};

/** Where the signal goes on from a jack that was plugged: the next free output of its box. */
const onward = (rig: Rig, laid: LaidMap | undefined, to: Ref): Ref | undefined => {
  const jack = theJack(rig, to);
  if (!takesIn(jack) || jack.kind !== 'audio') return undefined;
  const { device } = splitRef(to);
  const isFree = (j: Jack): boolean => !laid?.cables.some((c) => c.cable.from === ref(device, j.id));
  const next = thePart(rig, device).jacks.find((j) => j.kind === 'audio' && givesOut(j) && isFree(j));
  return next && ref(device, next.id);
};

/** The map with what is under the hand beside it: a box and its jacks, a jack and where it could go, a cable. */
export const MapRoom = ({ sound }: { sound: { readonly id: Id<'sound'>; readonly name: string } | undefined }) => {
  const { rig, hookup, edit, pointed } = useRig();
  const laid = useMap();
  const lit = useAsked(['lit', sound?.id], (worker) => worker.answers.lit(sound?.id));
  const levels = useAsked(['levels shown', sound?.id], (worker) => worker.answers.levelsShown(sound?.id));
  const [isWithLevels, showLevels] = useState(false);
  const [chosenLayers, chooseLayers] = useState<Layer[]>(['audio']);
  const layers = useMemo(() => new Set(chosenLayers), [chosenLayers]);
  const { focus, setFocus, pickBox, pickJack, pickCable, letGo, panel } = useHand();
  if (!hookup) return null;
  const plug = (from: Ref, to: Ref) => {
    const [a, b] = givesOut(theJack(rig, from)) ? [from, to] : [to, from];
    const label = `Plug ${jackText(rig, a)} → ${jackText(rig, b)}`;
    if (edit(connect(rig, hookup.id, newPartId('cable'), a, b), label).length > 0) return;
    const next = onward(rig, laid, to);
    setFocus({ box: splitRef(to).device, ...(next ? { jack: next } : {}) });
  };
  const pull = (cable: Id<'cable'>) => {
    const part = partOf(rig, cable);
    if (
      part &&
      edit(unplug(cable), `Pull ${jackText(rig, part.ends[0])} → ${jackText(rig, part.ends[1])}`).length === 0
    )
      setFocus(focus.box ? { box: focus.box } : {});
  };
  const fitting = focus.jack ? offers(rig, hookup.id, focus.jack) : [];
  const keyInHand = (e: KeyboardEvent) => {
    if (e.key === 'Escape') letGo();
    if (!focus.jack || !/^[1-9]$/.test(e.key) || e.target instanceof HTMLInputElement) return;
    const offer = fitting[Number(e.key) - 1];
    if (offer) plug(focus.jack, offer.jack);
  };
  return (
    <div className="map-room" onKeyDown={keyInHand}>
      <div className="map-side">
        {laid ? (
          <RoutingMapView
            laid={laid}
            lit={lit}
            {...(isWithLevels ? { levels } : {})}
            layers={layers}
            focus={focus}
            pointed={pointed}
            label={sound ? `Map of ${hookup.name} with the path of ${sound.name}` : `Map of ${hookup.name}`}
            pickBox={pickBox}
            pickJack={pickJack}
            pickCable={pickCable}
            letGo={letGo}
          />
        ) : (
          <p className="soft">Laying out …</p>
        )}
        {laid && (
          <div className="map-save">
            <SaveAs
              laid={laid}
              lit={lit}
              {...(isWithLevels ? { levels } : {})}
              layers={layers}
              soundName={sound?.name}
            />
          </div>
        )}
        <Group gap={8} mt={8} role="group" aria-label="What the map shows">
          <Chip.Group multiple value={chosenLayers} onChange={chooseLayers}>
            {LAYERS.map((l) => (
              <Chip key={l} value={l} size="xs" variant="outline" color="dark">
                {LAYER_NAMES[l]}
              </Chip>
            ))}
          </Chip.Group>
          <Chip size="xs" variant="outline" color="dark" checked={isWithLevels} onChange={showLevels}>
            Levels
          </Chip>
          <Legend layers={layers} />
        </Group>
      </div>
      <div ref={panel} tabIndex={-1} className="map-hold">
        <MapPanel
          focus={focus}
          lit={lit}
          levels={levels}
          soundName={sound?.name}
          offers={fitting}
          plug={plug}
          pull={pull}
          pickBox={pickBox}
          pickJack={pickJack}
          aim={(aimed) => setFocus(aimed ? { ...focus, aimed } : { box: surely(focus.box), jack: surely(focus.jack) })}
          letGo={letGo}
        />
      </div>
    </div>
  );
};

const LEGEND: readonly { readonly layer: Layer; readonly lead: string; readonly text: string }[] = [
  { layer: 'audio', lead: 'lit', text: 'this sound' },
  { layer: 'audio', lead: 'instrument', text: 'instrument' },
  { layer: 'audio', lead: 'line', text: 'L line' },
  { layer: 'audio', lead: 'balanced', text: 'B balanced' },
  { layer: 'audio', lead: 'speaker', text: 'S speaker' },
  { layer: 'midi', lead: 'MIDI', text: 'M MIDI' },
  { layer: 'control', lead: 'control', text: 'C control' },
  { layer: 'power', lead: 'power', text: 'P power' },
];

const Legend = ({ layers }: { layers: ReadonlySet<Layer> }) => (
  <div className="map-legend soft">
    {LEGEND.filter((l) => layers.has(l.layer)).map((l) => (
      <span key={l.lead}>
        <svg width={26} height={8} aria-hidden="true">
          <path className={`map-lead ${l.lead}`} d="M0 4H26" />
        </svg>{' '}
        {l.text}
      </span>
    ))}
  </div>
);
