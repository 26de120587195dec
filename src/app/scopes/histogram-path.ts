const BINS = 128;
/** Of the height that the commonest value takes. */
const TALL = 0.95;

/**
 * The outline of counts of 256 values, two of them together. The ends may hold much more than all else, and are drawn to the top.
 * @param x, y places in the drawing of shares 0…1 of its width and height, from the left and from below
 */
export function histogramPath(counts: Uint32Array, x: (share: number) => number, y: (share: number) => number): string {
  const most = Math.max(1, ...counts.subarray(2, 254));
  const tops = Array.from({ length: BINS }, (_, i) => {
    const tall = Math.min(1, (counts[2 * i]! + counts[2 * i + 1]!) / (2 * most));
    return `L${x((i + 0.5) / BINS).toFixed(1)} ${y(TALL * tall).toFixed(1)}`;
  });
  return `M${x(0)} ${y(0)}${tops.join('')}L${x(1)} ${y(0)}Z`;
}
