/** Where the picture lies in the viewer's stage: its top left in stage pixels, and stage pixels for each shot pixel. */
export interface ViewFrame {
  x: number;
  y: number;
  scale: number;
  width: number;
  height: number;
}

/** Colours of handles on the picture; the canvas cannot read the theme's variables. */
export const HANDLE = { line: '#d8a84a', fill: '#1b1b1b' };

export type XY = readonly [number, number];
/** Places are written to a tenth of a pixel. */
export const tenths = (v: number): number => Math.round(v * 10) / 10 + 0;
