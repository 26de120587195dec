import { shot } from '../params/reference';
import { defineSource } from './define';

/** Another shot as one picture. */
export const group = defineSource({
  type: 'group',
  title: 'Group',
  words: ['nest', 'together', 'several as one', 'scene', 'bundle'],
  help: 'Several layers as one picture: placed, keyed, blurred and timed together. Double-click it to work inside.',
  params: { shot: shot({ label: 'Shot', default: 'none', help: 'The shot that it shows.' }) },
  timed: true,
  found: 'shot',
});
