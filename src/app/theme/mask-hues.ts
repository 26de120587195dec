/** The hues of masks' outlines, to tell them apart on the picture. */
export const MASK_HUES = {
  sand: '#e0c48a',
  moss: '#9cc77f',
  slate: '#8fb4d9',
  rust: '#e08a66',
  plum: '#c99ad6',
  chalk: '#f2f2f2',
} as const;
