import { shotIn, stockIn } from '../document/find';
import type { Project, ShotId, StockId } from '../document/schema';
import type { Value } from '../document/value';
import { secondsAt } from '../time/rate';
import { valueAt } from '../time/values';

/** Decoded sound: one Float32Array a channel, all of one length, values −1…1. */
export interface Pcm {
  sampleRate: number;
  channels: Float32Array[];
}

/** One sounding layer of a shot; times in seconds. */
export interface SoundItem {
  stock: StockId;
  name: string;
  /** where in the shot it sounds */
  start: number;
  end: number;
  /** source time at `start`, and source seconds for each second of the shot */
  source: number;
  speed: number;
  gain: Value<number>;
  /** shot seconds of layer frame 0 and seconds of a frame, to look up the gain */
  origin: number;
  frame: number;
}

/** The layers of a shot that can be heard. */
export function planSound(project: Project, shotId: ShotId): SoundItem[] {
  const shot = shotIn(project, shotId);
  const solo = shot.layers.some((layer) => layer.solo);
  return shot.layers.flatMap((layer) => {
    if (layer.source.kind !== 'stock' || layer.sound.muted || (solo && !layer.solo)) return [];
    const item = stockIn(project, layer.source.stock);
    if (!item.facts.sound || (item.kind === 'sound' && !layer.shown)) return [];
    const first = Math.max(0, layer.span.start);
    const last = Math.min(shot.length, layer.span.start + layer.span.length);
    if (last <= first) return [];
    const speed = valueAt(layer.time.speed, 0);
    return [
      {
        stock: item.id,
        name: layer.name,
        start: secondsAt(first, shot.rate),
        end: secondsAt(last, shot.rate),
        source: secondsAt(layer.time.offset + (first - layer.span.start) * speed, shot.rate),
        speed,
        gain: layer.sound.gain,
        origin: secondsAt(layer.span.start, shot.rate),
        frame: secondsAt(1, shot.rate),
      },
    ];
  });
}

/** Fade at both ends of every item, in seconds, so that a cut does not click. */
const EDGE = 0.004;
const BLOCK = 128;

/**
 * Mixes items to stereo.
 * @param from first moment, seconds of the shot @param length samples @param clips decoded sound by stock; missing ones are silent
 * @returns left and right, not limited
 */
export function mix(items: readonly SoundItem[], clips: ReadonlyMap<string, Pcm>, from: number, length: number, sampleRate: number): [Float32Array, Float32Array] {
  const out: [Float32Array, Float32Array] = [new Float32Array(length), new Float32Array(length)];
  for (const item of items) {
    const clip = clips.get(item.stock);
    if (!clip?.channels.length) continue;
    const first = Math.max(0, Math.ceil((item.start - from) * sampleRate));
    const last = Math.min(length, Math.floor((item.end - from) * sampleRate));
    const sides = [clip.channels[0]!, clip.channels[1] ?? clip.channels[0]!] as const;
    for (let block = first; block < last; block += BLOCK) {
      const gain = valueAt(item.gain, (from + block / sampleRate - item.origin) / item.frame);
      for (let i = block; i < Math.min(last, block + BLOCK); i++) {
        const now = from + i / sampleRate;
        const edge = Math.min(1, (now - item.start) / EDGE, (item.end - now) / EDGE);
        const at = (item.source + (now - item.start) * item.speed) * clip.sampleRate;
        const level = gain * Math.max(0, edge);
        out[0][i]! += level * sampleAt(sides[0], at);
        out[1][i]! += level * sampleAt(sides[1], at);
      }
    }
  }
  return out;
}

/** Cubic Hermite (Catmull-Rom) reading between samples; silent outside. */
function sampleAt(data: Float32Array, at: number): number {
  const i = Math.floor(at);
  const t = at - i;
  const b = data[i] ?? 0;
  if (t === 0) return b;
  const a = data[i - 1] ?? b;
  const c = data[i + 1] ?? 0;
  const d = data[i + 2] ?? c;
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
}
