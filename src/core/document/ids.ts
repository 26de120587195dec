// What names the things of a document.
import { z } from 'zod';

const id = <B extends string>(_brand: B) =>
  z
    .string()
    .regex(/^[A-Za-z0-9_-]{1,64}$/)
    .brand<B>();
export const projectIdSchema = id('project');
export const stockIdSchema = id('stock');
export const shotIdSchema = id('shot');
export const layerIdSchema = id('layer');
export const passIdSchema = id('pass');
export type ProjectId = z.infer<typeof projectIdSchema>;
export type StockId = z.infer<typeof stockIdSchema>;
export type ShotId = z.infer<typeof shotIdSchema>;
export type LayerId = z.infer<typeof layerIdSchema>;
export type PassId = z.infer<typeof passIdSchema>;

/** What a thing is called. */
export const nameSchema = z.string().trim().min(1).max(200);
