import { CHECK_GROUPS } from '@yunta/core/derive/views/line-check';
import { DayCheck } from '../../shared/day-check.js';
import { useAsked } from '../../shared/rig-context.js';

/** Before the gig, line by line: what is taped, what comes to the desk, what each sound should be. */
export const LineChecks = () => {
  const lines = useAsked(['line check'], (worker) => worker.answers.lineCheck());
  if (!lines) return <p className="soft">Working it out …</p>;
  return <DayCheck title="Line check" lines={lines} groups={CHECK_GROUPS} />;
};
