import { BUILD_LAYERS } from '@yunta/core/derive/views/build-order';
import { DayCheck } from '../../shared/day-check.js';
import { useAsked } from '../../shared/rig-context.js';

/** On build day, layer by layer: nothing is tied down before it was heard. */
export const InOrder = () => {
  const steps = useAsked(['build order'], (worker) => worker.answers.buildOrder());
  if (!steps) return <p className="soft">Working it out …</p>;
  return <DayCheck title="Build order" lines={steps} groups={BUILD_LAYERS} />;
};
