import { number } from '../../params/number';

/** Saturation of what a pass makes, about its luma: the last step of `adjustSpan`. */
export const ofResult = number({
  label: 'Saturation',
  unit: '%',
  default: 1,
  min: 0,
  max: 4,
  slider: [0, 2],
  help: 'Of the result, about its luma.',
});
