import { momentOf } from '../place/moment';
import type { Moment } from '../time/moment';
import { shotIn, stockIn } from '../document/find';
import { mapped } from '../document/edits/values';
import { groupOf, stockOf, type Project, type ShotId, type StockId } from '../document/schema';
import type { Value } from '../base/value';
import { secondsAt } from '../time/rate';
import { sourceFrameAt } from '../time/speed';
import { steadyAt, valueAt } from '../time/values';

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
  /** how the layer's own time runs, in shot frames */
  time: { offset: number; speed: Value<number> };
  /** keep the pitch when the speed is not that of the recording */
  keepPitch: boolean;
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
    const id = stockOf(layer);
    const group = groupOf(layer);
    if (group && layer.shown && !layer.sound.muted && (!solo || layer.solo))
      return soundOfGroup(momentOf(project, shot, layer, layer.span.start), planSound(project, group));
    if (!id || layer.sound.muted || (solo && !layer.solo)) return [];
    const item = stockIn(project, id);
    if (!item.facts.sound || (item.kind === 'sound' && !layer.shown)) return [];
    const first = Math.max(0, layer.span.start);
    const last = Math.min(shot.length, layer.span.start + layer.span.length);
    if (last <= first) return [];
    return [
      {
        stock: item.id,
        name: layer.name,
        start: secondsAt(first, shot.rate),
        end: secondsAt(last, shot.rate),
        time: { offset: layer.time.offset, speed: layer.time.speed },
        keepPitch: layer.time.keepPitch,
        gain: undriven(layer.sound.gain, momentOf(project, shot, layer, first), last - first),
        origin: secondsAt(layer.span.start, shot.rate),
        frame: secondsAt(1, shot.rate),
      },
    ];
  });
}

/** The sound inside a group, where it is heard in the shot. It goes along with the group's start and level; at another speed than its own it is silent. */
function soundOfGroup(moment: Moment, inside: readonly SoundItem[]): SoundItem[] {
  const { layer, shot } = moment;
  const { speed, offset } = layer.time;
  if (!('still' in speed) || speed.still !== 1) return [];
  const later = secondsAt(layer.span.start, shot.rate) - secondsAt(offset, shot.rate);
  const [from, to] = [
    secondsAt(Math.max(0, layer.span.start), shot.rate),
    secondsAt(Math.min(shot.length, layer.span.start + layer.span.length), shot.rate),
  ];
  const level = valueAt(layer.sound.gain, moment);
  return inside.flatMap((item) => {
    const [start, end] = [Math.max(from, item.start + later), Math.min(to, item.end + later)];
    const gain = mapped(item.gain, (v) => v * level);
    return end > start ? [{ ...item, start, end, gain, origin: item.origin + later }] : [];
  });
}

/** A value as it is with what drives it, in keyframes at every frame of a stretch. */
function undriven(value: Value<number>, moment: Moment, length: number): Value<number> {
  if (!value.drivers) return value;
  const frames = Array.from({ length }, (_, i) => Math.round(moment.frame) + i);
  return { keys: frames.map((frame) => ({ at: frame, value: valueAt(value, { ...moment, frame }), ease: 'linear' })) };
}

/** Fade at both ends of every item, in seconds, so that a cut does not click. */
const EDGE = 0.004;
const BLOCK = 128;

/**
 * Mixes items to stereo.
 * @param from first moment, seconds of the shot @param length samples @param clips decoded sound by stock; missing ones are silent
 * @returns left and right, not limited
 */
export function mix(
  items: readonly SoundItem[],
  clips: ReadonlyMap<string, Pcm>,
  from: number,
  length: number,
  sampleRate: number,
): [Float32Array, Float32Array] {
  const out: [Float32Array, Float32Array] = [new Float32Array(length), new Float32Array(length)];
  for (const item of items) {
    const clip = clips.get(item.stock);
    if (!clip?.channels.length) continue;
    const first = Math.max(0, Math.ceil((item.start - from) * sampleRate));
    const last = Math.min(length, Math.floor((item.end - from) * sampleRate));
    const sides = [clip.channels[0]!, clip.channels[1] ?? clip.channels[0]!] as const;
    const read = reader(item, sides, clip.sampleRate);
    for (let block = first; block < last; block += BLOCK) {
      const gain = steadyAt(item.gain, (from + block / sampleRate - item.origin) / item.frame);
      const end = Math.min(last, block + BLOCK);
      const speak = read(from + block / sampleRate, from + end / sampleRate);
      for (let i = block; i < end; i++) {
        const now = from + i / sampleRate;
        const edge = Math.min(1, (now - item.start) / EDGE, (item.end - now) / EDGE);
        const level = gain * Math.max(0, edge);
        out[0][i]! += level * speak(now, 0);
        out[1][i]! += level * speak(now, 1);
      }
    }
  }
  return out;
}

/** Half the length of a grain in seconds, when the pitch is kept. */
const GRAIN = 0.04;

/**
 * Reads a layer's sound at moments of the shot. At other speeds than the recorded one, with the pitch kept, short grains are
 * taken at the recorded speed from where the layer is, and each fades into the next.
 */
function reader(
  item: SoundItem,
  sides: readonly [Float32Array, Float32Array],
  rate: number,
): (from: number, to: number) => (now: number, side: 0 | 1) => number {
  const grains = new Map<number, { centre: number; at: number; way: number }>();
  const place = (seconds: number) => sourceFrameAt(item.time, (seconds - item.origin) / item.frame) * item.frame * rate;
  const speedAt = (seconds: number) => steadyAt(item.time.speed, (seconds - item.origin) / item.frame);
  /** Grain k: where it is in the shot and in the recording, and which way it runs; standing still is silent. */
  const grain = (k: number) => {
    const centre = item.start + k * GRAIN;
    const local = speedAt(centre);
    const made = { centre, at: place(centre), way: Math.abs(local) < 0.01 ? 0 : Math.sign(local) };
    grains.set(k, made);
    return made;
  };
  return (from, to) => {
    const [a, b] = [place(from), place(to)];
    const speed = (b - a) / ((to - from) * rate);
    if (!item.keepPitch || Math.abs(Math.abs(speed) - 1) < 1e-6)
      return (now, side) => sampleAt(sides[side], a + (b - a) * ((now - from) / (to - from)));
    return (now, side) => {
      const first = Math.floor((now - item.start) / GRAIN);
      let sum = 0;
      for (let k = first; k <= first + 1; k++) {
        const { centre, at, way } = grains.get(k) ?? grain(k);
        if (way)
          sum +=
            (0.5 + 0.5 * Math.cos((Math.PI * (now - centre)) / GRAIN)) *
            sampleAt(sides[side], at + (now - centre) * rate * way);
      }
      return sum;
    };
  };
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
