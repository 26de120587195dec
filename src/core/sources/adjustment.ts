import { layers } from '../params/reference';
import { defineSource } from './define';

/** No picture of its own: its passes work on others. */
export const adjustment = defineSource({
  type: 'adjustment',
  title: 'Adjustment',
  words: ['adjustment layer', 'effect on everything', 'all layers below', 'look', 'grade all'],
  help: 'Its passes work on everything that lies below it, or only on the layers that you name. Its opacity says how strongly; a Mask pass says where.',
  params: {
    layers: layers({
      label: 'Works on',
      default: [],
      help: 'The layers that it changes; without a choice everything below.',
    }),
  },
  timed: false,
  found: 'below',
});
