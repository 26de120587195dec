/** Display-encoded value 0…1 → linear light. Source: IEC 61966-2-1. */
export function toLinear(v: number): number {
  return v <= 0.04045 ? Math.max(v, 0) / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
}

/** Linear light of each 8-bit value. */
export const LIGHT_OF_BYTE = Float64Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/** Linear light → display-encoded. Source: IEC 61966-2-1. */
export function toDisplay(v: number): number {
  return v <= 0.0031308 ? Math.max(v, 0) * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055;
}
