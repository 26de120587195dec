import type { LayerId, Project, Shot } from '../../core/document/schema';
import type { Colour } from '../../core/passes/define';
import { planFrame, type Reduction } from '../../core/plan/plan';
import type { Rect } from '../../core/picture/rect';
import { useEngine } from '../../engine/client';

/** Mean colour of straight RGBA bytes where they are covered, display-encoded 0…1. @param part whole pixels inside w×h, at least one each way */
export function meanColour(pixels: Uint8ClampedArray, w: number, part: Rect): Colour {
  const sum = [0, 0, 0];
  let covered = 0;
  for (let y = part.y; y < part.y + part.h; y++) {
    for (let i = (y * w + part.x) * 4, end = i + part.w * 4; i < end; i += 4) {
      const alpha = pixels[i + 3]!;
      for (let c = 0; c < 3; c++) sum[c]! += pixels[i + c]! * alpha;
      covered += alpha;
    }
  }
  return sum.map((v) => (covered ? v / covered / 255 : 0)) as unknown as Colour;
}

/**
 * Mean colour of the shot at a frame without one of its layers.
 * @param part in shot pixels, cut to the shot; all of it when left out
 */
export async function colourWithout(project: Project, shot: Shot, layer: LayerId, frame: number, part?: Rect): Promise<Colour> {
  const without = { ...shot, layers: shot.layers.map((item) => (item.id === layer ? { ...item, shown: false } : item)) };
  const reduction: Reduction = part ? 1 : 4;
  const plan = planFrame({ ...project, shots: [without] }, shot.id, frame, { reduction });
  const pixels = await (await useEngine()).pixels(plan);
  if (!part) return meanColour(pixels, plan.width, { x: 0, y: 0, w: plan.width, h: plan.height });
  const within = (v: number, most: number) => Math.max(0, Math.min(most - 1, Math.floor(v)));
  const [x, y] = [within(part.x, plan.width), within(part.y, plan.height)];
  return meanColour(pixels, plan.width, { x, y, w: within(part.x + part.w, plan.width) - x + 1, h: within(part.y + part.h, plan.height) - y + 1 });
}
