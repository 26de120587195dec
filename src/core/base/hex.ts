/** Display-encoded RGB 0…1. */
type Colour = readonly [number, number, number];

/** A colour as the browser's own chooser takes it. */
export const hexOf = (colour: Colour): string =>
  `#${colour
    .map((part) =>
      Math.round(part * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
/** @param text such as #1f7ac0 */
export const fromHex = (text: string): Colour =>
  [1, 3, 5].map((i) => parseInt(text.slice(i, i + 2), 16) / 255) as unknown as Colour;
