import { wanderAt } from '../time/wander';
import { multiply, rotation, scaling, translation } from '../picture/matrix';
import { place } from '../picture/transform';
import { Picture } from '../picture/picture';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { definePass } from './define';

/**
 * Hand-held shake: seeded position, rotation and scale together. The same seed gives the same frames, always.
 * What a move would uncover at the edges is covered by enlarging the picture just enough for the strongest move.
 */
export const shake = definePass({
  type: 'shake',
  title: 'Shake',
  group: 'frame',
  words: ['shaky', 'camera shake', 'hand-held', 'wobble', 'tremble', 'earthquake', 'jitter', 'unsteady'],
  help: 'Shakes the picture as an unsteady hand does: sideways, round and in size, from one seed. Relatives: the jitter of any value.',
  params: {
    position: number({
      label: 'Position',
      unit: 'px',
      default: 8,
      min: 0,
      max: 2000,
      slider: [0, 60],
      help: 'Farthest move in each direction.',
    }),
    rotation: number({
      label: 'Rotation',
      unit: '°',
      default: 0.6,
      min: 0,
      max: 180,
      slider: [0, 10],
      help: 'Farthest turn either way.',
    }),
    scale: number({
      label: 'Scale',
      unit: '%',
      default: 0.01,
      min: 0,
      max: 0.9,
      slider: [0, 0.2],
      help: 'Strongest change of size.',
    }),
    every: number({
      label: 'Changes every',
      unit: '',
      default: 4,
      min: 1,
      max: 1000,
      slider: [1, 48],
      help: 'Frames between one target and the next.',
    }),
    smooth: number({
      label: 'Smoothness',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: '0 % jumps to each target, 100 % glides all the way.',
    }),
    seed: number({
      label: 'Seed',
      unit: '',
      default: 1,
      min: 0,
      max: 1000000,
      slider: [0, 100],
      help: 'Another seed, another shake.',
    }),
    edges: choice({
      label: 'Edges',
      default: 'cover',
      options: [
        { value: 'cover', label: 'cover by enlarging' },
        { value: 'open', label: 'leave open' },
      ],
      help: 'What happens where the picture is moved away from its edge.',
    }),
  },
  idle: (v) => v.position === 0 && v.rotation === 0 && v.scale === 0,
  reach: () => Infinity,
  moment: (v, frame) => {
    const noise = (stream: number) =>
      wanderAt({ amount: 1, every: v.every, smooth: v.smooth, seed: Math.round(v.seed) }, frame, stream);
    return {
      dx: noise(0) * v.position,
      dy: noise(1) * v.position,
      turn: noise(2) * v.rotation,
      size: 1 + noise(3) * v.scale,
    };
  },
  run(picture, v, tools) {
    const { dx, dy, turn, size } = v as unknown as Record<'dx' | 'dy' | 'turn' | 'size', number>;
    const { w, h } = tools.size;
    const enough = v.edges === 'cover' ? coverScale(w, h, v.position, v.rotation, v.scale) : 1;
    const map = multiply(
      translation(w / 2 + dx, h / 2 + dy),
      multiply(rotation(turn), multiply(scaling(size * enough, size * enough), translation(-w / 2, -h / 2))),
    );
    return place(tools, picture, map, 1, { x: 0, y: 0, w, h }) ?? Picture.make(tools.arena, { x: 0, y: 0, w: 0, h: 0 });
  },
});

/** How much a w×h picture has to be enlarged so that no move within the amounts uncovers an edge. */
export function coverScale(w: number, h: number, position: number, degrees: number, scale: number): number {
  const most = (Math.min(90, degrees) * Math.PI) / 180;
  // how far a corner of the frame gets from the middle, along one side of the turned picture
  const reached = (along: number, across: number) => {
    const worst = Math.min(most, Math.atan2(across, along));
    return along * Math.cos(worst) + across * Math.sin(worst);
  };
  const [x, y] = [w / 2 + position, h / 2 + position];
  const enough = Math.max(reached(x, y) / (w / 2), reached(y, x) / (h / 2)) / (1 - scale);
  // a pixel more on each side, whose edge is soft; less of it for moves that are less, so that a shake that fades out ends without a jump
  const side = Math.min(w, h);
  return enough + Math.min(2, (enough - 1) * side) / side;
}
