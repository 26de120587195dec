import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

const id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/);

/** An item of stock, by id. */
export interface StockParam extends ParamBase<string> {
  kind: 'stock';
  default: string;
}
export const stock = (p: Declared<StockParam>): StockParam => ({ kind: 'stock', ...p });
export const stockKind = defineKind<StockParam>({
  kind: 'stock',
  fixed: true,
  schema: () => id,
  range: () => 'an item of stock',
});

/** Another shot of the project, by id. */
export interface ShotParam extends ParamBase<string> {
  kind: 'shot';
  default: string;
}
export const shot = (p: Declared<ShotParam>): ShotParam => ({ kind: 'shot', ...p });
export const shotKind = defineKind<ShotParam>({
  kind: 'shot',
  fixed: true,
  schema: () => id,
  range: () => 'a shot of the project',
});

/** Layers of the shot, by id; none means all that lie below. */
export interface LayersParam extends ParamBase<readonly string[]> {
  kind: 'layers';
  default: readonly string[];
}
export const layers = (p: Declared<LayersParam>): LayersParam => ({ kind: 'layers', ...p });
export const layersKind = defineKind<LayersParam>({
  kind: 'layers',
  fixed: true,
  schema: () => z.array(id).max(1000),
  range: () => 'layers of the shot, or none',
});
