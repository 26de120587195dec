import { boolean } from '../params/boolean';
import { stock as stockParam } from '../params/reference';
import { defineSource } from './define';

/** Frames of imported media. */
export const stock = defineSource({
  type: 'stock',
  title: 'Stock',
  words: ['clip', 'video', 'picture', 'footage', 'photo', 'media'],
  help: 'A clip, picture or sound of the stock.',
  params: {
    stock: stockParam({ label: 'Stock', default: 'none', help: 'Which item of the stock it shows.' }),
    bare: boolean({
      label: 'Leave out the clip’s own passes',
      default: false,
      help: 'Shows the clip as it was recorded, without the passes that belong to it in every shot.',
    }),
  },
  timed: true,
  found: 'stock',
});
