import { z } from 'zod';
import { maskIdSchema } from '../document/mask';
import { valueOf, type Value } from '../document/value';
import type { CoveragePlan } from '../masks/coverage';
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import type { Picture } from '../picture/picture';
import type { Rect } from '../picture/rect';

/** Units: px = pixels of the source at full size; % = stored as a fraction, 1 = 100 %. */
export type Unit = 'px' | '%' | 'stops' | '°' | '';

interface ParamBase {
  label: string;
  /** one sentence for the tooltip and the docs */
  help: string;
  /** the value of a choice of the same pass, without which this one has no effect and is not shown */
  when?: { choice: string; is: string };
}
export interface NumberParam extends ParamBase {
  kind: 'number';
  unit: Unit;
  default: number;
  min: number;
  max: number;
  slider: readonly [number, number];
}
export interface ChoiceParam extends ParamBase {
  kind: 'choice';
  default: string;
  options: readonly { value: string; label: string }[];
}
/** A list of picked colours, display-encoded RGB 0…1. */
export interface SamplesParam extends ParamBase {
  kind: 'samples';
  /** what is picked from: what comes into the pass, or the shot without the layer */
  from?: 'layer' | 'shot';
  default: readonly Colour[];
  most: number;
}
/** Masks of the layer, by id. */
export interface MasksParam extends ParamBase {
  kind: 'masks';
  /** what no choice means */
  empty: 'all' | 'none';
  default: readonly string[];
}
/** A picture of the scene without its subject: a moment of stock, or the median over a whole clip. */
export interface PlateParam extends ParamBase {
  kind: 'plate';
  default: null;
}
export const plateSchema = z
  .object({
    stock: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
    seconds: z.number().min(0).max(1e6),
    median: z.boolean(),
  })
  .strict()
  .nullable();
export type Plate = z.infer<typeof plateSchema>;
/** The moments whose median the plate is; one for a single frame. Null when none is chosen. */
export type PlatePlan = { stock: string; name: string; file: string; seconds: readonly number[] } | null;

export type Param = NumberParam | ChoiceParam | SamplesParam | MasksParam | PlateParam;
export type Colour = readonly [number, number, number];

export const number = (p: Omit<NumberParam, 'kind'>): NumberParam => ({ kind: 'number', ...p });
export const choice = (p: Omit<ChoiceParam, 'kind'>): ChoiceParam => ({ kind: 'choice', ...p });
export const samples = (p: Omit<SamplesParam, 'kind'>): SamplesParam => ({ kind: 'samples', ...p });
export const masks = (p: Omit<MasksParam, 'kind' | 'default'>): MasksParam => ({ kind: 'masks', default: [], ...p });
export const plate = (p: Omit<PlateParam, 'kind' | 'default'>): PlateParam => ({ kind: 'plate', default: null, ...p });
/** How a key goes together with the keys right before it. */
export const COMBINE = choice({
  label: 'With earlier keys',
  default: 'multiply',
  options: [
    { value: 'multiply', label: 'multiply' },
    { value: 'max', label: 'keep what either keeps' },
    { value: 'min', label: 'keep what both keep' },
  ],
  help: 'How this key goes together with the keys right before it. The last two give every key the picture as it was before the first of them.',
});

type Resolved<P> = P extends PlateParam
  ? PlatePlan
  : P extends MasksParam
    ? CoveragePlan
    : P extends NumberParam
      ? number
      : P extends ChoiceParam
        ? string
        : P extends SamplesParam
          ? readonly Colour[]
          : never;
/** A pass's values at one frame; pixel values already at the plan's scale. */
export type Values<P extends Record<string, Param>> = { [K in keyof P]: Resolved<P[K]> };
export type PlainValues = Record<string, number | string | readonly Colour[] | CoveragePlan | PlatePlan>;

export interface PassTools {
  kernels: Kernels;
  arena: Arena;
  /** size of the layer's source at the plan's scale; its origin is the source's top left */
  size: { w: number; h: number };
  /** coverage of masks over a rectangle: address of w×h floats, room for three more */
  coverage(plan: CoveragePlan, rect: Rect): number;
  /** the part of a plate that lies in a rectangle, not owned by the pass; clear where the plate has nothing; null when none is chosen */
  plate(plan: PlatePlan, rect: Rect): Picture | null;
  /** memory of the pass for the length of one run */
  scratch(bytes: number): number;
}

/** Processes n pixels of row y, starting at column x of the source; src and dst may be the same. */
export type RowRunner = (src: number, dst: number, n: number, x: number, y: number) => void;

interface PassBase<P extends Record<string, Param>> {
  type: string;
  title: string;
  /** the kind of work, for grouping in search and docs */
  group: 'cut out' | 'grade' | 'focus' | 'frame';
  /** synonyms and wishes that find this pass */
  words: readonly string[];
  /** what it computes, and its relatives */
  help: string;
  params: P;
}
/** A pass whose every pixel depends on that pixel alone (and its place). Runs of these are done in one sweep over the rows. */
export interface PointPass<P extends Record<string, Param> = Record<string, Param>> extends PassBase<P> {
  /** the part of the incoming rectangle that can be other than clear */
  cover?(rect: Rect, values: Values<P>, size: { w: number; h: number }): Rect;
  /** true when these values change nothing */
  idle?(values: Values<P>): boolean;
  prepare(values: Values<P>, tools: PassTools): RowRunner;
}
/** A pass that reads around each pixel; gets and gives whole pictures. */
export interface AreaPass<P extends Record<string, Param> = Record<string, Param>> extends PassBase<P> {
  /** pixels around a pixel that it reads; Infinity when any pixel of the picture may count */
  reach(values: Values<P>): number;
  idle?(values: Values<P>): boolean;
  /** further values that depend on the frame of layer time; they are part of what the result is known by */
  moment?(values: Values<P>, frame: number): Record<string, number>;
  /** @returns a new picture; the incoming one stays as it is */
  run(picture: Picture, values: Values<P>, tools: PassTools): Picture;
}
export type AnyPass = PointPass | AreaPass;

/** Declares a pass. Its dials, schema, search entry and docs all come from this one object. */
export function definePass<const P extends Record<string, Param>>(
  pass: PointPass<P> | AreaPass<P>,
): AnyPass & { params: P } {
  return pass as unknown as AnyPass & { params: P };
}

function paramSchema(param: Param): z.ZodType {
  if (param.kind === 'number') return z.number().min(param.min).max(param.max);
  if (param.kind === 'choice') return z.enum(param.options.map((option) => option.value) as [string, ...string[]]);
  if (param.kind === 'plate') return plateSchema;
  if (param.kind === 'masks') return z.array(maskIdSchema).max(64);
  const channel = z.number().min(0).max(1);
  return z.array(z.tuple([channel, channel, channel])).max(param.most);
}

/** Schema of the values of a pass in a document. */
export function valuesSchema(params: Record<string, Param>) {
  // a value that is not there is one that came after the document was written
  return z
    .object(
      Object.fromEntries(
        Object.entries(params).map(([name, param]) => [
          name,
          valueOf(paramSchema(param)).default({ still: structuredClone(param.default) } as never),
        ]),
      ),
    )
    .strict();
}

/** The default of every parameter, as still values. */
export function defaultValues(params: Record<string, Param>): Record<string, Value<unknown>> {
  return Object.fromEntries(
    Object.entries(params).map(([name, param]) => [name, { still: structuredClone(param.default) }]),
  );
}
