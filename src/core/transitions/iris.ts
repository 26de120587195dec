import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { point } from '../params/point';
import { defineTransition } from './define';

const FORMS = ['circle', 'square', 'diamond', 'star'] as const;
/** How many times farther than its inscribed circle a form's radius reaches, so that it covers that circle. */
const REACH = [1, 1, Math.SQRT2, 2.7] as const;

/** An opening that grows about a place. */
export const iris = defineTransition({
  type: 'iris',
  title: 'Iris',
  words: ['circle', 'round', 'star', 'diamond', 'opening', 'spot'],
  help: 'An opening grows from a place until all of the picture is seen; at the end it closes there.',
  params: {
    form: choice({
      label: 'Opening',
      default: 'circle',
      options: FORMS.map((value) => ({ value, label: value })),
      help: 'Its shape.',
    }),
    middle: point({ label: 'From', default: [0, 0], help: 'Where it opens and closes.' }),
    turn: angle({ label: 'Turn', default: 0, help: 'Of the shape, clockwise.' }),
    soft: number({
      label: 'Softness',
      unit: 'px',
      default: 6,
      min: 0,
      max: 8192,
      slider: [0, 200],
      help: 'Width of its edge.',
    }),
  },
  rows({ form, middle: [cx, cy], turn, soft, shown }, { kernels, size: { w, h } }) {
    const which = FORMS.indexOf(form as 'circle');
    const farthest = Math.hypot(Math.max(cx, w - cx), Math.max(cy, h - cy));
    const wide = Math.max(1, soft);
    const radius = (farthest * REACH[which]! + wide) * shown - wide / 2;
    const [cos, sin] = [Math.cos((-turn * Math.PI) / 180), Math.sin((-turn * Math.PI) / 180)];
    return (src, dst, n, x, y) => {
      const [u, v] = [x + 0.5 - cx, y + 0.5 - cy];
      kernels.irisSpan(src, dst, n, u * cos - v * sin, u * sin + v * cos, cos, sin, which, Math.max(0, radius), wide);
    };
  },
});
