import { AudioSampleSink, type InputAudioTrack } from 'mediabunny';
import { JackplaneError } from '../../core/errors';
import type { Pcm } from '../../core/sound/mix';
import { MOST_SOUND_SECONDS } from '../types';

/** Decodes a whole sound track, at most two channels. Silence fills gaps between samples. @throws JackplaneError unsupported */
export async function readSound(track: InputAudioTrack, name: string): Promise<Pcm> {
  const sampleRate = await track.getSampleRate();
  const seconds = await track.computeDuration();
  if (seconds > MOST_SOUND_SECONDS) {
    throw new JackplaneError('unsupported', `The sound of “${name}” is ${Math.round(seconds / 60)} minutes long; Jackplane opens up to ${MOST_SOUND_SECONDS / 60}.`, 'Cut out the part you need first.');
  }
  const count = Math.min(2, await track.getNumberOfChannels());
  const length = Math.ceil(seconds * sampleRate);
  const channels = Array.from({ length: count }, () => new Float32Array(length));
  for await (const sample of new AudioSampleSink(track).samples()) {
    const at = Math.round(sample.timestamp * sampleRate);
    const block = new Float32Array(sample.numberOfFrames);
    channels.forEach((channel, planeIndex) => {
      sample.copyTo(block, { planeIndex, format: 'f32-planar' });
      const skip = Math.max(0, -at);
      const room = Math.max(0, length - Math.max(0, at));
      channel.set(block.subarray(skip, Math.min(block.length, skip + room)), Math.max(0, at));
    });
    sample.close();
  }
  return { sampleRate, channels };
}
