// What an executor computes with. The kernels are the reference; another one may hold its pictures elsewhere.
import type { CoveragePlan } from '../masks/coverage';
import type { FetchedPicture } from '../picture/fetched';
import type { Rect } from '../picture/rect';
import type { LayerPlan, PassPlan, Size, SourcePlan } from '../plan/types';
import type { LineStyle } from '../text/fonts';
import type { PictureCache } from './cache';

/** A picture that a backend holds. Counted references: whoever keeps it retains it and releases it once. */
export interface Held {
  /** what of it there is; it is clear elsewhere */
  readonly rect: Rect;
  readonly bytes: number;
  /** whether someone else holds it too */
  readonly shared: boolean;
  retain(): this;
  release(): void;
}

export type StockPlan = Extract<SourcePlan, { kind: 'stock' }>;
export type DrawnPlan = Extract<SourcePlan, { kind: 'drawn' }>;
export type Fetch = (source: StockPlan) => Promise<FetchedPicture>;

/** Every result is kept while someone is turning dials; only the last one of a layer while a render runs; none of what has no name. */
export type Keep = 'every' | 'last' | 'none';
/** A further picture by its key, not to be released. */
export type Further<P extends Held> = (key: string) => P | undefined;

/** What of a layer others are cut by. */
export type MatteWay = Pick<NonNullable<LayerPlan['matte']>, 'by' | 'invert'>;
/** What a layer comes into. */
export interface Ground<P extends Held> {
  /** size of the shot; what lies under the layer may be a part of it */
  shot: Size;
  /** whether the shot is mixed in linear light, and what lies under the layer is linear */
  linear: boolean;
  /** what the layer is cut by: a plane of the whole shot */
  matte: P | null;
  /** further pictures by their keys */
  moments: ReadonlyMap<string, P>;
}

/**
 * Computes the steps of a plan on pictures of its own kind. Pictures that it returns are owned by the caller; those
 * that it is given stay the caller's, unless said otherwise. Display-encoded and premultiplied where nothing else is said.
 * Synchronous work that throws inside `guarded` gives back all that it took.
 */
export interface Backend<P extends Held> {
  /** results by content key, within what its memory can hold */
  readonly cache: PictureCache<P>;
  guarded<T>(work: () => T): T;

  /** Fetches what coverages need. */
  prepareMasks(plans: readonly CoveragePlan[]): Promise<void>;
  /** Fetches and computes the clean plates of passes. @param size of the layer */
  preparePlates(passes: readonly PassPlan[], size: Size): Promise<void>;
  /** Sets lines of text. @returns the letters that their fonts do not have */
  prepareLines(lines: readonly (readonly [text: string, style: LineStyle])[]): Promise<string>;

  /** A fetched frame as a picture of a size. */
  upload(fetched: FetchedPicture, size: Size): P;
  /** What lies between two frames. */
  between(first: P, second: P, share: number, how: 'blend' | 'flow'): P;
  /** A source that is computed from its values. @param pictures further ones that it names */
  draw(source: DrawnPlan, size: Size, pictures: Further<P>): P;
  /** What stands in for a picture that could not be computed. */
  placeholder(size: Size): P;
  /** A picture of one colour, or a clear one. @param linear in linear light */
  ground(rect: Rect, colour: readonly [number, number, number] | null, linear: boolean): P;

  /** A part of a picture; clear where the picture has nothing. */
  part(picture: P, rect: Rect): P;
  /** A picture halved until it is no wider than a size. */
  halved(picture: P, size: Size): P;
  /** What is seen of a picture: without clear pixels around it. */
  trimmed(picture: P): P;
  /** From linear light to display-encoded, in place. */
  encode(picture: P): void;

  /** Takes a picture of a layer through passes. @param picture given up */
  passes(passes: readonly PassPlan[], picture: P, size: Size, further: Further<P>, keep: Keep): P;
  /** Draws a layer's picture into what lies under it, in place: placed, taken through the passes after Place, mixed. */
  blend(under: P, layer: LayerPlan, picture: P, ground: Ground<P>): void;
  /** Takes what lies under an adjustment layer through its passes, in place. */
  adjust(under: P, layer: LayerPlan, ground: Ground<P>): void;
  /** What a layer covers of its shot, as a plane that others are cut by. */
  matte(layer: LayerPlan, picture: P, how: MatteWay, ground: Ground<P>): P;
}
