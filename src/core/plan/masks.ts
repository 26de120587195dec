// Masks of a layer at a moment, as plain data.
import type { Mask, MaskId, Shape } from '../document/mask';
import type { Value } from '../base/value';
import type { CoveragePlan, MaskPlan, ShapePlan } from '../masks/coverage';
import { matteId, type DrawnMatte } from '../masks/matte-data';
import { secondsAt, STAMP_ROUNDING } from '../time/rate';
import type { Moment } from '../time/moment';
import { valueAt } from '../time/values';

/** Chosen masks of a layer at a moment, in their order. One in which nothing has been drawn yet does not count. @param open paths that are not closed do */
export function planCoverage(
  moment: Moment,
  ids: readonly MaskId[],
  size: { w: number; h: number },
  open = false,
): CoveragePlan {
  const chosen = moment.layer.masks.filter((mask) => mask.on && ids.includes(mask.id) && !isBlank(mask.shape, open));
  return {
    masks: chosen.map((mask) => planMask(moment, mask)),
    side: 'inside',
    scale: 1 / moment.reduction,
    centre: [size.w / 2, size.h / 2],
  };
}

const everyOf = <T>(value: Value<T>): T[] => ('still' in value ? [value.still] : value.keys.map((key) => key.value));
/** True when nothing has been drawn in a shape, on any frame. */
function isBlank(shape: Shape, open: boolean): boolean {
  if (shape.kind === 'path') return !shape.closed && !open;
  if (shape.kind === 'brush') return everyOf(shape.strokes as Value<unknown[]>).every((strokes) => !strokes.length);
  return shape.kind === 'matte' && everyOf(shape.matte).every((matte) => !matte.data);
}

function planMask(moment: Moment, mask: Mask): MaskPlan {
  const { mode, invert, featherSide } = mask;
  const opacity = Math.min(1, Math.max(0, valueAt(mask.opacity, moment)));
  const feather = Math.max(0, valueAt(mask.feather, moment));
  return {
    mode,
    invert,
    opacity,
    feather,
    featherSide,
    grow: valueAt(mask.grow, moment),
    shape: planShape(moment, mask),
  };
}

function planShape(moment: Moment, { shape }: Mask): ShapePlan {
  const { project, shot, frame } = moment;
  if (shape.kind === 'picture') {
    const item = project.stock.find((entry) => entry.id === shape.stock);
    const seconds =
      item?.kind === 'video'
        ? Math.min(
            Math.max(0, secondsAt(frame, shot.rate)),
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
  if (shape.kind === 'matte') return { kind: 'matte', id: matteId(valueAt(shape.matte as Value<DrawnMatte>, moment)) };
  const values = Object.entries(shape).map(([name, value]) => [
    name,
    value && typeof value === 'object' && !Array.isArray(value) ? valueAt(value as Value<unknown>, moment) : value,
  ]);
  return Object.fromEntries(values) as ShapePlan;
}
