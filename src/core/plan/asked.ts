// What passes ask for beside their picture.
import type { CoveragePlan } from '../masks/coverage';
import type { Params, PlainValues } from '../params/registry';
import type { TablePlan } from '../params/table';
import { paramsOf } from '../passes/registry';
import type { PassPlan } from './types';

/** The names of all colour tables that a pass asks for. */
export const tablesOf = (pass: PassPlan): string[] =>
  Object.entries(paramsOf(pass.type)).flatMap(([name, param]) =>
    param.kind === 'table' ? ((pass.values[name] as TablePlan)?.id ?? []) : [],
  );

/** The keys of all pictures of other layers that values name. */
export const picturesIn = (params: Params, values: PlainValues): string[] =>
  Object.entries(params).flatMap(([name, param]) =>
    param.kind === 'pictures' ? (values[name] as string[]).filter((key) => key) : [],
  );

/** All coverages that a pass asks for. */
export function coveragesOf(pass: PassPlan): CoveragePlan[] {
  const params = paramsOf(pass.type);
  const own = Object.entries(params).flatMap(([name, param]) =>
    param.kind === 'masks' ? [pass.values[name] as CoveragePlan] : [],
  );
  return pass.area ? [...own, pass.area] : own;
}
