import { number } from '../params/number';
import { SHOWS_AWAY, whole } from './at-moments';
import { definePass } from './define';

/** Hold: every picture stays for several frames. */
export const hold = definePass({
  type: 'hold',
  title: 'Hold frames',
  group: 'time',
  words: [
    'stop motion',
    'every second frame',
    'choppy',
    'on twos',
    'low frame rate',
    'posterise time',
    'stutter',
    'animated',
  ],
  help: 'Lets every picture stay for several frames, as in stop motion. Before Place it holds the footage, after Place how the layer moves, too. Relatives: Speed in Time, Shuffle frames.',
  params: {
    frames: number({
      label: 'Each stays for',
      unit: '',
      default: 3,
      min: 1,
      max: 240,
      slider: [1, 24],
      help: 'How many frames a picture stays.',
    }),
    first: number({
      label: 'Counted from',
      unit: '',
      default: 0,
      min: 0,
      max: 240,
      slider: [0, 24],
      help: 'The frame of the layer that the first picture stays from.',
    }),
  },
  idle: (v) => whole(v.frames) < 2,
  moment(v, frame) {
    const long = Math.max(1, whole(v.frames));
    const since = Math.floor(frame) - whole(v.first);
    return { away: since >= 0 ? -(since % long) : 0 };
  },
  ...SHOWS_AWAY,
});
