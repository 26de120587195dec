import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { translation } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { addEnlarged, onGrid } from '../picture/reduced';
import { smeared } from '../picture/smear';
import { definePass } from './define';
import { SHINING, shone, strength } from './shining';

/** How much is left of a streak at its ends. */
const FADED = 0.02;

/** Lines longer than this many pixels are drawn at a quarter of the size; at a half from an eighth of it on. */
const LONG = 600;

/** Streaks: the light of bright parts drawn out into lines, as by a filter before a lens. */
export const streaks = definePass({
  type: 'streaks',
  title: 'Streaks',
  group: 'light',
  words: ['flare', 'lens flare', 'anamorphic', 'star filter', 'sparkle', 'glint', 'light line', 'cross'],
  help: 'Draws the light of bright parts out into lines: one, a cross or a star. Give the strength a jitter and it flickers. Relatives: Glow, Light rays.',
  params: {
    of: SHINING.of,
    threshold: { ...SHINING.threshold, default: 0.8 },
    lines: choice({
      label: 'Lines',
      default: '1',
      options: [
        { value: '1', label: 'one' },
        { value: '2', label: 'two, a cross' },
        { value: '3', label: 'three, a star' },
        { value: '4', label: 'four' },
      ],
      help: 'How many lines cross in each bright part.',
    }),
    length: number({
      label: 'Length',
      unit: 'px',
      default: 500,
      min: 2,
      max: 4000,
      slider: [20, 2000],
      help: 'From one end of a line to the other.',
    }),
    angle: angle({ label: 'Direction', default: 0, help: 'Of the first line: 0° lies level.' }),
    strength: strength(3),
    colour: { ...SHINING.colour, default: [0.75, 0.87, 1] as const },
    alone: SHINING.alone,
  },
  idle: (v) => v.strength === 0 && v.alone === 'both',
  reach: (v) => Math.ceil(v.length / 2) + 2,
  run(picture, v, tools) {
    const lines = Number(v.lines);
    const long = v.length / 2;
    const turns = Array.from({ length: lines }, (_, i) => ((v.angle + (180 * i) / lines) * Math.PI) / 180);
    const most = (of: (turn: number) => number) =>
      Math.ceil(Math.max(...turns.map((turn) => Math.abs(of(turn) * long))));
    const { x, y, w, h } = picture.rect;
    const [across, down] = [most(Math.cos) + 2, most(Math.sin) + 2];
    const rect = { x: x - across, y: y - down, w: w + 2 * across, h: h + 2 * down };
    const times = long > LONG ? 2 : long > LONG / 8 ? 1 : 0;
    return shone(picture, v, tools, onGrid(rect, times), times, (small) => {
      const light = Picture.make(tools.arena, small.rect);
      tools.kernels.fill(light.at, light.pixels, 0, 0, 0, 0);
      const reach = long / 2 ** times;
      for (const turn of turns)
        for (const side of [-reach, reach]) {
          const way = (share: number) => translation(Math.cos(turn) * side * share, Math.sin(turn) * side * share);
          const line = smeared(tools, small, way, reach, { sided: true, extend: false, faded: FADED });
          addEnlarged(tools, line, 0, light, 0.5);
        }
      return { light, times, share: 1 };
    });
  },
});
