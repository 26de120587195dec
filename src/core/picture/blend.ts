/** Blend modes in the order of the kernels' numbers: W3C Compositing and Blending Level 1, then add and subtract. */
export const BLEND_MODES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
  'add',
  'subtract',
] as const;

export type BlendMode = (typeof BLEND_MODES)[number];

/** A mode's name as people read it. */
export function blendLabel(mode: BlendMode): string {
  const words = mode.replace('-', ' ').replace('color', 'colour');
  return words[0]!.toUpperCase() + words.slice(1);
}
