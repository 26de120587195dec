// Straight edges that cross the shot.
import type { PassTools } from '../passes/define';

export interface Crossing {
  /** unit direction in which the edge goes */
  dx: number;
  dy: number;
  /** from the shot's middle to where the edge has crossed all of it, in pixels */
  half: number;
  /** how far a pixel lies along the way, from the shot's middle */
  at(x: number, y: number): number;
}

/** The way of an edge across a shot. @param degrees where it goes, clockwise from the right */
export function crossing(degrees: number, { size: { w, h } }: Pick<PassTools, 'size'>): Crossing {
  const angle = (degrees * Math.PI) / 180;
  const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
  return {
    dx,
    dy,
    half: (Math.abs(w * dx) + Math.abs(h * dy)) / 2,
    at: (x, y) => (x + 0.5 - w / 2) * dx + (y + 0.5 - h / 2) * dy,
  };
}
