import { mapBetween, type Point } from '../track/motion';
import { Picture } from '../picture/picture';
import { placedBounds } from '../picture/bounds';
import { place } from '../picture/transform';
import { intersect } from '../picture/rect';
import { point } from '../params/point';
import { definePass } from './define';

/** How far beyond the picture a corner may draw it, in its sizes. */
const FARTHEST = 3;
const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const;

const corner = (label: string) =>
  point({ label, default: [0, 0], help: 'Where this corner of the picture comes to lie. It can follow a track.' });

/** Puts the picture's four corners where they are wanted, in perspective. */
export const cornerPin = definePass({
  type: 'corner-pin',
  title: 'Corner pin',
  group: 'frame',
  words: ['pin', 'insert on a surface', 'perspective', 'screen replacement', 'flag', 'sign', 'distort', 'four corners'],
  help: 'Draws the picture in perspective so that its corners lie where you put them: a flag on a banner, a picture in a frame. Let the corners follow a plane track and it stays there. Relatives: the tilt of the place.',
  params: {
    topLeft: corner('Upper left'),
    topRight: corner('Upper right'),
    bottomRight: corner('Lower right'),
    bottomLeft: corner('Lower left'),
  },
  fitted: ({ w, h }) => ({
    topLeft: [-w / 2, -h / 2],
    topRight: [w / 2, -h / 2],
    bottomRight: [w / 2, h / 2],
    bottomLeft: [-w / 2, h / 2],
  }),
  idle: (v) => CORNERS.every((name) => v[name][0] === v.topLeft[0] && v[name][1] === v.topLeft[1]),
  reach: () => Infinity,
  run(picture, v, tools) {
    const { w, h } = tools.size;
    const from: Point[] = [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ];
    const map = mapBetween(
      from,
      CORNERS.map((name) => v[name]),
    );
    const room = { x: -FARTHEST * w, y: -FARTHEST * h, w: (2 * FARTHEST + 1) * w, h: (2 * FARTHEST + 1) * h };
    const bounds = map && intersect(placedBounds(map, picture.rect), room);
    return (
      (map && bounds && place(tools, picture, map, 1, bounds)) ?? Picture.make(tools.arena, { x: 0, y: 0, w: 0, h: 0 })
    );
  },
});
