// Masks of a layer at a moment, as plain data.
import type { DrawnMatte, Mask, MaskId, Shape } from '../document/mask';
import type { Layer, Project, Shot } from '../document/schema';
import type { Value } from '../document/value';
import type { CoveragePlan, MaskPlan, ShapePlan } from '../masks/coverage';
import { matteId } from '../masks/matte-data';
import { secondsAt, STAMP_ROUNDING } from '../time/rate';
import { valueAt } from '../time/values';

/** Chosen masks of a layer at a moment, in their order. One in which nothing has been drawn yet does not count. */
export function planCoverage(
  project: Project,
  shot: Shot,
  layer: Layer,
  ids: readonly MaskId[],
  local: number,
  size: { w: number; h: number },
  reduction: number,
): CoveragePlan {
  const chosen = layer.masks.filter((mask) => mask.on && ids.includes(mask.id) && !isBlank(mask.shape));
  return {
    masks: chosen.map((mask) => planMask(project, shot, mask, local)),
    side: 'inside',
    scale: 1 / reduction,
    centre: [size.w / 2, size.h / 2],
  };
}

const everyOf = <T>(value: Value<T>): T[] => ('still' in value ? [value.still] : value.keys.map((key) => key.value));
/** True when nothing has been drawn in a shape, on any frame. */
function isBlank(shape: Shape): boolean {
  if (shape.kind === 'path') return !shape.closed;
  if (shape.kind === 'brush') return everyOf(shape.strokes as Value<unknown[]>).every((strokes) => !strokes.length);
  return shape.kind === 'matte' && everyOf(shape.matte).every((matte) => !matte.data);
}

function planMask(project: Project, shot: Shot, mask: Mask, local: number): MaskPlan {
  const { mode, invert, featherSide } = mask;
  const opacity = Math.min(1, Math.max(0, valueAt(mask.opacity, local)));
  const feather = Math.max(0, valueAt(mask.feather, local));
  return {
    mode,
    invert,
    opacity,
    feather,
    featherSide,
    grow: valueAt(mask.grow, local),
    shape: planShape(project, shot, mask, local),
  };
}

function planShape(project: Project, shot: Shot, { shape }: Mask, local: number): ShapePlan {
  if (shape.kind === 'picture') {
    const item = project.stock.find((entry) => entry.id === shape.stock);
    const seconds =
      item?.kind === 'video'
        ? Math.min(
            Math.max(0, secondsAt(local, shot.rate)),
            Math.max(0, (item.facts.seconds ?? Infinity) - secondsAt(1, shot.rate)),
          )
        : 0;
    return {
      kind: 'picture',
      stock: shape.stock,
      name: item?.name ?? 'missing stock',
      file: item ? `${item.file} ${item.facts.bytes}` : '',
      seconds: seconds + STAMP_ROUNDING,
      channel: shape.channel,
    };
  }
  if (shape.kind === 'matte') return { kind: 'matte', id: matteId(valueAt(shape.matte as Value<DrawnMatte>, local)) };
  const values = Object.entries(shape).map(([name, value]) => [
    name,
    value && typeof value === 'object' && !Array.isArray(value) ? valueAt(value as Value<unknown>, local) : value,
  ]);
  return Object.fromEntries(values) as ShapePlan;
}
