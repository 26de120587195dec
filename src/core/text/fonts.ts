/** The fonts that ship with it, of distinct kinds. */
export const FONTS = [
  { value: 'archivo', label: 'Archivo (sans)' },
  { value: 'archivo-narrow', label: 'Archivo Narrow (condensed)' },
  { value: 'lora', label: 'Lora (serif)' },
  { value: 'zilla-slab', label: 'Zilla Slab (slab)' },
  { value: 'jetbrains-mono', label: 'JetBrains Mono (mono)' },
  { value: 'caveat', label: 'Caveat (hand)' },
  { value: 'permanent-marker', label: 'Permanent Marker (marker)' },
  { value: 'special-elite', label: 'Special Elite (typewriter)' },
] as const;
export type FontName = (typeof FONTS)[number]['value'];
export type Weight = 'regular' | 'bold';

/** A font of the project's stock. */
export interface OwnFont {
  stock: string;
  name: string;
  /** tells files apart that were linked to the same stock */
  file: string;
}
/** What a line of text is set in. @property tracking added between letters, in heights of a capital */
export interface LineStyle {
  font: FontName | OwnFont;
  weight: Weight;
  tracking: number;
}
/** A line of text as outlines: capitals are 1 tall, the first letter begins at x = 0, letters stand on y = 0, y down. */
export interface TextLine {
  rings: readonly Float64Array[];
  width: number;
  /** how many of the rings belong to the letters up to and with each */
  ends: readonly number[];
  /** where each letter begins and ends, in the order in which they are read: one that runs to the left begins at its right */
  starts: readonly number[];
  stops: readonly number[];
  /** letters that the font does not have */
  missing: string;
}
export const EMPTY_LINE: TextLine = { rings: [], width: 0, ends: [], starts: [], stops: [], missing: '' };
/** What text masks are set in. */
export const MASK_STYLE: LineStyle = { font: 'archivo', weight: 'bold', tracking: 0 };
export const styleKey = (text: string, { font, weight, tracking }: LineStyle): string =>
  `${JSON.stringify(font)} ${weight} ${tracking} ${text}`;

/** A line's outlines, all of it centred on the origin. */
export const centred = ({ rings, width }: TextLine): Float64Array[] =>
  rings.map((ring) => ring.map((v, i) => (i % 2 ? v + 0.5 : v - width / 2)));
