import { AudioSampleSink, type InputAudioTrack } from 'mediabunny';
import { JackplaneError } from '../../core/base/errors';
import type { Pcm } from '../../core/sound/mix';
import { MOST_SOUND_SECONDS } from '../types';

const MOST_CHANNELS = 64;
const MOST_RATE = 384_000;

/**
 * Decodes a whole sound track, at most two channels. Silence fills gaps between samples, and stands for what is no number.
 * @param start time stamp at which the clip begins @param alive called as it gets on, with the share that is done @throws JackplaneError unsupported
 */
export async function readSound(
  track: InputAudioTrack,
  name: string,
  start = 0,
  alive: (share: number) => void = () => undefined,
): Promise<Pcm> {
  const sampleRate = await track.getSampleRate();
  const own = await track.getNumberOfChannels();
  if (sampleRate > MOST_RATE || own > MOST_CHANNELS) {
    throw new JackplaneError(
      'unsupported',
      `The sound of “${name}” has ${own} channels at ${sampleRate} Hz; Jackplane opens up to ${MOST_CHANNELS} at ${MOST_RATE}.`,
      'Convert it to 48000 Hz stereo.',
    );
  }
  const seconds = (await track.computeDuration()) - start;
  if (seconds > MOST_SOUND_SECONDS) {
    throw new JackplaneError(
      'unsupported',
      `The sound of “${name}” is ${Math.round(seconds / 60)} minutes long; Jackplane opens up to ${MOST_SOUND_SECONDS / 60}.`,
      'Cut out the part you need first.',
    );
  }
  const count = Math.min(2, own);
  const length = Math.max(0, Math.ceil(seconds * sampleRate));
  const channels = Array.from({ length: count }, () => new Float32Array(length));
  for await (const sample of new AudioSampleSink(track).samples()) {
    const at = Math.round((sample.timestamp - start) * sampleRate);
    alive(Math.min(1, Math.max(0, at / length)));
    const block = new Float32Array(sample.numberOfFrames);
    channels.forEach((channel, planeIndex) => {
      sample.copyTo(block, { planeIndex, format: 'f32-planar' });
      for (let i = 0; i < block.length; i++) if (!Number.isFinite(block[i])) block[i] = 0;
      const skip = Math.max(0, -at);
      const room = Math.max(0, length - Math.max(0, at));
      channel.set(block.subarray(skip, Math.min(block.length, skip + room)), Math.max(0, at));
    });
    sample.close();
  }
  return { sampleRate, channels };
}
