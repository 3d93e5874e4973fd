import { Button, Select } from '@mantine/core';
import { setHears, setLevel, type Scope } from '@yunta/core/edits/sounds';
import type { HeardView, SoundDetail } from '@yunta/core/derive/views/sound-detail';
import { theRef } from '@yunta/core/rig/ids';
import { soundsInOrder } from '@yunta/core/rig/rig';
import type { Sound } from '@yunta/core/rig/sound';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { Amount } from './amount.js';
import { Hands } from './hands.js';
import { Order } from './order.js';
import { Pedals } from './pedals.js';
import { theFirst } from '@yunta/core/known/the';

/** What a sound says besides its row: in which order, heard where, how loud, what is under a pedal. */
export const Detail = ({ sound, scope }: { sound: Sound; scope: Scope }) => {
  const detail = useAsked(['detail', sound.id], (worker) => worker.answers.soundDetail(sound.id));
  if (!detail) return <div className="card sound-detail">…</div>;
  return (
    <div className="card sound-detail">
      <Order sound={sound} detail={detail} scope={scope} />
      <Ends sound={sound} detail={detail} />
      <Level sound={sound} detail={detail} />
      <Pedals sound={sound} detail={detail} scope={scope} />
      <Hands key={sound.id} sound={sound} />
      {detail.beats.length > 0 && (
        <section>
          <h2>Times in beats</h2>
          {detail.beats.map((b) => (
            <p key={b}>{b}</p>
          ))}
        </section>
      )}
      {detail.fails.length > 0 && (
        <section role="status">
          <h2 className="broken">Not possible here</h2>
          {detail.fails.map((f) => (
            <p key={f} className="broken">
              {f}
            </p>
          ))}
        </section>
      )}
    </div>
  );
};

export interface SoundOnCard {
  readonly sound: Sound;
  readonly detail: SoundDetail;
}

const AS = [
  { value: 'sounds', label: 'is heard' },
  { value: 'stereo', label: 'is heard in stereo' },
  { value: 'silent', label: 'is silent' },
  { value: 'either', label: 'as it comes' },
] as const;

const Ends = ({ sound, detail }: SoundOnCard) => {
  const { edit } = useRig();
  const { ends } = detail;
  const put = (next: readonly HeardView[]) =>
    edit(
      setHears(
        sound,
        next.map(({ from, at, as }) => ({ from, at, as })),
      ),
      `${sound.name}: where it is heard`,
    );
  const change = (i: number, what: Partial<HeardView>) => put(ends.map((e, k) => (k === i ? { ...e, ...what } : e)));
  const spare = detail.places.find((p) => !ends.some((e) => e.at === p.value)) ?? detail.places[0];
  return (
    <section>
      <h2>
        Where it is heard{' '}
        {detail.ownEnds && (
          <Button
            variant="default"
            size="compact-xs"
            onClick={() => edit(setHears(sound, undefined), `${sound.name}: heard as the hook-up says`)}
          >
            As the hook-up says
          </Button>
        )}
      </h2>
      {ends.map((e, i) => (
        <div key={`${e.from} ${e.at} ${i}`} className="end">
          <Select
            size="xs"
            aria-label={`Source ${i + 1}`}
            allowDeselect={false}
            data={[...detail.sources]}
            value={e.from}
            onChange={(v) => v && change(i, { from: theRef(v) })}
          />
          <Select
            size="xs"
            aria-label={`How source ${i + 1} is heard`}
            allowDeselect={false}
            data={[...AS]}
            value={e.as}
            onChange={(v) => v && change(i, { as: v })}
          />
          <Select
            size="xs"
            aria-label={`Where source ${i + 1} is heard`}
            allowDeselect={false}
            data={[...detail.places]}
            value={e.at}
            onChange={(v) => v && change(i, { at: theRef(v) })}
          />
          <span className="soft">now {e.now}</span>
          {ends.length > 1 && (
            <Button
              variant="default"
              size="compact-xs"
              aria-label={`Remove end ${i + 1}`}
              onClick={() => put(ends.filter((_, k) => k !== i))}
            >
              ×
            </Button>
          )}
        </div>
      ))}
      {ends.length === 0 && <p className="soft">Nothing is wired to be heard yet.</p>}
      {spare && detail.sources[0] && (
        <Button
          variant="default"
          size="compact-xs"
          onClick={() =>
            put([
              ...ends,
              {
                from: ends[0]?.from ?? theFirst(detail.sources).value,
                at: spare.value,
                as: 'sounds',
                now: 'not at all',
              },
            ])
          }
        >
          Another end
        </Button>
      )}
    </section>
  );
};

const Level = ({ sound, detail }: SoundOnCard) => {
  const { rig, edit } = useRig();
  const others = soundsInOrder(rig)
    .filter((s) => s.id !== sound.id)
    .map((s) => ({ value: s.id, label: s.name }));
  return (
    <section>
      <h2>How loud</h2>
      <div className="end">
        <Amount
          key={sound.id}
          says="How much louder, in dB"
          width={90}
          value={sound.level?.db ?? 0}
          disabled={!sound.level}
          save={(db) =>
            sound.level && db !== undefined
              ? edit(setLevel(sound, { ...sound.level, db }), `${sound.name}: ${db} dB`)
              : []
          }
        />
        <span className="soft">louder than</span>
        <Select
          size="xs"
          aria-label="Louder than which sound"
          placeholder="no wish"
          searchable
          clearable
          data={others}
          value={sound.level?.than ?? null}
          onChange={(v) =>
            edit(
              setLevel(sound, v ? { than: v, db: sound.level?.db ?? 0 } : undefined),
              v ? `${sound.name}: level against another` : `${sound.name}: no wish for its level`,
            )
          }
        />
      </div>
      {detail.level && (
        <p className="soft" style={{ margin: 0 }}>
          {detail.level.is === undefined
            ? 'The two are not heard at the same end.'
            : `${detail.level.measured ? 'Measured' : 'By what is stated and differs'} it is ${Math.abs(detail.level.is)} dB ${detail.level.is < 0 ? 'softer' : 'louder'}; wished ${detail.level.wished}.`}
        </p>
      )}
    </section>
  );
};
