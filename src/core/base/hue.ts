// A colour as hue, saturation and brightness.

export interface HueLook {
  hue: number;
  saturation: number;
  luma: number;
}
/** Hue in turns, saturation and luma of a colour. */
export function lookOf([r, g, b]: readonly [number, number, number]): HueLook {
  const most = Math.max(r, g, b);
  const span = most - Math.min(r, g, b);
  const six = span === 0 ? 0 : most === r ? (g - b) / span : most === g ? (b - r) / span + 2 : (r - g) / span + 4;
  return {
    hue: (((six / 6) % 1) + 1) % 1,
    saturation: most > 0 ? span / most : 0,
    luma: 0.2126 * r + 0.7152 * g + 0.0722 * b,
  };
}
