import { lotOf } from '../base/lot';
import { angle } from '../params/angle';
import { number } from '../params/number';
import { point } from '../params/point';
import { seed } from '../params/seed';
import { multiply, rotation, scaling, translation } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { blendRows, partOf } from '../picture/rows';
import { place } from '../picture/transform';
import { definePass } from './define';

/** Bits are no smaller than this, and there are no more than so many; in very large pictures they are made larger up to here. */
const [SMALLEST, MOST_BITS, COARSEST] = [3, 6000, 64];

/** Scatter: the picture breaks into bits, which fly apart. */
export const scatter = definePass({
  type: 'scatter',
  title: 'Scatter',
  group: 'distort',
  lots: true,
  words: ['shatter', 'explode', 'break apart', 'disintegrate', 'dissolve into pieces', 'burst', 'fly apart', 'crumbs'],
  help: 'Breaks the picture into bits and pushes them outwards, each a little otherwise. Keyframes of Pushed let something burst or come together. Relatives: Crumble among transitions, Mosaic.',
  params: {
    far: number({
      label: 'Pushed',
      unit: 'px',
      default: 60,
      min: 0,
      max: 4096,
      slider: [0, 600],
      help: 'How far bits are pushed at most.',
    }),
    size: number({
      label: 'Size of a bit',
      unit: 'px',
      default: 18,
      min: SMALLEST,
      max: 2048,
      slider: [SMALLEST, 120],
      help: 'Side of a bit. Very small ones are made larger where there would be more than six thousand.',
    }),
    about: point({
      label: 'Away from',
      default: [0, 0],
      help: 'The place that they are pushed away from; it may follow a track.',
    }),
    spread: number({
      label: 'By lot',
      unit: '%',
      default: 0.7,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much their ways differ; at 100 they fly anywhere.',
    }),
    turn: angle({ label: 'Turn', default: 90, help: 'How far they are turned at most, as they are pushed.' }),
    shrink: number({
      label: 'Shrink',
      unit: '%',
      default: 0.35,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much smaller they get as they are pushed.',
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is another burst.' }),
  },
  // what is pushed by less has not broken
  idle: (v) => v.far < 0.5,
  reach: (v) => Math.ceil(v.far + 2 * Math.max(v.size, COARSEST)) + 2,
  run(picture, v, tools) {
    const { kernels, arena, size } = tools;
    const side = Math.max(v.size, SMALLEST, Math.min(COARSEST, Math.sqrt((size.w * size.h) / MOST_BITS)));
    const rect = grow(picture.rect, Math.ceil(v.far + side) + 2);
    const out = Picture.make(arena, rect);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const { x, y, w, h } = picture.rect;
    const edge = (cell: number) => Math.round(cell * side);
    // how far on the way they are: turning and shrinking go along with the push, as far as a bit is large
    const gone = Math.min(1, v.far / (4 * side));
    for (let row = Math.floor(y / side); edge(row) < y + h; row++)
      for (let column = Math.floor(x / side); edge(column) < x + w; column++) {
        const box = { x: edge(column), y: edge(row), w: edge(column + 1) - edge(column), h: edge(row + 1) - edge(row) };
        if (box.w <= 0 || box.h <= 0) continue;
        const lot = (question: number) =>
          lotOf(
            Math.imul(row, 73856093) ^ Math.imul(column, 19349663) ^ Math.imul(question, 83492791),
            Math.round(v.seed),
          );
        const [cx, cy] = [box.x + box.w / 2, box.y + box.h / 2];
        const outwards = Math.atan2(cy - v.about[1], cx - v.about[0]);
        const way = outwards + (lot(1) - 0.5) * 2 * Math.PI * v.spread;
        const far = v.far * (1 - 0.8 * v.spread * lot(2));
        const small = 1 - v.shrink * gone * lot(4);
        const map = [
          translation(cx + far * Math.cos(way), cy + far * Math.sin(way)),
          rotation(v.turn * gone * (2 * lot(3) - 1)),
          scaling(small, small),
          translation(-cx, -cy),
        ].reduce(multiply);
        const bit = partOf(tools, picture, box);
        const lying = place(tools, bit, map, 1, rect);
        bit.release();
        if (!lying) continue;
        blendRows(tools, out, lying, lying.rect, 0);
        lying.release();
      }
    return out;
  },
});
