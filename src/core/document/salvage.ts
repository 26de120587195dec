// A document with parts that cannot be read: what remains without them, and what they were.
import type { z } from 'zod';
import { groupOf, projectSchema, stockOf, type Project } from './schema';

export interface Salvaged {
  project: Project;
  /** what was left out, each as a sentence */
  left: string[];
}

type Part = { list: unknown[]; index: number; what: string };
/** The lists whose members can be left out, as they lie on the way to a problem, and what one of them is called. */
const LISTS: Record<string, string> = {
  stock: 'stock item',
  shots: 'shot',
  layers: 'layer',
  passes: 'pass',
  masks: 'mask',
  markers: 'marker',
  tracks: 'track',
};
/** Most parts that are left out before the whole is given up. */
const MOST = 500;

/** @returns null when it cannot be read even without its bad parts */
export function salvaged(raw: unknown): Salvaged | null {
  const copy = structuredClone(raw);
  const left: string[] = [];
  for (;;) {
    const parsed = projectSchema.safeParse(copy);
    if (parsed.success) return { project: parsed.data, left };
    const part = badPart(copy, parsed.error);
    if (!part || left.length >= MOST) return null;
    part.list.splice(part.index, 1);
    left.push(part.what);
  }
}

function badPart(raw: unknown, error: z.ZodError): Part | null {
  for (const issue of error.issues) {
    const part = issue.path.length ? partOn(raw, issue.path, issue.message) : strayed(raw, issue.message);
    if (part) return part;
  }
  return null;
}

/** The smallest part on the way to a problem. */
function partOn(raw: unknown, path: readonly PropertyKey[], message: string): Part | null {
  let node = raw as Record<PropertyKey, unknown>;
  let part: Part | null = null;
  path.forEach((step, i) => {
    const below = node?.[step];
    const list = path[i - 1];
    const kind = LISTS[String(list)];
    if (Array.isArray(node) && kind) {
      const named = (below as { name?: unknown } | null)?.name ?? (below as { type?: unknown } | null)?.type ?? step;
      part = {
        list: node,
        index: Number(step),
        what: `${kind} “${String(named)}” (${path.slice(i + 1).join('.') || 'as a whole'}: ${message.split(':')[0]!.toLowerCase()})`,
      };
    }
    node = below as typeof node;
  });
  return part;
}

/** Problems between parts: a layer whose stock or group is not there, or one that closes a circle. */
function strayed(raw: unknown, message: string): Part | null {
  const { stock, shots } = (raw ?? {}) as Partial<Project>;
  if (!Array.isArray(stock) || !Array.isArray(shots)) return null;
  const known = new Set(stock.map((item) => item.id));
  const groups = new Set(shots.map((shot) => shot.id));
  for (const shot of shots) {
    const index = shot.layers.findIndex((layer) => {
      const item = stockOf(layer);
      const group = groupOf(layer);
      return (item !== null && !known.has(item)) || (group !== null && !groups.has(group));
    });
    if (index >= 0) return { list: shot.layers, index, what: `layer “${shot.layers[index]!.name}” (${message})` };
    const nested = message.includes('groups show each other') && shot.layers.find((layer) => groupOf(layer));
    if (nested)
      return { list: shot.layers, index: shot.layers.indexOf(nested), what: `layer “${nested.name}” (${message})` };
    // a circle opens where its first layer is let go
    for (const link of ['parent', 'matte'] as const) {
      const looped =
        message.includes('circle') && shot.layers.find((layer) => layer[link] && message.includes(layer.name));
      if (looped)
        return { list: shot.layers, index: shot.layers.indexOf(looped), what: `layer “${looped.name}” (${message})` };
    }
  }
  return null;
}

/** What was left out, as much of it as a person reads. @param left at least one */
export const leftOut = (left: readonly string[]): string =>
  left.slice(0, 3).join('; ') + (left.length > 3 ? `; and ${left.length - 3} more` : '');
