import { SHOE_MM } from '@yunta/core/rig/board';
import { Button, Checkbox, MultiSelect, NumberInput, Select } from '@mantine/core';
import { callersIn, type Caller } from '@yunta/core/edits/calls';
import { songsOfEngagement } from '@yunta/core/edits/engagements';
import { slotsOfRig, type SlotsOfRig } from '@yunta/core/plan/slots/of-rig';
import { BANK_FOR, NO_WISHES, saysWhere, wished, type BankFor, type SlotWishes } from '@yunta/core/plan/slots/wishes';
import { theId, type Id } from '@yunta/core/rig/ids';
import { all, partOf, type Rig } from '@yunta/core/rig/rig';
import type { SetList, Song } from '@yunta/core/rig/show';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useRig } from '../../shared/rig-context.js';
import { Mirror } from './mirror.js';
import { SlotsPlan } from './slots-plan.js';
import { WishCosts } from './wish-costs.js';

/** Whose songs the slots are planned for. */
type For = 'set' | 'act' | 'all';

const songsFor = (rig: Rig, list: SetList | undefined, whose: For): readonly Song[] => {
  if (whose === 'act' && list?.engagement) return songsOfEngagement(rig, list.engagement);
  return whose !== 'all' && list ? list.songs.flatMap((id) => partOf(rig, id) ?? []) : all(rig, 'song');
};

const BANK_FOR_LABELS: Readonly<Record<BankFor, string>> = {
  role: 'one role',
  act: 'one act',
  instrument: 'one instrument',
  song: 'one song',
};

/** What is asked of the slots, as it stands in the controls of the room. */
const useSlotsAsked = (list: SetList | undefined) => {
  const { rig } = useRig();
  const callers = callersIn(rig).filter((c) => c.by === 'slot' && !c.isScene);
  const [chosen, choose] = useState<string>();
  const [kept, keep] = useState<readonly Id<'sound'>[]>([]);
  const [banks, use] = useState<number>();
  const [whose, setWhose] = useState<For>(list?.engagement ? 'act' : 'set');
  const [wishes, wish] = useState<SlotWishes>(NO_WISHES);
  const caller = callers.find((c) => `${c.device} ${c.memory}` === chosen) ?? callers[0];
  const found = useMemo(() => {
    const songs = songsFor(rig, list, whose);
    const act = whose === 'act' && list?.engagement ? partOf(rig, list.engagement) : undefined;
    const only = act?.banks?.find((b) => b.device === caller?.device && b.memory === caller.memory);
    const plain = caller && slotsOfRig(rig, caller, songs, { kept: new Set(kept), most: banks, only });
    return plain && { songs, plain, of: wished(rig, plain, songs, wishes), isKept: only !== undefined };
  }, [rig, list, caller?.device, caller?.memory, kept, banks, whose, wishes]); // eslint-disable-line react-hooks/exhaustive-deps -- a caller is told by its box and memory
  return { rig, callers, caller, found, choose, kept, keep, use, whose, setWhose, wishes, wish };
};

/**
 * Where sounds stand on the controller, so that the songs need the fewest stomps: what it is now, what it could be with
 * what the player wishes of it, and which sounds would move.
 */
export const SlotsRoom = ({ list }: { list: SetList | undefined }) => {
  const asked = useSlotsAsked(list);
  const { caller, found, kept, wishes, whose } = asked;
  if (!caller) return <p className="soft">No box of this rig calls sounds from slots.</p>;
  if (!found)
    return (
      <>
        <p className="soft">
          No song calls a sound of {caller.code} yet. Type the cues of the songs in <Link to="?show=songs">Songs</Link>,
          and this tells where their sounds are best stored.
        </p>
        {list && whose !== 'all' && (
          <Button size="xs" variant="default" onClick={() => asked.setWhose('all')}>
            Look at all songs
          </Button>
        )}
        <Mirror caller={caller} />
      </>
    );
  const { of, plain, songs } = found;
  const key = [
    caller.device,
    caller.memory,
    whose,
    of.firstBank,
    of.problem.banks,
    kept,
    JSON.stringify(wishes),
  ].join();
  return (
    <div className="slots-room">
      <Asked asked={asked} list={list} caller={caller} of={of} isKept={found.isKept} />
      <SlotsPlan
        key={key}
        setup={of}
        songs={songs}
        wishes={wishes}
        code={caller.code}
        takeBanks={found.isKept ? undefined : asked.use}
      />
      <WishCosts key={`${key} costs`} plain={plain} songs={songs} />
      <Mirror caller={caller} />
    </div>
  );
};

interface AskedProps {
  readonly asked: ReturnType<typeof useSlotsAsked>;
  readonly list: SetList | undefined;
  readonly caller: Caller;
  readonly of: SlotsOfRig;
  /** The banks are those that are kept for the act. */
  readonly isKept: boolean;
}

const Asked = ({ asked, list, caller, of, isKept }: AskedProps) => {
  const { rig, callers, choose, kept, keep, use, whose, setWhose, wishes, wish } = asked;
  const act = list?.engagement && partOf(rig, list.engagement);
  return (
    <>
      <div className="sheet-tools">
        {callers.length > 1 && (
          <Select
            size="xs"
            aria-label="Slots of which box"
            allowDeselect={false}
            data={callers.map((c) => ({ value: `${c.device} ${c.memory}`, label: `${c.code} ${c.memory}` }))}
            value={`${caller.device} ${caller.memory}`}
            onChange={(v) => v && choose(v)}
          />
        )}
        {list && (
          <Select
            size="xs"
            w={230}
            aria-label="For which songs"
            allowDeselect={false}
            data={[
              { value: 'set', label: `for the set ${list.name}` },
              ...(act ? [{ value: 'act', label: `for the act ${act.name}` }] : []),
              { value: 'all', label: 'for all songs' },
            ]}
            value={act || whose !== 'act' ? whose : 'set'}
            onChange={(v) => setWhose(v === 'act' || v === 'all' ? v : 'set')}
          />
        )}
        <MultiSelect
          size="xs"
          aria-label="Sounds that stay where they are"
          placeholder={kept.length ? '' : 'sounds that stay where they are'}
          w={300}
          searchable
          data={of.sounds.map((s) => ({ value: s.id, label: s.name }))}
          value={[...kept]}
          onChange={(ids) => keep(ids.map((id) => theId('sound', id)))}
        />
        {isKept ? (
          <span className="soft">
            in the {of.problem.banks === 1 ? 'bank' : `${of.problem.banks} banks`} kept for the act
          </span>
        ) : (
          <NumberInput
            size="xs"
            w={130}
            aria-label="Banks to use"
            prefix="banks to use: "
            min={1}
            max={Math.ceil(of.memory.size / of.problem.switches)}
            value={of.problem.banks}
            onChange={(v) => use(Number(v) || undefined)}
          />
        )}
      </div>
      <Wishes wishes={wishes} wish={wish} code={caller.code} hasPlaces={saysWhere(rig, of)} />
    </>
  );
};

interface WishesProps {
  readonly wishes: SlotWishes;
  readonly wish: (wishes: SlotWishes) => void;
  readonly code: string;
  /** Somebody said where the switches are. */
  readonly hasPlaces: boolean;
}

/** What the player asks of the slots besides few stomps. */
const Wishes = ({ wishes, wish, code, hasPlaces }: WishesProps) => (
  <fieldset className="sheet-tools wishes">
    <legend className="visually-hidden">Wishes</legend>
    <Checkbox
      size="xs"
      label="each role on one switch in every bank"
      disabled={wishes.bankFor === 'song'}
      checked={wishes.roles && wishes.bankFor !== 'song'}
      onChange={(e) => wish({ ...wishes, roles: e.currentTarget.checked })}
    />
    <Checkbox
      size="xs"
      label={`a shoe apart within a song (${SHOE_MM} mm)`}
      description={
        hasPlaces ? undefined : `Nobody said where the switches of ${code} are: Kit, its box, Where its switches are`
      }
      disabled={!hasPlaces || wishes.bankFor === 'song'}
      checked={wishes.shoe && hasPlaces && wishes.bankFor !== 'song'}
      onChange={(e) => wish({ ...wishes, shoe: e.currentTarget.checked })}
    />
    <Checkbox
      size="xs"
      label="a sound may stand in two slots"
      disabled={wishes.bankFor === 'song'}
      checked={wishes.twice}
      onChange={(e) => wish({ ...wishes, twice: e.currentTarget.checked })}
    />
    <Select
      size="xs"
      w={200}
      aria-label="Each bank is for"
      placeholder="a bank may mix all"
      clearable
      data={BANK_FOR.map((b) => ({ value: b, label: `a bank is for ${BANK_FOR_LABELS[b]}` }))}
      value={wishes.bankFor ?? null}
      onChange={(v) => wish({ ...wishes, bankFor: BANK_FOR.find((b) => b === v) })}
    />
  </fieldset>
);
