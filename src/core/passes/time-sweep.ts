import { choice } from '../params/choice';
import { number } from '../params/number';
import { Picture } from '../picture/picture';
import { together, whole } from './at-moments';
import { definePass } from './define';

/** Most moments that are shown beside each other. */
const MOST = 32;
const momentsOf = (v: { frames: number }): number[] => {
  const frames = whole(v.frames);
  const count = Math.min(MOST, frames);
  return Array.from({ length: count }, (_, i) => -Math.round(((i + 1) * frames) / count));
};

/** Time sweep: one side of the picture is earlier than the other. */
export const timeSweep = definePass({
  type: 'time-sweep',
  title: 'Time sweep',
  group: 'time',
  words: ['slit scan', 'time offset', 'time displacement', 'rolling shutter', 'stretch through time', 'warp time'],
  help: 'Shows one side of the picture as it is now and the other as it was, and all moments between: what moves is drawn out and bent. Relatives: Afterimages.',
  params: {
    frames: number({
      label: 'Earlier by',
      unit: '',
      default: 24,
      min: 0,
      max: 480,
      slider: [0, 96],
      help: 'How many frames earlier the far side is. More than 32 moments are stepped over.',
    }),
    way: choice({
      label: 'Now is',
      default: 'top',
      options: [
        { value: 'top', label: 'at the top' },
        { value: 'bottom', label: 'at the bottom' },
        { value: 'left', label: 'at the left' },
        { value: 'right', label: 'at the right' },
      ],
      help: 'Which side shows the present.',
    }),
  },
  idle: (v) => whole(v.frames) === 0,
  reach: () => 0,
  moments: momentsOf,
  run(picture, v, tools) {
    const { kernels, arena, size } = tools;
    const count = momentsOf(v).length;
    const all = together(picture, tools, count);
    const { x, y, w, h } = all[0].rect;
    const out = Picture.make(arena, all[0].rect);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const level = v.way === 'top' || v.way === 'bottom';
    /** how far in time a place lies from the present, in moments */
    const late = (at: number): number => {
      const share = (at + 0.5) / (level ? size.h : size.w);
      return count * Math.min(1, Math.max(0, v.way === 'top' || v.way === 'left' ? share : 1 - share));
    };
    // each moment is strongest at its place and goes over into its neighbours
    const weight = (k: number, at: number): number => Math.max(0, 1 - Math.abs(late(at) - k));
    const row = Picture.make(arena, { x: 0, y: 0, w, h: 1 });
    arena.scratch(w * 4 + 16, (plane) => {
      for (let k = 0; k <= count; k++) {
        // before the layer begins there is what it is now
        const shown = all[k] ?? all[0];
        if (!level) arena.floats(plane, w).set(Float32Array.from({ length: w }, (_, i) => weight(k, x + i)));
        for (let j = 0; j < h; j++) {
          if (level) {
            const share = weight(k, y + j);
            if (share > 0) kernels.addScaled(shown.row(j), out.row(j), w, share);
          } else {
            kernels.scaleByPlane(shown.row(j), plane, row.at, w);
            kernels.addScaled(row.at, out.row(j), w, 1);
          }
        }
      }
    });
    row.release();
    all.forEach((one) => one?.release());
    return out;
  },
});
