import { z } from 'zod';
import { valueOf, type Value } from '../base/value';
import { angleKind, type AngleParam } from './angle';
import { booleanKind, type BooleanParam } from './boolean';
import { choiceKind, type ChoiceParam } from './choice';
import { colourKind, type ColourParam } from './colour';
import { curveKind, type CurveParam } from './curve';
import type { AnyKind, Around, Grip, Numbers, ParamBase, ResolveTools } from './define';
import { fontKind, type FontParam } from './font';
import { masksKind, type MasksParam } from './masks';
import { numberKind, type NumberParam } from './number';
import { plateKind, type PlateParam } from './plate';
import { picturesKind, type PicturesParam } from './pictures';
import { pointKind, type PointParam } from './point';
import { rampKind, type RampParam } from './ramp';
import { layersKind, shotKind, stockKind, type LayersParam, type ShotParam, type StockParam } from './reference';
import { readingKind, type ReadingParam } from './reading';
import { samplesKind, type SamplesParam } from './samples';
import { seedKind, type SeedParam } from './seed';
import { trackKind, type TrackParam } from './track';
import { tableKind, type TableParam } from './table';
import { textKind, type TextParam } from './text';
import { wheelKind, type WheelParam } from './wheel';
import { sizeKind, type SizeParam } from './size';

export type Param =
  | NumberParam
  | AngleParam
  | BooleanParam
  | ChoiceParam
  | FontParam
  | ColourParam
  | CurveParam
  | ReadingParam
  | SamplesParam
  | MasksParam
  | PlateParam
  | PointParam
  | SizeParam
  | RampParam
  | SeedParam
  | StockParam
  | ShotParam
  | LayersParam
  | PicturesParam
  | TrackParam
  | WheelParam
  | TableParam
  | TextParam;
export type Params = Readonly<Record<string, Param>>;

const KINDS: readonly AnyKind[] = [
  numberKind,
  angleKind,
  booleanKind,
  textKind,
  choiceKind,
  fontKind,
  colourKind,
  curveKind,
  readingKind,
  samplesKind,
  masksKind,
  plateKind,
  pointKind,
  sizeKind,
  rampKind,
  seedKind,
  stockKind,
  shotKind,
  layersKind,
  picturesKind,
  trackKind,
  wheelKind,
  tableKind,
];
const byName = new Map(KINDS.map((kind) => [kind.kind, kind]));
export const kindOf = (param: ParamBase): AnyKind => byName.get(param.kind)!;

/** A declared thing's values at one frame; pixels already at the plan's scale. */
export type Values<P> = { [K in keyof P]: P[K] extends ParamBase<infer R> ? R : never };
/** The same where the declaration is not known. */
export type PlainValues = Record<string, unknown>;

/** The grip of a value on the picture, if it has one. */
export const gripOf = (param: Param, value: unknown, around: Around): Grip | null =>
  kindOf(param).grip?.(param, value, around) ?? null;
export const numbersOf = (param: Param): Numbers | null => kindOf(param).numbers?.(param) ?? null;
export const rangeOf = (param: Param): string => kindOf(param).range(param);

export function resolved(param: Param, value: unknown, tools: ResolveTools, now: (name: string) => unknown): unknown {
  const { resolve } = kindOf(param);
  return resolve ? resolve(param, value, tools, now) : value;
}

const stored = (param: Param): z.ZodType => {
  const { schema, fixed } = kindOf(param);
  return fixed ? z.object({ still: schema(param) }).strict() : valueOf(schema(param));
};

const schemas = new WeakMap<Params, z.ZodType<Record<string, unknown>>>();
/** Schema of declared values in a document. A value that is not there is one that came after the document was written. */
export function valuesSchema(params: Params): z.ZodType<Record<string, unknown>> {
  const made = schemas.get(params) ?? madeSchema(params);
  schemas.set(params, made);
  return made;
}
const madeSchema = (params: Params) =>
  z
    .object(
      Object.fromEntries(
        Object.entries(params).map(([name, param]) => [
          name,
          stored(param).default({ still: structuredClone(param.default) } as never),
        ]),
      ),
    )
    .strict();

/** What a new one begins with. */
export const beginningOf = (param: ParamBase): unknown => structuredClone(param.begins ?? param.default);
/** What every parameter begins with, as still values. */
export const firstValues = (params: Params): Record<string, Value<unknown>> =>
  Object.fromEntries(Object.entries(params).map(([name, param]) => [name, { still: beginningOf(param) }]));
