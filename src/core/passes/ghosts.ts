import { choice } from '../params/choice';
import { number } from '../params/number';
import { point } from '../params/point';
import { apertureRows, throughAperture } from '../picture/aperture';
import { invert, multiply, scaling, translation } from '../picture/matrix';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import { grow, union } from '../picture/rect';
import { onGrid, reducedBy } from '../picture/reduced';
import { copyInto } from '../picture/rows';
import { definePass, type PassTools } from './define';
import { SHINING, shone, strength } from './shining';

/** They are drawn so small that the smallest of them still has this radius in pixels; at a quarter of the size at the least. */
const [FINE, MOST_TIMES] = [2, 2];
/** An aperture of more pixels than this is computed smaller still, at most so many times halved. */
const [LARGE, MOST_MORE] = [12, 5];
/**
 * The ghosts, the plainest first: where each lies, as times as far from the middle as its light and on the other side where less than 0; how large it
 * is, how bright, and its tint.
 */
const GHOSTS = [
  { far: -0.5, size: 1, light: 0.9, tint: [0.55, 0.8, 1] },
  { far: 0.45, size: 0.5, light: 0.8, tint: [1, 0.75, 0.45] },
  { far: -1.1, size: 1.7, light: 0.35, tint: [0.6, 1, 0.7] },
  { far: 0.8, size: 0.35, light: 0.9, tint: [1, 0.55, 0.6] },
  { far: -0.25, size: 0.65, light: 0.6, tint: [0.75, 0.65, 1] },
  { far: 1.4, size: 0.9, light: 0.4, tint: [0.5, 0.9, 1] },
  { far: -1.7, size: 2.3, light: 0.2, tint: [1, 0.85, 0.5] },
  { far: -0.8, size: 0.3, light: 0.9, tint: [0.6, 1, 0.95] },
] as const;

/** Light of a point, of what one as large as a ghost would give. */
const POINT = 0.25;
const SMALLEST = Math.min(...GHOSTS.map(({ size }) => size));
const within = (times: number, most: number): number => Math.max(0, Math.min(most, times));
const timesFor = (size: number): number => within(Math.floor(Math.log2((SMALLEST * size) / FINE)), MOST_TIMES);

/** Lens ghosts: the light of bright parts, or of a point, thrown back between the glasses of a lens, in the shape of its aperture. */
export const ghosts = definePass({
  type: 'ghosts',
  title: 'Lens ghosts',
  group: 'light',
  space: 'shot',
  words: ['lens reflections', 'internal reflections', 'sun in the lens', 'spots across the picture', 'aperture spots'],
  help: 'Shows bright parts, or a point, again and again along the line through the middle of the shot, as a lens does into which a lamp shines. The point may follow a track; give the strength a jitter and they flicker. Relatives: Streaks, Glow.',
  params: {
    of: choice({
      label: 'Light of',
      default: 'bright',
      options: [
        { value: 'bright', label: 'bright parts' },
        { value: 'point', label: 'a point' },
      ],
      help: 'What shines into the lens.',
    }),
    threshold: { ...SHINING.threshold, default: 0.8 },
    at: point({
      label: 'The point',
      default: [0, 0],
      help: 'Where its light is.',
      when: { choice: 'of', is: 'point' },
    }),
    count: number({
      label: 'How many',
      unit: '',
      default: 5,
      min: 1,
      max: GHOSTS.length,
      slider: [1, GHOSTS.length],
      help: 'The plainest come first.',
    }),
    size: number({
      label: 'Size',
      unit: 'px',
      default: 36,
      min: 4,
      max: 200,
      slider: [8, 120],
      help: 'From the middle of the first to its edge.',
    }),
    spread: number({
      label: 'Apart',
      unit: '%',
      default: 1,
      min: 0.1,
      max: 2,
      slider: [0.3, 1.6],
      help: 'How far along the line they lie.',
    }),
    blades: number({
      label: 'Blades',
      unit: '',
      default: 7,
      min: 0,
      max: 12,
      slider: [0, 12],
      help: 'Corners of the aperture; below three it is round.',
    }),
    coloured: number({
      label: 'Coloured',
      unit: '%',
      default: 0.8,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How differently they are tinted.',
    }),
    strength: strength(3),
    colour: SHINING.colour,
    alone: SHINING.alone,
  },
  idle: (v) => v.strength === 0 && v.alone === 'both',
  reach: () => Infinity,
  run(picture, v, tools) {
    const times = timesFor(v.size);
    const rect = onGrid(union(picture.rect, { x: 0, y: 0, ...tools.size }), times + MOST_MORE);
    return shone(picture, v, tools, rect, times, (small) => {
      const by = 2 ** times;
      if (v.of === 'point') lampAt(tools, small, [v.at[0] / by, v.at[1] / by], v.size / by);
      const light = Picture.make(tools.arena, small.rect);
      tools.kernels.fill(light.at, light.pixels, 0, 0, 0, 0);
      const middle = [tools.size.w / by / 2, tools.size.h / by / 2] as const;
      for (const ghost of GHOSTS.slice(0, Math.round(v.count)))
        addGhost(tools, small, light, ghost, middle, { ...v, size: v.size / by });
      return { light, times, share: 1 };
    });
  },
});

/** Leaves nothing but one lamp, which gives as much light as one of some radius does. @param at, radius in the picture's own pixels */
function lampAt({ kernels, arena }: PassTools, small: Picture, at: readonly [number, number], radius: number): void {
  kernels.fill(small.at, small.pixels, 0, 0, 0, 0);
  const [u, v] = [at[0] - small.rect.x - 0.5, at[1] - small.rect.y - 0.5];
  const [x, y] = [Math.floor(u), Math.floor(v)];
  const whole = Math.PI * radius ** 2;
  for (const [dx, dy] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ] as const) {
    if (x + dx < 0 || y + dy < 0 || x + dx >= small.rect.w || y + dy >= small.rect.h) continue;
    const share = whole * Math.abs(1 - dx - (u - x)) * Math.abs(1 - dy - (v - y));
    arena.floats(small.row(y + dy) + (x + dx) * BYTES_PER_PIXEL, 4).fill(share);
  }
}

/** @param middle of the shot, and the sizes, in pixels of the light */
function addGhost(
  tools: PassTools,
  small: Picture,
  light: Picture,
  { far, size, light: bright, tint }: (typeof GHOSTS)[number],
  middle: readonly [number, number],
  v: { of: string; size: number; spread: number; blades: number; coloured: number },
): void {
  const { kernels, arena } = tools;
  const scale = far * v.spread;
  // spread before it is drawn smaller or larger, so that small lamps are not lost between pixels
  const wanted = (size * v.size) / Math.abs(scale);
  const more = 2 ** within(Math.ceil(Math.log2(wanted / LARGE)), MOST_MORE);
  const radius = Math.max(0.5, wanted / more);
  const room = Math.ceil(radius) + 1;
  const tiny = reducedBy(tools, small, Math.log2(more));
  const padded = Picture.make(arena, grow(tiny.rect, room));
  copyInto(tools, tiny, padded);
  tiny.release();
  const soft = throughAperture(tools, padded, apertureRows(radius, Math.round(v.blades), 12), room);
  padded.release();
  // a point gives the same light however near to the middle it is thrown
  const much = bright * (v.of === 'point' ? POINT / scale ** 2 : 1);
  arena.scratch(9 * 4, (at) => {
    const [r, g, b] = tint.map((channel) => much * (1 + (channel - 1) * v.coloured));
    arena.floats(at, 9).set([r!, 0, 0, 0, g!, 0, 0, 0, b!]);
    kernels.matrixSpan(soft.at, soft.at, soft.pixels, at);
  });
  const drawn = Picture.make(arena, light.rect);
  const steps = [
    translation(-light.rect.x, -light.rect.y),
    translation(...middle),
    scaling(scale, scale),
    translation(-middle[0], -middle[1]),
    scaling(more, more),
    translation(soft.rect.x, soft.rect.y),
  ];
  const back = invert(steps.reduce(multiply))!;
  const [from, to] = [soft.rect, drawn.rect];
  kernels.affine(soft.at, from.w, from.h, drawn.at, to.w, to.h, ...back, 1, 0);
  soft.release();
  kernels.addScaled(drawn.at, light.at, light.pixels, 1);
  drawn.release();
}
