/** What people ask of a written file, as times the bits that look good. */
export const QUALITIES = [
  { name: 'small', title: 'Small file', factor: 0.4 },
  { name: 'good', title: 'Good', factor: 1 },
  { name: 'best', title: 'Best', factor: 2.5 },
] as const;
export type Quality = (typeof QUALITIES)[number]['name'];
export type VideoCodec = 'vp9' | 'vp8' | 'avc';

/** Bits a second that look good at 1280×720 and 24 frames a second. */
const GOOD: Record<VideoCodec, number> = { vp9: 3.6e6, vp8: 5.5e6, avc: 5.5e6 };
const LEAST = 400_000;
export const SOUND_BITRATE = 160_000;

/** Bits a second for a quality. More pixels and frames need more, though each of them fewer. */
export function bitrateFor(codec: VideoCodec, quality: Quality, width: number, height: number, fps: number): number {
  const { factor } = QUALITIES.find((entry) => entry.name === quality)!;
  return Math.max(LEAST, Math.round(GOOD[codec] * factor * ((width * height) / 921_600) ** 0.85 * (fps / 24) ** 0.7));
}

/** Bytes that a file will have, about: an easy picture needs fewer. */
export const estimatedBytes = (bitrate: number, seconds: number, parts: { sound: boolean; alpha: boolean }): number =>
  Math.round(((bitrate * (parts.alpha ? 1.3 : 1) + (parts.sound ? SOUND_BITRATE : 0)) * seconds) / 8);
