import { choice } from '../params/choice';
import { lotOf } from '../base/lot';
import { number } from '../params/number';
import { seed } from '../params/seed';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** Flicker: light that changes by lot, or goes on and off. */
export const flicker = definePass({
  type: 'flicker',
  title: 'Flicker',
  group: 'light',
  words: [
    'strobe',
    'blink',
    'candle',
    'fire light',
    'neon',
    'broken lamp',
    'old projector',
    'stop and go',
    'lightning',
  ],
  help: 'Lets the picture, or how much of it is seen, change by lot as a candle or an old projector does, or go on and off. Relatives: Glow, a wobble on any dial.',
  uses: [
    {
      title: 'Strobe',
      words: ['on and off', 'disco light', 'blinks evenly', 'flash'],
      values: { what: 'seen', way: 'beat', depth: 1, pace: 3 },
    },
  ],
  params: {
    what: choice({
      label: 'Changes',
      default: 'light',
      options: [
        { value: 'light', label: 'how bright it is' },
        { value: 'seen', label: 'how much is seen' },
      ],
      help: 'What of the picture changes.',
    }),
    way: choice({
      label: 'It',
      default: 'lot',
      options: [
        { value: 'lot', label: 'flickers by lot' },
        { value: 'beat', label: 'goes on and off' },
      ],
      help: 'By lot as a flame, or evenly as a strobe.',
    }),
    depth: number({
      label: 'Depth',
      unit: '%',
      default: 0.35,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much is missing at its darkest.',
    }),
    pace: number({
      label: 'Frames to a change',
      unit: '',
      default: 2,
      min: 0.5,
      max: 240,
      slider: [0.5, 24],
      help: 'How many frames lie from one change to the next.',
    }),
    seed: seed({
      label: 'Seed',
      default: 1,
      help: 'Another number is another flicker.',
      when: { choice: 'way', is: 'lot' },
    }),
  },
  idle: (v) => v.depth === 0,
  reach: () => 0,
  moment(v, frame) {
    const beat = frame / Math.max(0.5, v.pace);
    const turn = Math.floor(beat);
    if (v.way === 'beat') return { gain: turn % 2 ? 1 - v.depth : 1 };
    // from one lot to the next in a soft step
    const t = beat - turn;
    const [from, to] = [lotOf(turn, Math.round(v.seed)), lotOf(turn + 1, Math.round(v.seed))];
    return { gain: 1 - v.depth * (from + (to - from) * t * t * (3 - 2 * t)) };
  },
  run(picture, v, { kernels, arena }) {
    const { gain = 1 } = v as unknown as { gain?: number };
    const out = Picture.make(arena, picture.rect);
    if (v.what === 'light') kernels.dimSpan(picture.at, out.at, out.pixels, gain);
    else {
      kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
      kernels.addScaled(picture.at, out.at, out.pixels, gain);
    }
    return out;
  },
});
