// What solids are: triangles of outlines with depth.

export const FRONT = 0;
export const SIDE = 1;
export const BACK = 2;

/** Triangles of an outline with depth. Nine numbers each for corners and their normals; y down, z towards the eye. */
export interface Body {
  /** z from 0 (back) to 1 (front), with the bevel outside of that */
  corners: Float32Array;
  normals: Float32Array;
  /** FRONT, SIDE or BACK of each triangle */
  parts: Uint8Array;
  bevel: number;
}
