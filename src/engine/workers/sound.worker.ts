// Decodes the sound of open media once, and mixes it.
import * as Comlink from 'comlink';
import { mix, type Pcm, type SoundItem } from '../../core/sound/mix';
import { carryErrors } from '../thrown';
import { openInput, startOf } from './probe';
import { readSound } from './sound';

carryErrors();

const decoded = new Map<string, Pcm>();

const api = {
  /** Decodes a stock's sound and holds it; one without sound is silent. @param alive called as it gets on @throws JackplaneError bad-media, unsupported */
  async decode(id: string, file: Blob, name: string, alive: () => void): Promise<void> {
    const input = openInput(file);
    try {
      const track = await input.getPrimaryAudioTrack();
      if (track) decoded.set(id, await readSound(track, name, await startOf(input), alive));
    } finally {
      input.dispose();
    }
  },

  drop(id: string): void {
    decoded.delete(id);
  },

  /** Mixed stereo of what has been decoded; the rest is silent. @param from second of the shot @param length in samples */
  mix(items: SoundItem[], from: number, length: number, sampleRate: number): [Float32Array, Float32Array] {
    const out = mix(items, decoded, from, length, sampleRate);
    return Comlink.transfer(out, [out[0].buffer, out[1].buffer]);
  },
};

export type SoundApi = typeof api;
Comlink.expose(api);
