import { choice } from '../params/choice';
import { number } from '../params/number';
import { pictures } from '../params/pictures';
import { scaling } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { sameRect, type Rect } from '../picture/rect';
import { partOf } from '../picture/rows';
import { place } from '../picture/transform';
import { definePass, type PassTools } from './define';

/** What of a map moves pixels, as shares of its red, green and blue. */
const BY = {
  brightness: [0.2126, 0.7152, 0.0722],
  red: [1, 0, 0],
  green: [0, 1, 0],
  blue: [0, 0, 1],
} as const;
const OPTIONS = Object.keys(BY).map((value) => ({ value, label: value }));
const far = (label: string, initial: number, help: string) =>
  number({ label, unit: 'px', default: initial, min: -2000, max: 2000, slider: [-200, 200], help });

/** Displacement: every pixel is taken from as far off as a map is brighter or darker than middle grey. */
export const displace = definePass({
  type: 'displace',
  title: 'Displace',
  group: 'distort',
  space: 'shot',
  words: [
    'displacement map',
    'bend by a layer',
    'distort by another layer',
    'glass',
    'refraction',
    'wrap onto a surface',
    'emboss',
  ],
  help: 'Bends the picture by how bright another layer is: middle grey leaves it, white and black push it to either side. Clouds make smoke or water of it, a clip of cloth lays it in folds. Relatives: Turbulence, which needs no layer; Ripple; Lens.',
  params: {
    map: pictures({
      label: 'Bent by',
      most: 1,
      placed: true,
      none: 'the picture itself',
      help: 'The layer that bends it, as it lies in the shot with what its passes do; hide it in the shot itself.',
    }),
    across: far('Sideways', 24, 'How far white moves it to the left; black goes as far the other way.'),
    down: far('Upright', 24, 'How far white moves it up; black goes as far the other way.'),
    acrossBy: choice({
      label: 'Sideways by',
      default: 'brightness',
      options: OPTIONS,
      help: 'What of the layer counts.',
    }),
    downBy: choice({ label: 'Upright by', default: 'brightness', options: OPTIONS, help: 'What of the layer counts.' }),
  },
  idle: (v) => v.across === 0 && v.down === 0,
  reach: (v) => Math.ceil(Math.max(Math.abs(v.across), Math.abs(v.down)) / 2) + 1,
  run(picture, v, tools) {
    const { kernels, arena, scratch } = tools;
    const { w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    const found = v.map[0] ? tools.picture(v.map[0]) : null;
    // a layer that is not there bends nothing
    if (v.map.length && !found) return picture.retain();
    const map = found ? mapOver(tools, found, picture.rect) : picture.retain();
    const planes = scratch(2 * w * h * 4 + 16);
    const plane = (at: number, amount: number, by: string): void => {
      const [r, g, b] = BY[by as keyof typeof BY];
      // where the map is clear it is as grey
      kernels.weighedPlane(map.at, at, w * h, amount * r, amount * g, amount * b, -amount / 2);
    };
    plane(planes, v.across, v.acrossBy);
    plane(planes + w * h * 4, v.down, v.downBy);
    map.release();
    for (let row = 0; row < h; row++) {
      const dx = planes + row * w * 4;
      kernels.displacedRow(picture.at, w, h, out.row(row), w, 0, row, dx, dx + w * h * 4, 1);
    }
    return out;
  },
});

/** The part of a map that lies over a rectangle. A map of another size is stretched over all of the picture. */
function mapOver(tools: PassTools, map: Picture, rect: Rect): Picture {
  const { w, h } = map.rect;
  const { size, arena } = tools;
  if (w !== size.w || h !== size.h) {
    const fitted = place(tools, map, scaling(size.w / w, size.h / h), 1, rect);
    if (!fitted) return partOf(tools, map, rect);
    if (sameRect(fitted.rect, rect)) return fitted;
    const all = arena.guarded(() => partOf(tools, fitted, rect));
    fitted.release();
    return all;
  }
  return sameRect(map.rect, rect) ? map.retain() : partOf(tools, map, rect);
}
