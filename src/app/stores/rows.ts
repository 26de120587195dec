import { defineStore } from 'pinia';
import { useSessionStorage } from '@vueuse/core';
import { keysOf } from '../../core/base/value';
import { followOf } from '../../core/document/edits/follow';
import { entriesOf, isKeyed, valueIn, type ValueEntry } from '../../core/document/edits/values';
import { stockOf, type Layer, type LayerId } from '../../core/document/schema';
import type { Track } from '../../core/document/track';
import { useProject } from './project';

/** Heights that a row can have, in pixels at the usual text size. */
export const ROW = { rest: 24, grown: 116, most: 420 };
/** From this height on a row has handles and numbers, and its keyframes are moved up and down. */
export const CURVE_FROM = 64;

/** How a row is drawn. */
interface RowLook {
  /** pixels at the usual text size */
  height?: number;
  /** all curves of the row over one range, not each over its own */
  oneScale?: boolean;
  /** also how much each changes in a frame */
  change?: boolean;
  /** the row that shows this one's curves among its own */
  over?: string;
}
/** An animated value, with those of the same layer that are laid over it. */
export interface ValueRow {
  id: string;
  entries: readonly ValueEntry[];
}

interface Moving {
  /** values with keyframes */
  animated: readonly ValueEntry[];
  /** values without keyframes that follow a track; their rows come after those */
  following: readonly ValueEntry[];
}
/** A layer is never changed in place, so what moves in it is found once. */
const found = new WeakMap<Layer, Moving>();
function moving(layer: Layer): Moving {
  const known = found.get(layer);
  if (known) return known;
  const entries = entriesOf(layer);
  const animated = entries.filter((entry) => isKeyed(valueIn(layer, entry.path)));
  const following = entries.filter((entry) => {
    const value = valueIn(layer, entry.path);
    return !isKeyed(value) && followOf(value) !== null;
  });
  found.set(layer, { animated, following });
  return { animated, following };
}

/** The rows under the layers of the time panel: which are opened, how high they are, which are laid over others. Kept until the tab is closed. */
export const useRows = defineStore('rows', () => {
  const store = useProject();
  const open = useSessionStorage('jackplane opened layers', new Set<LayerId>());
  const looks = useSessionStorage<Record<string, RowLook>>('jackplane rows', {});

  const look = (id: string): RowLook => looks.value[id] ?? {};
  const change = (id: string, to: RowLook): void => void (looks.value[id] = { ...look(id), ...to });
  const height = (id: string): number => look(id).height ?? ROW.rest;
  const isGrown = (id: string): boolean => height(id) >= CURVE_FROM;
  const setHeight = (id: string, to: number): void =>
    change(id, { height: Math.round(Math.min(ROW.most, Math.max(ROW.rest, to))) });
  const grow = (id: string, to = !isGrown(id)): void => setHeight(id, to ? ROW.grown : ROW.rest);

  const idOf = (layer: Layer, path: string): string => `${layer.id} ${path}`;
  /** Values with keyframes. */
  const animated = (layer: Layer): readonly ValueEntry[] => moving(layer).animated;
  /** The measured tracks of the clip that a layer shows. */
  const tracks = (layer: Layer): readonly Track[] => {
    const stock = stockOf(layer);
    return stock ? store.current().tracks.filter((item) => item.stock === stock && item.samples.rows) : [];
  };
  /** The rows of a layer's values; one that lies over another is a part of that one's row. */
  function valueRows(layer: Layer): ValueRow[] {
    const { animated: keyed, following } = moving(layer);
    const rows = [...keyed, ...following].map((entry) => ({ id: idOf(layer, entry.path), entry }));
    const lead = (id: string): string => {
      const over = look(id).over;
      return over && over !== id && rows.some((row) => row.id === over) ? over : id;
    };
    return rows
      .filter((row) => lead(row.id) === row.id)
      .map(({ id }) => ({
        id,
        entries: rows
          .filter((row) => lead(row.id) === id)
          .sort((a, b) => Number(b.id === id) - Number(a.id === id))
          .map((row) => row.entry),
      }));
  }
  /** Lays a row and what lies over it over another row of the layer. */
  function layOver(layer: Layer, moved: string, onto: string): void {
    if (moved === onto) return;
    for (const row of valueRows(layer))
      if (row.id === moved) for (const entry of row.entries) change(idOf(layer, entry.path), { over: onto });
    if (!isGrown(onto)) grow(onto, true);
  }
  /** Gives the values that lie over a row rows of their own again. */
  function apart(layer: Layer, row: ValueRow): void {
    for (const entry of row.entries) change(idOf(layer, entry.path), { over: undefined });
  }

  /** What the opened rows of a layer take, in pixels at the usual text size. */
  const openedHeight = (layer: Layer): number =>
    !open.value.has(layer.id)
      ? 0
      : [...valueRows(layer), ...tracks(layer)].reduce((sum, { id }) => sum + height(id), 0);
  function toggleOpen(id: LayerId): void {
    if (!open.value.delete(id)) open.value.add(id);
  }
  /** Grows the rows of a layer's values into curves, or lets them rest again when one is grown. */
  function toggleCurves(layer: Layer): void {
    const rows = valueRows(layer);
    const to = !open.value.has(layer.id) || !rows.some(({ id }) => isGrown(id));
    open.value.add(layer.id);
    for (const { id } of rows) grow(id, to);
  }
  /** Frames of the shot at which a layer has keyframes of any value. */
  const keyFrames = (layer: Layer): number[] => [
    ...new Set(animated(layer).flatMap(({ path }) => keysOf(valueIn(layer, path)!).map((key) => key.at))),
  ];

  return {
    open,
    look,
    change,
    height,
    isGrown,
    setHeight,
    grow,
    animated,
    tracks,
    idOf,
    valueRows,
    layOver,
    apart,
    openedHeight,
    toggleOpen,
    toggleCurves,
    keyFrames,
  };
});
