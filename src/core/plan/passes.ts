// Declared values and passes at a moment.
import type { MaskId } from '../document/mask';
import type { Pass, PassId } from '../document/schema';
import type { Value } from '../base/value';
import type { ResolveTools } from '../params/define';
import { resolved, type Params, type PlainValues } from '../params/registry';
import { passOf } from '../passes/registry';
import { stepOf } from '../transitions/registry';
import type { Moment } from '../time/moment';
import { valueAt } from '../time/values';
import { hash } from '../base/hash';
import { planCoverage } from './masks';
import type { PassPlan, Size } from './types';

/** How further pictures are planned; each says what they are known by. */
export interface Others {
  /** what a pass would get some frames from now */
  moment(pass: PassId, frames: number): string | null;
  /** another layer of the shot */
  picture: ResolveTools['picture'];
}
const NO_OTHERS: Others = { moment: () => null, picture: () => null };

/**
 * The passes of one space that are on, resolved. @param size of the picture that masks are drawn on @param key of the picture before them
 * @param others left out where there are no further pictures @param within size of the picture that they work on, where that is another one: after Place
 */
export function planPasses(
  moment: Moment,
  passes: readonly Pass[],
  size: Size,
  key: string,
  others: Others = NO_OTHERS,
  within: Size = size,
): PassPlan[] {
  const tools = { ...resolveTools(moment, size, others.picture), size: within };
  return passes.flatMap((pass) => {
    const declared = pass.on ? passOf(pass.type) : undefined;
    if (!declared) return [];
    const resolved = valuesOf(declared.params, inUse(pass, declared.params), tools);
    const values =
      'moment' in declared && declared.moment
        ? { ...resolved, ...declared.moment(resolved as never, moment.frame, moment.reduction) }
        : resolved;
    const limits = pass.area && tools.coverage(pass.area.masks, 'none');
    // an area is one as soon as something is drawn in it
    const area = limits?.masks.length ? { ...limits, side: pass.area!.side } : null;
    const idle = declared.idle?.(values as never) ?? false;
    const frames = !idle && 'moments' in declared ? declared.moments!(values as never) : null;
    const moments = frames && { moments: frames.map((by) => others.moment(pass.id, by)) };
    if (!idle) key = hash(`${key} ${pass.type} ${JSON.stringify([values, area, moments?.moments])}`);
    return [{ id: pass.id, type: pass.type, values, area, ...moments, key }];
  });
}

/** A pass's values; those of groups that are left out are as in a new one. */
function inUse({ values, out }: Pass, params: Params): Pass['values'] {
  if (!out?.length) return values;
  const kept = Object.entries(values).filter(([name]) => !out.includes(params[name]?.group ?? ''));
  return Object.fromEntries(kept);
}

export const isIdle = (pass: PassPlan): boolean => stepOf(pass.type)!.idle?.(pass.values as never) ?? false;
/** True for a key that needs the picture from before the keys that it goes together with. */
export const joins = (pass: PassPlan | undefined): boolean =>
  pass?.values['combine'] === 'max' || pass?.values['combine'] === 'min';
/** @param size of the picture that the values work on, at the plan's scale */
export const resolveTools = (moment: Moment, size: Size, picture = NO_OTHERS.picture): ResolveTools => ({
  moment,
  size,
  picture,
  coverage: (ids, empty, open) =>
    planCoverage(
      moment,
      ids.length || empty === 'none' ? (ids as MaskId[]) : moment.layer.masks.map((mask) => mask.id),
      size,
      open,
    ),
});

export const valuesOf = (
  params: Params,
  values: Readonly<Record<string, Value<unknown>>>,
  tools: ResolveTools,
): PlainValues => {
  const now = (name: string): unknown => {
    // a step that is undone may lead back to a document from before there was this value
    const value = values[name] ?? { still: params[name]?.default };
    return valueAt(value as Value<unknown>, tools.moment);
  };
  return Object.fromEntries(
    Object.entries(params).map(([name, param]) => [name, resolved(param, now(name), tools, now)]),
  );
};
