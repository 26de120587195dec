// Colours known in some cells of a grid, spread over all of it.

/** Samples of a cell from which on its own colour counts fully. */
const ENOUGH = 8;

/**
 * Colour for every cell: its own where there are samples enough, else what lies around, the nearer the more.
 * @param cells for each r, g, b summed up and how many @returns r, g, b of each; null when there is no sample anywhere
 * Source: pull-push, Gortler et al. 1996.
 */
export function spreadColours(cells: Float32Array, w: number, h: number): Float32Array | null {
  const levels = [{ w, h, cells }];
  for (let last = levels[0]!; last.w > 1 || last.h > 1;) levels.push((last = halved(last)));
  const top = levels.at(-1)!.cells;
  if (!top[3]) return null;
  let known = Float32Array.of(top[0]! / top[3], top[1]! / top[3], top[2]! / top[3]);
  let [kw, kh] = [1, 1];
  for (const level of levels.slice(0, -1).reverse()) {
    known = filled(level, known, kw, kh);
    [kw, kh] = [level.w, level.h];
  }
  return known;
}

interface Level {
  w: number;
  h: number;
  cells: Float32Array;
}
/** Sums of two by two cells. */
function halved({ w, h, cells }: Level): Level {
  const [hw, hh] = [Math.ceil(w / 2), Math.ceil(h / 2)];
  const out = new Float32Array(hw * hh * 4);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const [from, to] = [(y * w + x) * 4, ((y >> 1) * hw + (x >> 1)) * 4];
      for (let c = 0; c < 4; c++) out[to + c]! += cells[from + c]!;
    }
  }
  return { w: hw, h: hh, cells: out };
}

/** A level's own colours, over those of the coarser one between its cells. */
function filled({ w, h, cells }: Level, coarse: Float32Array, cw: number, ch: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(w * h * 3);
  const within = (v: number, most: number) => (v < 0 ? 0 : v > most ? most : v);
  for (let y = 0; y < h; y++) {
    const v = within((y + 0.5) / 2 - 0.5, ch - 1);
    const y0 = Math.floor(v);
    const [upper, lower] = [y0 * cw, Math.min(ch - 1, y0 + 1) * cw];
    for (let x = 0; x < w; x++) {
      const u = within((x + 0.5) / 2 - 0.5, cw - 1);
      const x0 = Math.floor(u);
      const x1 = Math.min(cw - 1, x0 + 1);
      const at = y * w + x;
      const count = cells[at * 4 + 3]!;
      const own = Math.min(1, count / ENOUGH);
      for (let c = 0; c < 3; c++) {
        const top = coarse[(upper + x0) * 3 + c]! * (1 - u + x0) + coarse[(upper + x1) * 3 + c]! * (u - x0);
        const bottom = coarse[(lower + x0) * 3 + c]! * (1 - u + x0) + coarse[(lower + x1) * 3 + c]! * (u - x0);
        const around = top + (bottom - top) * (v - y0);
        out[at * 3 + c] = count ? around + (cells[at * 4 + c]! / count - around) * own : around;
      }
    }
  }
  return out;
}
