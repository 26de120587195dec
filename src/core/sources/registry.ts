import { adjustment } from './adjustment';
import { clouds } from './clouds';
import { colour } from './colour';
import type { AnySource } from './define';
import { gradient } from './gradient';
import { group } from './group';
import { particles } from './particles';
import { shape } from './shape';
import { solid } from './solid';
import { stock } from './stock';
import { title } from './title';

/** Every source there is, in the order in which they are offered. */
export const SOURCES: readonly AnySource[] = [
  stock,
  title,
  solid,
  shape,
  colour,
  gradient,
  clouds,
  particles,
  group,
  adjustment,
];

const byType = new Map(SOURCES.map((source) => [source.type, source]));

/** @returns the declaration, or undefined for a type this version does not know */
export const sourceOf = (type: string): AnySource | undefined => byType.get(type);
