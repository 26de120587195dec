import type { Params, Values } from '../params/registry';
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import type { Picture } from '../picture/picture';
import type { LineStyle, TextLine } from '../text/fonts';

export interface SourceTools {
  kernels: Kernels;
  arena: Arena;
  /** of the picture, at the plan's scale */
  size: { w: number; h: number };
  /** a line of text as outlines; one that `lines` has asked for */
  line(text: string, style: LineStyle): TextLine;
  /** another layer's picture by the key that a value of the kind `pictures` has become, not owned by the source. What is drawn has no clear border */
  picture(key: string): Picture | null;
}

/** The time that a source is asked for its values at. */
export interface When<Name> {
  /** since the layer began */
  seconds: number;
  /** frames of layer time in a second */
  perSecond: number;
  /** whether a value has keyframes, or is driven */
  moves(name: Name): boolean;
  /** a value at another frame of layer time */
  at(name: Name, frame: number): unknown;
}

interface SourceBase<P extends Params> {
  type: string;
  title: string;
  /** synonyms and wishes that find it */
  words: readonly string[];
  /** what it shows, and its relatives */
  help: string;
  params: P;
  /** a speed, an offset and a direction make sense for it */
  timed: boolean;
}
/** A source that is computed from its values alone. It has a `size` among them. */
export interface DrawnSource<P extends Params = Params> extends SourceBase<P> {
  /** the lines of text that it draws */
  lines?(values: Values<P>): (readonly [text: string, style: LineStyle])[];
  /** loads what it draws with, where that is large */
  ready?(): Promise<void>;
  /** further values that depend on the time */
  moment?(values: Values<P>, when: When<keyof P>): object;
  draw(values: Values<P>, tools: SourceTools): Picture;
  /** how much of its picture is drawn, about the middle, in pixels; all of it when left out. @param now a value by its name */
  extent?(now: (name: keyof P) => unknown): { w: number; h: number };
}
/** A source whose picture the plan finds elsewhere. */
export interface FoundSource<P extends Params = Params> extends SourceBase<P> {
  /** frames of stock, another shot, or the composite that lies below the layer */
  found: 'stock' | 'shot' | 'below';
}
export type AnySource = DrawnSource | FoundSource;

/** Declares a source. Its dials, schema, search entry and docs all come from this one object. */
export const defineSource = <const P extends Params>(
  source: DrawnSource<P> | FoundSource<P>,
): AnySource & { params: P } => source as unknown as AnySource & { params: P };
