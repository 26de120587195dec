import type { z } from 'zod';
import type { CoveragePlan } from '../masks/coverage';
import type { Moment } from '../time/moment';

/** Units: px = pixels of the source at full size; % = stored as a fraction, 1 = 100 %. */
export type Unit = 'px' | '%' | 'stops' | '°' | 'K' | '';
/** Display-encoded RGB 0…1. */
export type Colour = readonly [number, number, number];

/** A parameter as a pass or source declares it. @typeParam R what it is once it is resolved for a frame */
export interface ParamBase<R = unknown> {
  kind: string;
  label: string;
  /** one sentence for the tooltip and the docs */
  help: string;
  /** what a document that lacks it has; a new one too, unless it says otherwise */
  default: unknown;
  /** what a new one begins with */
  begins?: unknown;
  /** the group of dials that it is shown in, which opens; without one it is always shown */
  group?: string;
  /** the parameter whose dial shows it */
  within?: string;
  /** it is shown only where it is not what a new one begins with */
  retired?: true;
  /** the values of a choice beside it, without which this one has no effect and is not shown */
  when?: { choice: string; is: string | readonly string[] };
  /** only for the compiler: the type of its resolved value */
  readonly resolved?: R;
}
/** Whether a parameter has an effect as the choice that it depends on stands. @param now the value of a choice by its name */
export const counts = ({ when }: Pick<ParamBase, 'when'>, now: (choice: string) => unknown): boolean =>
  !when || [when.is].flat().includes(now(when.choice) as string);

/** What a declaration says of a parameter: all but its kind. */
export type Declared<P extends ParamBase> = Omit<P, 'kind' | 'resolved'>;

/** The numbers of a value, for rows and curves. */
export interface Numbers {
  names: readonly string[];
  unit: string;
  min: number;
  max: number;
}

export type Place = readonly [number, number];
/** Where the picture shows a value and lets it be dragged: pixels at full size from the picture's middle, y down. */
export interface Grip {
  at: Place;
  /** drawn with it */
  line?: readonly [Place, Place];
  /** the value when the grip is put there */
  put(to: Place): unknown;
}
/** What lies around a value whose grip is asked for. */
export interface Around {
  /** of the picture, in pixels at full size */
  size: { w: number; h: number };
  params: Readonly<Record<string, ParamBase>>;
  now(name: string): unknown;
}

/** Which picture of a layer: as it is at the moment, on its first frame, or in the middle of its time; before its Place, or as it lies in the shot. */
export interface PictureOf {
  at: 'now' | 'first' | 'middle';
  placed: boolean;
}
/** What values are resolved with. */
export interface ResolveTools {
  moment: Moment;
  /** of the picture that is worked on, in pixels at the plan's scale */
  size: { w: number; h: number };
  /** the picture of another layer of the shot by a key; null when it has none */
  picture(layer: string, how: PictureOf): string | null;
  /** @param open with paths that are not closed */
  coverage(ids: readonly string[], empty: 'all' | 'none', open?: boolean): CoveragePlan;
}

/** A kind of parameter: what is stored of it, and what becomes of that. */
export interface ParamKind<P extends ParamBase> {
  kind: P['kind'];
  schema(param: P): z.ZodType;
  /** it says what something is, and has no keyframes */
  fixed?: true;
  /** left out when it has no numbers that could be moved one by one */
  numbers?(param: P): Numbers;
  /** left out when the value is used as it is stored. @param now another value as it is stored, at the moment */
  resolve?(param: P, value: unknown, tools: ResolveTools, now: (name: string) => unknown): unknown;
  /** left out when the picture shows nothing of it; null when it does not show this one */
  grip?(param: P, value: unknown, around: Around): Grip | null;
  /** for the docs: which values it takes */
  range(param: P): string;
}
export type AnyKind = ParamKind<ParamBase>;
export const defineKind = <P extends ParamBase>(kind: ParamKind<P>): AnyKind => kind as unknown as AnyKind;

export const ONE = [''] as const;
/** A number as people read it: percent as 50, with its unit. */
export const shown = (value: number, unit: Unit): string =>
  unit === '%' ? `${Math.round(value * 1000) / 10} %` : `${value}${unit && ` ${unit}`}`;
