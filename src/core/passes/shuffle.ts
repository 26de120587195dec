import { lotOf } from '../base/lot';
import { number } from '../params/number';
import { seed } from '../params/seed';
import { SHOWS_AWAY, whole } from './at-moments';
import { definePass } from './define';

/** Shuffle: frames in another order, by lot. */
export const shuffle = definePass({
  type: 'shuffle',
  title: 'Shuffle frames',
  group: 'time',
  lots: true,
  words: ['random frames', 'random order', 'jumpy', 'glitch', 'nervous', 'skip'],
  help: 'Shows frames from around the present one by lot: nervous, as torn film or a bad signal. Relatives: Hold frames, Afterimages.',
  params: {
    within: number({
      label: 'From within',
      unit: '',
      default: 6,
      min: 0,
      max: 240,
      slider: [0, 48],
      help: 'How many frames earlier or later the ones shown may be.',
    }),
    frames: number({
      label: 'Each stays for',
      unit: '',
      default: 2,
      min: 1,
      max: 240,
      slider: [1, 24],
      help: 'How many frames a picture stays.',
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is another order.' }),
  },
  idle: (v) => whole(v.within) === 0,
  moment(v, frame) {
    const long = Math.max(1, whole(v.frames));
    const turn = Math.floor(Math.floor(frame) / long);
    const lot = Math.floor(lotOf(turn, Math.round(v.seed)) * (2 * whole(v.within) + 1)) - whole(v.within);
    // earlier than the layer begins there is nothing; then as far the other way
    const first = turn * long + lot;
    return { away: Math.abs(first) - Math.floor(frame) };
  },
  ...SHOWS_AWAY,
});
