import type { PassTools } from '../passes/define';
import type { Matrix, Projective } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { place } from '../picture/transform';

/** The picture drawn through a map of the shot's pixels, cut to the shot; a clear one where nothing of it shows. @returns owned by the caller */
export function drawnThrough(tools: PassTools, picture: Picture, map: Matrix | Projective, opacity = 1): Picture {
  const shot = { x: 0, y: 0, ...tools.size };
  const out = opacity > 0 ? place(tools, picture, map, opacity, shot) : null;
  return out ?? Picture.make(tools.arena, { x: 0, y: 0, w: 0, h: 0 });
}
