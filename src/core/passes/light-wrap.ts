import { number } from '../params/number';
import { definePass } from './define';

/**
 * Light wrap. The pass itself leaves the picture as it is: the plan takes its values to where the layer meets the layers below,
 * whose blurred light is screened over the inner edge there.
 */
export const lightWrap = definePass({
  type: 'light-wrap',
  title: 'Light wrap',
  group: 'cut out',
  space: 'shot',
  words: ['glow over the edge', 'blend into background', 'background light', 'edge', 'integrate'],
  help: 'Lets the light of the layers below glow over the edge of this one, so that it belongs there. Seen in the shot, not in the layer alone. Relatives: Refine edge, Adjust.',
  params: {
    reach: number({
      label: 'Reach',
      unit: 'px',
      default: 14,
      min: 0,
      max: 500,
      slider: [0, 80],
      help: 'How far the light comes in over the edge.',
    }),
    strength: number({
      label: 'Strength',
      unit: '%',
      default: 0.6,
      min: 0,
      max: 4,
      slider: [0, 2],
      help: 'How bright it is.',
    }),
  },
  idle: () => true,
  prepare: () => () => undefined,
});
