import type { AutoReading } from '../analysis/automatic';
import type { Matched } from '../analysis/match';
import type { CoveragePlan } from '../masks/coverage';
import { choice } from '../params/choice';
import type { TablePlan } from '../params/table';
import type { PlatePlan } from '../params/plate';
import type { Params, Values } from '../params/registry';
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import type { Picture } from '../picture/picture';
import type { Rect } from '../picture/rect';

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

export interface PassTools {
  kernels: Kernels;
  arena: Arena;
  /** size of the layer's source at the plan's scale; its origin is the source's top left */
  size: { w: number; h: number };
  /** coverage of masks over a rectangle: address of w×h floats, room for three more */
  coverage(plan: CoveragePlan, rect: Rect): number;
  /** the part of a plate that lies in a rectangle, not owned by the pass; clear where the plate has nothing; null when none is chosen */
  plate(plan: PlatePlan, rect: Rect): Picture | null;
  /** values of a colour table, four floats an entry, not to be changed; null when they are not there */
  table(plan: NonNullable<TablePlan>): Float32Array | null;
  /** what lies under the layer in a rectangle of the shot, not owned by the pass; null where a layer is computed by itself */
  below(rect: Rect): Picture | null;
  /** the picture at one of the pass's further moments, display-encoded, not owned by the pass; null when there is none */
  moment(index: number): Picture | null;
  /** another layer's picture by the key that a value of the kind `pictures` has become, not owned by the pass */
  picture(key: string): Picture | null;
  /** memory of the pass for the length of one run */
  scratch(bytes: number): number;
}

/** What becomes of display-encoded red, green and blue, and how saturated the result is about its luma. */
export interface ChannelCurves {
  of: readonly [(v: number) => number, (v: number) => number, (v: number) => number];
  saturation: number;
}

/** Processes n pixels of row y, starting at column x of the source; src and dst may be the same. */
export type RowRunner = (src: number, dst: number, n: number, x: number, y: number) => void;

interface PassBase<P extends Params> {
  type: string;
  title: string;
  /** the kind of work, for grouping in search and docs */
  group: 'cut out' | 'grade' | 'focus' | 'light' | 'texture' | 'distort' | 'frame' | 'time';
  /** where a new one goes: before Place, in the source's pixels, or after it, in the shot's. Before when left out */
  space?: 'layer' | 'shot';
  /** further pictures that it asks for. What lies below is there only after Place */
  needs?: readonly 'below'[];
  /** the light that it wants after Place: display-encoded when left out, or that in which the shot is mixed */
  light?: 'shot';
  /** synonyms and wishes that find this pass */
  words: readonly string[];
  /** what it computes, and its relatives */
  help: string;
  params: P;
  /** what its dials say of its present values, with those that depend on the moment */
  note?(values: Values<P>): { says: string; warns: boolean };
  /** what a new one begins with on a picture of a size, in pixels, where that depends on it */
  fitted?(size: { w: number; h: number }): Partial<Record<keyof P, unknown>>;
  /** values that it can take from a reading of the picture that comes in. @param values as they are now */
  automatic?(reading: AutoReading, values: Values<P>): Partial<Record<keyof P, unknown>>;
  /** values that match a picture to another */
  matched?(values: Matched): Partial<Record<keyof P, unknown>>;
  /** false when what it makes of a colour depends on where it lies */
  byColour?: false;
  /** kinds of files that hold its values: what to read, and what to write by ending */
  files?: {
    reads: readonly string[];
    /** @returns every set of values in the file with its name @throws JackplaneError bad-media */
    read(text: string, file: string): { name: string; values: Partial<Record<keyof P, unknown>> }[];
    writes: Readonly<Record<string, (values: Values<P>, name: string) => string>>;
  };
  /** values with which it shows what it selects, white on black, for making a mask of it */
  selection?: Partial<Record<keyof P, unknown>>;
  /** dials that grade dark, middle and bright parts, and where these go over into each other: over luma 0…1 */
  ranges?: {
    lights: readonly [dark: keyof P, middle: keyof P, bright: keyof P];
    limits: readonly [darkTo: keyof P, brightFrom: keyof P];
    presets: readonly { title: string; values: Partial<Record<keyof P, unknown>> }[];
    /** @returns shares of the three at a luma, together 1 */
    shares(values: Values<P>, luma: number): readonly [dark: number, middle: number, bright: number];
  };
  /** what it is also used for: chosen by name and by picture like a pass of its own, and put in with these values */
  uses?: readonly { title: string; words: readonly string[]; values: Partial<Record<keyof P, unknown>> }[];
  /** it draws lots or marks for every pixel, so that pictures of different sizes are alike on average only */
  lots?: boolean;
  /** it judges its picture's own pixels, so that what it makes of a smaller one is not what it makes of the full one, made smaller */
  fine?: true;
  /** it has masks of its own, so that it is not limited to an area */
  whole?: boolean;
}
/** A pass whose every pixel depends on that pixel alone (and its place). Runs of these are done in one sweep over the rows. */
export interface PointPass<P extends Params = Params> extends PassBase<P> {
  /** the part of the incoming rectangle that can be other than clear */
  cover?(rect: Rect, values: Values<P>, size: { w: number; h: number }): Rect;
  /** true when these values change nothing */
  idle?(values: Values<P>): boolean;
  /** what it does to each channel by itself, where that and a saturation are all it does: neighbours of this kind are done as one when nobody asks for the pictures between them */
  curves?(values: Values<P>): ChannelCurves | null;
  prepare(values: Values<P>, tools: PassTools): RowRunner;
}
/** A pass that reads around each pixel; gets and gives whole pictures. */
export interface AreaPass<P extends Params = Params> extends PassBase<P> {
  /** pixels around a pixel that it reads; Infinity when any pixel of the picture may count */
  reach(values: Values<P>): number;
  idle?(values: Values<P>): boolean;
  /** other moments at which it asks for its picture, in frames from the present one. On an adjustment layer these are of what lies below */
  moments?(values: Values<P>): readonly number[];
  /** further values that depend on the frame of layer time, or on how many times smaller than full size the plan is; they are part of what the result is known by */
  moment?(values: Values<P>, frame: number, reduction: number): object;
  /** @returns a new picture; the incoming one stays as it is */
  run(picture: Picture, values: Values<P>, tools: PassTools): Picture;
}
export type AnyPass = PointPass | AreaPass;

/** Declares a pass. Its dials, schema, search entry and docs all come from this one object. */
export function definePass<const P extends Params>(pass: PointPass<P> | AreaPass<P>): AnyPass & { params: P } {
  return pass as unknown as AnyPass & { params: P };
}
