import { Button } from '@mantine/core';
import type { LoopPlace, OrderPlace } from '@yunta/core/derive/views/sound-detail';
import { clearOrder, setArrangement } from '@yunta/core/edits/arrange';
import { setOrderReason, type Scope } from '@yunta/core/edits/sounds';
import { LONGEST } from '@yunta/core/rig/limits';
import { ok, refuse } from '@yunta/core/rig/result';
import { besideIn, carriedIn, inLineIn, readArrangement, slotsOf } from '@yunta/core/signal/graph/arrangement';
import { useRig } from '../../shared/rig-context.js';
import { TypedText } from '../../shared/typed-text.js';
import type { SoundOnCard } from './detail.js';

/**
 * In which order the stages come: what shares a loop is carried together, and where the switcher can lead ways beside
 * each other, a loop is put beside the one before it.
 */
export const Order = ({ sound, detail, scope }: SoundOnCard & { readonly scope: Scope }) => {
  const { edit } = useRig();
  const places = detail.order;
  const carried = places.filter((p) => p.loop);
  const controls = [...new Set(carried.flatMap((p) => p.loop?.control ?? []))];
  const put = (loop: LoopPlace, arrangement: string, what: string) => {
    if (arrangement === loop.arrangement) return;
    const slots = slotsOf(readArrangement(arrangement));
    const stages = carried
      .filter((p) => p.loop?.control === loop.control)
      .sort((a, b) => slots.indexOf(a.loop?.slot ?? '') - slots.indexOf(b.loop?.slot ?? ''))
      .flatMap((p) => p.stages);
    edit(setArrangement(sound, loop.control, arrangement, stages, scope), `${sound.name}: ${what}`);
  };
  return (
    <section>
      <h2>
        Order{' '}
        {detail.ownOrder && (
          <Button
            variant="default"
            size="compact-xs"
            onClick={() => edit(clearOrder(sound, controls), `${sound.name}: order as wired`)}
          >
            As wired again
          </Button>
        )}
      </h2>
      {places.length === 0 && <p className="soft">No stage is in this sound.</p>}
      <ol className="order">
        {places.map((place, i) => (
          <Place key={place.stages.join()} place={place} before={places[i - 1]} carried={carried} put={put} />
        ))}
      </ol>
      <p className="soft order-hint">
        {detail.ownOrder ? 'As this sound says it.' : 'As it is wired.'}{' '}
        {carried.length > 1
          ? 'What has arrows can change its place.'
          : carried.length === 0 && places.length > 0
            ? 'No box here can change it.'
            : ''}
      </p>
      {detail.ownOrder && (
        <div className="cell-why">
          <span>Why</span>
          <TypedText
            label={`Why in this order in ${sound.name}`}
            placeholder="a reason, if there is one"
            most={LONGEST.remark}
            text={sound.orderWhy ?? ''}
            read={(text) => {
              const refused = edit(setOrderReason(sound, text.trim() || undefined), `${sound.name}: why in this order`);
              return refused.length ? refuse(refused) : ok(undefined);
            }}
          />
        </div>
      )}
    </section>
  );
};

const Place = ({
  place,
  before,
  carried,
  put,
}: {
  place: OrderPlace;
  before: OrderPlace | undefined;
  carried: readonly OrderPlace[];
  put: (loop: LoopPlace, arrangement: string, what: string) => void;
}) => {
  const { loop, text } = place;
  if (!loop)
    return (
      <li className="fixed">
        <span className="mono">{text}</span>
      </li>
    );
  const ofSame = carried.filter((p) => p.loop?.control === loop.control);
  const shown = new Set(ofSame.flatMap((p) => p.loop?.slot ?? []));
  const goes = (by: -1 | 1) => carriedIn(loop.arrangement, loop.slot, by, shown);
  const beside = besideIn(loop.arrangement, loop.slot, shown, loop.ways);
  const isBeside = loop.beside !== undefined;
  const isSameGroup = isBeside && before?.loop?.beside?.group === loop.beside?.group;
  const isSameWay = isSameGroup && before?.loop?.beside?.way === loop.beside?.way;
  const step = (by: -1 | 1) => (
    <button
      type="button"
      aria-label={`${text} ${by < 0 ? 'earlier' : 'later'}`}
      disabled={goes(by) === loop.arrangement}
      onClick={() => put(loop, goes(by), `${text} ${by < 0 ? 'earlier' : 'later'}`)}
    >
      {by < 0 ? '◂' : '▸'}
    </button>
  );
  return (
    <li className={isBeside ? 'beside' : ''}>
      {isBeside && <span className="soft way">{isSameWay ? 'then' : isSameGroup ? 'beside' : 'either way'}</span>}
      {step(-1)}
      <span className="mono">{text}</span>
      {step(1)}
      {isBeside ? (
        <button
          type="button"
          aria-label={`${text} in line again`}
          onClick={() => put(loop, inLineIn(loop.arrangement, loop.slot), `${text} in line again`)}
        >
          ═
        </button>
      ) : (
        beside !== loop.arrangement && (
          <button
            type="button"
            aria-label={`${text} beside the one before it`}
            onClick={() => put(loop, beside, `${text} beside the one before it`)}
          >
            ∥
          </button>
        )
      )}
    </li>
  );
};
