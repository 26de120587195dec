import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { Picture } from '../picture/picture';
import { definePass } from './define';
import { bordered } from '../picture/bordered';
import { grow } from '../picture/rect';

/** Drawn edges: lines where brightness changes. Source: Sobel's operator on luma. */
export const drawnEdges = definePass({
  type: 'drawn-edges',
  title: 'Drawn edges',
  group: 'texture',
  words: ['sketch', 'pencil', 'line drawing', 'ink', 'find edges', 'contours', 'comic', 'neon lines', 'blueprint'],
  help: 'Draws lines where it gets brighter or darker: on paper as a sketch, over the picture as a comic, or alone, to glow. Relatives: Outline, Posterise.',
  uses: [
    {
      title: 'Ink over the picture',
      words: ['comic lines', 'cartoon', 'outlined', 'rotoscope look'],
      values: { ground: 'picture', from: 0.1, soft: 0.12, colour: [0.05, 0.05, 0.08] },
    },
    {
      title: 'Blueprint',
      words: ['technical drawing', 'plan', 'white lines on blue', 'chalk board'],
      values: { colour: [0.86, 0.93, 1], paper: [0.08, 0.2, 0.42] },
    },
  ],
  params: {
    from: number({
      label: 'Steeper than',
      unit: '%',
      default: 0.06,
      min: 0,
      max: 1,
      slider: [0, 0.4],
      help: 'Change from pixel to pixel below which there is no line.',
    }),
    soft: number({
      label: 'Full at',
      unit: '%',
      default: 0.16,
      min: 0.001,
      max: 1,
      slider: [0.001, 0.6],
      help: 'How much steeper it has to be for a full line.',
    }),
    strength: number({
      label: 'Strength',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How solid lines are.',
    }),
    colour: colour({ label: 'Line colour', default: [0.1, 0.11, 0.14], help: 'The colour of the lines.' }),
    ground: choice({
      label: 'On',
      default: 'paper',
      options: [
        { value: 'paper', label: 'paper' },
        { value: 'picture', label: 'the picture' },
        { value: 'clear', label: 'nothing' },
      ],
      help: 'What the lines lie on.',
    }),
    paper: colour({
      label: 'Paper',
      default: [0.95, 0.92, 0.85],
      help: 'The colour of the paper.',
      when: { choice: 'ground', is: 'paper' },
    }),
  },
  reach: () => 1,
  run(picture, v, { kernels, arena }) {
    const { w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    const wide = bordered({ kernels, arena }, picture, grow(picture.rect, 1));
    if (v.ground === 'picture') kernels.copy(picture.at, out.at, out.pixels);
    else kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    arena.scratch(out.pixels * 8 + wide.pixels * 4 + 48, (steep) => {
      const cover = steep + out.pixels * 4;
      const luma = cover + out.pixels * 4;
      kernels.coveragePlane(picture.at, out.pixels, 0, 0, cover);
      if (v.ground === 'paper') kernels.overPlane(out.at, cover, out.pixels, ...v.paper, 0);
      kernels.lumaPlane(wide.at, wide.pixels, luma);
      for (let y = 0; y < h; y++) {
        const row = (by: number) => luma + (y + by) * wide.rect.w * 4;
        kernels.steepRow(row(0), row(1), row(2), steep + y * w * 4, w);
      }
      kernels.rampPlane(steep, out.pixels, v.from, Math.max(1e-3, v.soft));
      kernels.timesPlane(steep, cover, out.pixels);
      arena.scratch(out.pixels * 4 + 16, (even) => {
        kernels.fillPlane(even, out.pixels, v.strength);
        kernels.timesPlane(steep, even, out.pixels);
      });
      kernels.overPlane(out.at, steep, out.pixels, ...v.colour, 0);
    });
    wide.release();
    return out;
  },
});
