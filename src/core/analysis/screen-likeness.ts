// How much each pixel is like the screen, whose light is modelled at every place.
import type { Colour } from '../params/define';
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { toLinear } from '../picture/light';
import type { Picture } from '../picture/picture';
import { CELL, modelScreen } from './screen-model';

/** Least colour difference that a screen is taken to have. */
const LEAST = 0.004;

export interface Tools {
  kernels: Kernels;
  arena: Arena;
  /** memory that the caller gives back */
  scratch(bytes: number): number;
}
/** Address of row y of something, valid until the next one is asked for. */
export type Rows = (y: number) => number;

/** The channel that a screen colour is strongest in, and by how much it exceeds the others (linear light). */
export function screenOf(colour: Colour): { channel: number; linear: [number, number, number]; difference: number } {
  const linear = colour.map(toLinear) as [number, number, number];
  const channel = linear.indexOf(Math.max(...linear));
  const others = linear.filter((_, i) => i !== channel);
  return { channel, linear, difference: linear[channel]! - Math.max(...others) };
}

/** What the first and the second of the other channels count, from a balance −1…1. */
export const weights = (balance: number): [number, number] => [1 - Math.max(0, balance), 1 - Math.max(0, -balance)];

/** Rows of the screen as it is lit, as the kernels want them, between its cells: linear colour and 1/(its colour difference). @param seen what the screen is seen in: the picture, or a clean plate */
export function screenRows(seen: Picture, screen: readonly Colour[], balance: number, tools: Tools): Rows {
  const screens = screen.map(screenOf);
  const { channel } = screens[0]!;
  const { w, h, cells } = modelScreen(
    tools,
    seen,
    channel,
    screens.map(({ linear }) => linear),
  );
  const wide = w + 2;
  const grid = tools.scratch(wide * h * 16);
  tools.arena.scratch(cells.byteLength, (at) => {
    tools.arena.floats(at, cells.length).set(cells);
    tools.kernels.screenGrid(at, w, h, channel, ...weights(balance), LEAST, grid);
  });
  return rowsOf(grid, wide, h, tools);
}

/** Rows between the cells of a grid of v128 that repeats its border, as the kernels want them. */
export function rowsOf(grid: number, wide: number, h: number, { kernels, scratch }: Tools): Rows {
  const row = scratch(wide * 16);
  return (y) => {
    const at = Math.min(h - 1, Math.max(0, (y + 0.5) / CELL - 0.5));
    const upper = Math.floor(at);
    kernels.lerpSpan(grid + upper * wide * 16, grid + Math.min(h - 1, upper + 1) * wide * 16, row, wide, at - upper);
    return row;
  };
}
