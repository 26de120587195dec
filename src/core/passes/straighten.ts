import { multiply, rotation, scaling, translation } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { place } from '../picture/transform';
import { boolean } from '../params/boolean';
import { point } from '../params/point';
import { coveringZoom } from '../track/steady';
import { definePass } from './define';

/** Clockwise degrees from a line to the nearest level or upright one. @param dx, dy along the line */
export function tiltOf(dx: number, dy: number): number {
  const angle = (Math.atan2(dy, dx) * 180) / Math.PI;
  return angle - 90 * Math.round(angle / 90);
}

/** Turns the picture until a line drawn on it is level or upright. */
export const straighten = definePass({
  type: 'straighten',
  title: 'Straighten',
  group: 'frame',
  words: ['level', 'horizon', 'tilted', 'rotate', 'crooked', 'upright', 'dutch angle'],
  help: 'Turns the picture until a line that you draw on something level or upright is so, and enlarges it just enough that no corner is empty. Relatives: Steady, the rotation of the place.',
  params: {
    from: point({ label: 'From', default: [0, 0], help: 'One end of the line on something level or upright.' }),
    to: point({ label: 'To', default: [0, 0], help: 'The other end of the line.' }),
    cover: boolean({ label: 'Enlarge to cover', default: true, help: 'Just enough that no corner is empty.' }),
  },
  fitted: ({ w }) => ({ from: [Math.round(-w / 4), 0], to: [Math.round(w / 4), 0] }),
  idle: (v) => tiltOf(v.to[0] - v.from[0], v.to[1] - v.from[1]) === 0,
  reach: () => Infinity,
  note: (v) => {
    const tilt = tiltOf(v.to[0] - v.from[0], v.to[1] - v.from[1]);
    return { says: `Turned by ${(-tilt).toFixed(2)}°.`, warns: false };
  },
  run(picture, v, tools) {
    const { w, h } = tools.size;
    const turn = rotation(-tiltOf(v.to[0] - v.from[0], v.to[1] - v.from[1]));
    const zoom = v.cover ? coveringZoom([turn], w, h) : 1;
    const map = multiply(
      translation(w / 2, h / 2),
      multiply(scaling(zoom, zoom), multiply(turn, translation(-w / 2, -h / 2))),
    );
    return place(tools, picture, map, 1, { x: 0, y: 0, w, h }) ?? Picture.make(tools.arena, { x: 0, y: 0, w: 0, h: 0 });
  },
});
