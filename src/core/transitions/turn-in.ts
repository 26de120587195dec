import { projective, projectiveProduct, translation, type Projective } from '../picture/matrix';
import { number } from '../params/number';
import { drawnThrough } from './drawn';
import { defineTransition } from './define';
import { side, SIDES } from './slide';

/** Less of the picture than this is seen edge on. */
const EDGE_ON = 0.002;

/** A page turns in on one of the shot's edges, seen in perspective. */
export const turnIn = defineTransition({
  type: 'turn-in',
  title: 'Page turn',
  words: ['fold', 'page', 'card', 'door', 'unfold', 'flip', '3d'],
  help: 'The picture turns in on an edge of the shot like a page, seen in perspective, and turns away on it at the end.',
  params: {
    side: side('Hangs on', 'The edge that it turns on.'),
    perspective: number({
      label: 'Perspective',
      unit: '%',
      default: 0.5,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How strongly what is near is larger.',
    }),
  },
  picture(picture, { side, perspective, shown }, tools) {
    const { w, h } = tools.size;
    const [sx, sy] = SIDES[side as keyof typeof SIDES];
    const angle = (1 - shown) * (Math.PI / 2);
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const near = perspective / Math.hypot(w, h);
    // about the middle of the edge that it hangs on; the free edge comes from the eye's side
    const hinge = [w / 2 + (sx * w) / 2, h / 2 + (sy * h) / 2] as const;
    const turned: Projective = sx
      ? [cos, 0, 0, 0, 1, 0, sx * sin * near, 0, 1]
      : [1, 0, 0, 0, cos, 0, 0, sy * sin * near, 1];
    const map = projectiveProduct(
      projective(translation(...hinge)),
      projectiveProduct(turned, projective(translation(-hinge[0], -hinge[1]))),
    );
    return drawnThrough(tools, picture, map, cos > EDGE_ON ? 1 : 0);
  },
});
