// Harbour sounds from seeded noise and sine waves, as 16-bit WAV.
import { random } from './raster';

const RATE = 48000;

/** 16-bit PCM WAV of equal-length channels, values −1…1. */
export function wav(channels: readonly Float32Array[]): Buffer {
  const frames = channels[0]!.length;
  const data = frames * channels.length * 2;
  const out = Buffer.alloc(44 + data);
  out.write('RIFF', 0);
  out.writeUInt32LE(36 + data, 4);
  out.write('WAVEfmt ', 8);
  out.writeUInt32LE(16, 16);
  out.writeUInt16LE(1, 20);
  out.writeUInt16LE(channels.length, 22);
  out.writeUInt32LE(RATE, 24);
  out.writeUInt32LE(RATE * channels.length * 2, 28);
  out.writeUInt16LE(channels.length * 2, 32);
  out.writeUInt16LE(16, 34);
  out.write('data', 36);
  out.writeUInt32LE(data, 40);
  for (let i = 0, at = 44; i < frames; i++) {
    for (const channel of channels) {
      out.writeInt16LE(Math.round(Math.max(-1, Math.min(1, channel[i]!)) * 32767), at);
      at += 2;
    }
  }
  return out;
}

/** Water against the hull, a bell buoy, a far horn. */
export function harbourBed(seconds = 6): Float32Array[] {
  const dice = random(90);
  return [0, 1].map((side) => {
    const out = new Float32Array(seconds * RATE);
    let low = 0;
    let mid = 0;
    for (let i = 0; i < out.length; i++) {
      const t = i / RATE;
      const white = dice() * 2 - 1;
      low += (white - low) * 0.02;
      mid += (white - mid) * 0.12;
      const lap = 0.35 + 0.65 * Math.max(0, Math.sin(t * 2.1 + side * 0.7)) ** 2;
      out[i] = low * 0.9 * lap + (mid - low) * 0.12 * lap;
      for (const strike of [0.8, 1.35, 3.9, 4.45]) {
        const s = t - strike - side * 0.0006;
        if (s > 0)
          out[i]! +=
            0.09 *
            Math.exp(-s * 2.4) *
            (Math.sin(s * 5340) + 0.5 * Math.sin(s * 8120) + 0.3 * Math.sin(s * 13900)) *
            (side ? 0.6 : 1);
      }
      const h = t - 2.2;
      if (h > 0 && h < 1.6)
        out[i]! +=
          0.07 *
          Math.sin(Math.PI * (h / 1.6)) ** 0.6 *
          (Math.sin(h * 2 * Math.PI * 110) + 0.4 * Math.sin(h * 2 * Math.PI * 220.7));
      out[i]! *= Math.min(1, t * 4, (seconds - t) * 2);
    }
    return out;
  });
}

/** One long ship's horn. */
export function horn(seconds = 2.5): Float32Array[] {
  const out = new Float32Array(seconds * RATE);
  for (let i = 0; i < out.length; i++) {
    const t = i / RATE;
    const level = Math.min(1, t * 6, (seconds - t) * 3);
    for (let k = 1; k <= 6; k++)
      out[i]! += (0.26 / k) * level * Math.sin(2 * Math.PI * 98 * k * t + 0.2 * Math.sin(t * 7));
  }
  return [out];
}
