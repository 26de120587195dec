import { angle } from '../params/angle';
import { number } from '../params/number';
import { point } from '../params/point';
import { bent } from '../picture/bent';
import { definePass } from './define';

/** Kaleidoscope: a slice of the picture, mirrored round about a place; two slices are one mirror. */
export const kaleidoscope = definePass({
  type: 'kaleidoscope',
  title: 'Kaleidoscope',
  group: 'distort',
  words: ['mirror', 'symmetry', 'reflect', 'slices', 'mandala', 'flip half'],
  help: 'Mirrors a slice of the picture round about a place. With two slices it is one mirror through that place. Relatives: Repeat; Place for flipping a layer.',
  params: {
    slices: number({
      label: 'Slices',
      unit: '',
      default: 8,
      min: 2,
      max: 64,
      slider: [2, 24],
      help: 'How many there are round about; each is a mirror of the next.',
    }),
    turn: angle({
      label: 'Slice',
      default: 0,
      help: 'Where the middle of the slice that is kept lies: 0° to the right, 90° down.',
    }),
    about: point({ label: 'Place', default: [0, 0], help: 'What they lie about. It can follow a track.' }),
  },
  reach: () => Infinity,
  run(picture, v, tools) {
    const { kernels } = tools;
    const [cx, cy] = v.about;
    const { x, w } = picture.rect;
    const count = Math.max(2, 2 * Math.round(v.slices / 2));
    const wide = (2 * Math.PI) / count;
    const turn = (v.turn * Math.PI) / 180;
    const borders = Array.from({ length: count }, (_, i) => turn + (i - 0.5) * wide);
    return bent(tools, picture, (dx, dy, row) => {
      const down = row + 0.5 - cy;
      // a level row is cut into pieces by the borders between slices that it crosses
      const crossed = borders.filter((way) => Math.sin(way) * down > 0).map((way) => cx + down / Math.tan(way));
      const ends = [...crossed, cx]
        .map((at) => Math.min(w, Math.max(0, Math.ceil(at - x - 0.5))))
        .sort((one, other) => one - other);
      let from = 0;
      for (const end of [...ends, w]) {
        if (end === from) continue;
        const across = x + from + 0.5 - cx;
        const slice = Math.floor((Math.atan2(down, x + (from + end) / 2 - cx) - turn) / wide + 0.5);
        // every other slice is turned back to the one that is kept, those between are mirrored
        const way = slice % 2 ? 2 * turn + slice * wide : -slice * wide;
        const [c, s] = [Math.cos(way), Math.sin(way)];
        const hand = slice % 2 ? -1 : 1;
        kernels.slopeSpan(dx + from * 4, end - from, (c - 1) * across - hand * s * down, c - 1);
        kernels.slopeSpan(dy + from * 4, end - from, s * across + (hand * c - 1) * down, s);
        from = end;
      }
    });
  },
});
