import { number } from '../../params/number';
import { point } from '../../params/point';
import { angle } from '../../params/angle';
import { definePass } from '../define';
import { shareTable, smooth } from './tables';

/** Light that falls off towards the border, or grows: by distance from a middle, on linear light. */
export const vignette = definePass({
  type: 'vignette',
  title: 'Vignette',
  group: 'grade',
  byColour: false,
  words: ['darken the corners', 'dark edges', 'spotlight', 'focus the eye', 'lens falloff', 'border darker'],
  help: 'Darkens or brightens the picture away from a place, which can follow a track. Relatives: the area of any pass.',
  params: {
    amount: number({
      label: 'Amount',
      unit: 'stops',
      default: -1.5,
      min: -10,
      max: 10,
      slider: [-4, 4],
      help: 'Light at the far end, in stops: negative darkens.',
    }),
    middle: point({ label: 'Middle', default: [0, 0], help: 'Where nothing changes. It can follow a track.' }),
    width: number({
      label: 'Width',
      unit: '%',
      default: 0.6,
      min: 0.01,
      max: 5,
      slider: [0.1, 2],
      help: 'Half the width of the shape, in halves of the picture’s width.',
    }),
    height: number({
      label: 'Height',
      unit: '%',
      default: 0.6,
      min: 0.01,
      max: 5,
      slider: [0.1, 2],
      help: 'Half the height of the shape, in halves of the picture’s height.',
    }),
    turn: angle({ label: 'Turn', default: 0, help: 'Of the shape, clockwise.' }),
    square: number({
      label: 'Square',
      unit: '%',
      default: 0,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: '0 % is an ellipse, 100 % a rectangle.',
    }),
    soft: number({
      label: 'Softness',
      unit: '%',
      default: 0.7,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How gradually it sets in.',
    }),
  },
  idle: (v) => v.amount === 0,
  prepare(v, tools) {
    const { w, h } = tools.size;
    const turn = (v.turn * Math.PI) / 180;
    const gain = shareTable((half) => 2 ** (v.amount * smooth(1 - v.soft, 1 + v.soft + 1e-3, half * 2)), tools);
    const [cx, cy] = v.middle;
    const [rx, ry] = [(v.width * w) / 2, (v.height * h) / 2];
    return (src, dst, n, x, y) =>
      tools.kernels.vignetteSpan(
        src,
        dst,
        n,
        x,
        y,
        cx,
        cy,
        rx,
        ry,
        Math.cos(turn),
        Math.sin(turn),
        v.square,
        gain.at,
        gain.steps,
      );
  },
});
