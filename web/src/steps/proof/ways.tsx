import { surely } from '@yunta/core/known/the';
import { useRig } from '../../shared/rig-context.js';

/** In how many ways the controls that the proof reckons with can stand. */
export const Ways = () => {
  const [figures, power] = surely(useRig().view).ways.split('^');
  return (
    <>
      {figures}
      {power && <sup>{power}</sup>} ways
    </>
  );
};
