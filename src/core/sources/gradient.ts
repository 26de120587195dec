import { choice } from '../params/choice';
import { point } from '../params/point';
import { ramp, rampAt, type RampStop } from '../params/ramp';
import { size } from '../params/size';
import { Picture } from '../picture/picture';
import { defineSource, type SourceTools } from './define';

/** Colours of a ramp that are computed; between two of them it is straight. */
const STEPS = 1024;

/** Fills a picture with colours that go over into each other. @param from, to pixels from its top left */
export function fillRamp(
  { kernels, arena }: Pick<SourceTools, 'kernels' | 'arena'>,
  picture: Picture,
  colours: readonly RampStop[],
  round: boolean,
  from: readonly [number, number],
  to: readonly [number, number],
): void {
  const { w, h } = picture.rect;
  arena.scratch(STEPS * 16, (at) => {
    const table = arena.floats(at, STEPS * 4);
    for (let i = 0; i < STEPS; i++) table.set([...rampAt(colours, i / (STEPS - 1)), 1], i * 4);
    kernels.rampFill(picture.at, w, h, round ? 1 : 0, ...from, ...to, at, STEPS);
  });
}

/** Colours that go over into each other. */
export const gradient = defineSource({
  type: 'gradient',
  title: 'Gradient',
  words: ['ramp', 'sky', 'fade of colours', 'vignette', 'background'],
  help: 'Colours that go over into each other, along a line or about a point. Relatives: Colour.',
  params: {
    form: choice({
      label: 'Form',
      default: 'line',
      options: [
        { value: 'line', label: 'along a line' },
        { value: 'round', label: 'about a point' },
      ],
      help: 'Which way the colours run.',
    }),
    colours: ramp({
      label: 'Colours',
      default: [
        [0, [0.12, 0.16, 0.3]],
        [1, [0.86, 0.62, 0.42]],
      ],
      help: 'The colours, from the first point to the second.',
    }),
    from: point({ label: 'From', default: [0, -360], help: 'Where the first colour is.' }),
    to: point({ label: 'To', default: [0, 360], help: 'Where the last colour is.' }),
    size: size({ label: 'Size', default: [1280, 720], help: 'How large the picture is.' }),
  },
  timed: false,
  draw(v, { kernels, arena, size: { w, h } }) {
    const picture = Picture.make(arena, { x: 0, y: 0, w, h });
    fillRamp({ kernels, arena }, picture, v.colours, v.form === 'round', v.from, v.to);
    return picture;
  },
});
