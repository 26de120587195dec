import { choice } from '../params/choice';
import { point } from '../params/point';
import { ramp, type RampStop } from '../params/ramp';
import { size } from '../params/size';
import { Picture } from '../picture/picture';
import { defineSource, type SourceTools } from './define';

/** Colours of a ramp that are computed; between two of them it is straight. */
const STEPS = 1024;

/** A colour of a ramp at a place 0…1, display-encoded. */
export function rampAt(stops: readonly RampStop[], place: number): [number, number, number] {
  const after = stops.findIndex(([at]) => at >= place);
  const [to, from] = [
    stops[after < 0 ? stops.length - 1 : after]!,
    stops[Math.max(0, after < 0 ? stops.length - 1 : after - 1)]!,
  ];
  const share = to[0] > from[0] ? (place - from[0]) / (to[0] - from[0]) : 1;
  return from[1].map((part, c) => part + (to[1][c]! - part) * Math.min(1, Math.max(0, share))) as [
    number,
    number,
    number,
  ];
}

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
