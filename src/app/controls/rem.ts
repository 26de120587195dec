/** Pixels at the text size that the reader has set; at the usual size they are as they are. */
export const rem = (pixels: number): number =>
  (pixels / 16) * (parseFloat(getComputedStyle(document.documentElement).fontSize) || 16);
