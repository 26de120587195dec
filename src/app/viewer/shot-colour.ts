import type { LayerId, Project, Shot } from '../../core/document/schema';
import type { Colour } from '../../core/params/define';
import { planWithout } from '../../core/plan/looks';
import type { Reduction } from '../../core/time/moment';
import { meanColour } from '../../core/picture/mean-colour';
import type { Rect } from '../../core/picture/rect';
import { useEngine } from '../../engine/client';

/**
 * Mean colour of the shot at a frame without one of its layers.
 * @param part in shot pixels, cut to the shot; all of it when left out
 */
export async function colourWithout(
  project: Project,
  shot: Shot,
  layer: LayerId,
  frame: number,
  part?: Rect,
): Promise<Colour> {
  const reduction: Reduction = part ? 1 : 4;
  const plan = planWithout(project, shot, layer, frame, reduction);
  const pixels = await (await useEngine()).pixels(plan);
  if (!part) return meanColour(pixels, plan.width, { x: 0, y: 0, w: plan.width, h: plan.height });
  const within = (v: number, most: number) => Math.max(0, Math.min(most - 1, Math.floor(v)));
  const [x, y] = [within(part.x, plan.width), within(part.y, plan.height)];
  return meanColour(pixels, plan.width, {
    x,
    y,
    w: within(part.x + part.w, plan.width) - x + 1,
    h: within(part.y + part.h, plan.height) - y + 1,
  });
}
