import { houseOn, nightsOf } from '@yunta/core/edits/houses';
import { CHECK_GROUPS } from '@yunta/core/derive/views/line-check';
import { DayCheck } from '../../shared/day-check.js';
import { useAsked, useRig } from '../../shared/rig-context.js';
import { today } from '../../shared/today.js';

/** Before the gig, line by line: what is taped, what comes to the desk, what each sound should be. */
export const LineChecks = () => {
  const lines = useAsked(['line check'], (worker) => worker.answers.lineCheck());
  if (!lines) return <p className="soft">Working it out …</p>;
  return (
    <>
      <Tonight />
      <DayCheck title="Line check" lines={lines} groups={CHECK_GROUPS} />
    </>
  );
};

/** What was found at the house where one plays today. */
const Tonight = () => {
  const { rig } = useRig();
  const house = houseOn(rig, today());
  if (!house) return null;
  const found = [
    house.sound && `${house.sound} house`,
    house.lift && `ground lifted: ${house.lift}`,
    house.eq && `EQ over all: ${house.eq}`,
    house.room,
    ...nightsOf(house).flatMap((on) => house.nights[on] || []),
  ].filter(Boolean);
  return (
    <p className="road-tonight">
      <strong>{house.name}</strong> {found.join('; ') || 'nothing is written of it yet'}
    </p>
  );
};
