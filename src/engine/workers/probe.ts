import {
  ALL_FORMATS,
  BlobSource,
  EncodedPacketSink,
  Input,
  VideoSampleSink,
  type InputAudioTrack,
  type InputVideoTrack,
} from 'mediabunny';
import { JackplaneError } from '../../core/base/errors';
import { rateFromStamps } from '../../core/time/rate';
import type { MediaFacts } from '../../core/document/schema';
import type { Pcm } from '../../core/sound/mix';
import type { Probe } from '../types';
import { ownRoom, straightBytes } from './clip-reader';
import { movingFrames } from './animated';
import { checkHeader, checkSize } from '../../core/formats/picture-size';
import { hasAlpha, imageType, isAnimated, posterOf, readStill, type Still } from './images';
import { isFont, probeFont } from './font-probe';
import { readSound } from './sound';

/** Packets that are read to find a clip's rate. */
const RATE_PACKETS = 400;
const PEAKS = 400;

export const openInput = (file: Blob): Input => new Input({ source: new BlobSource(file), formats: ALL_FORMATS });

/**
 * What a file is, by its content.
 * @param progress 0…1
 * @throws JackplaneError bad-media or unsupported, naming the file
 */
export async function probe(file: File, progress: (share: number) => void): Promise<Probe> {
  if (file.size === 0)
    throw new JackplaneError(
      'bad-media',
      `“${file.name}” is empty (0 bytes).`,
      'Copy it again from where it came from.',
    );
  const type = await imageType(file);
  if (type) return (await isAnimated(file)) ? probeMoving(file, type, progress) : probeStill(file, type);
  if (await isFont(file)) return probeFont(file);
  const input = openInput(file);
  try {
    return await probeInput(file, input, progress);
  } catch (error) {
    if (error instanceof JackplaneError) throw error;
    throw damaged(file.name, 'it could not be read to its end');
  } finally {
    input.dispose();
  }
}

/**
 * The picture and the sound's peaks of a file whose facts are known already, as of one that comes in a project.
 * @throws JackplaneError bad-media or unsupported, naming the file
 */
export async function glance(file: File): Promise<Pick<Probe, 'poster' | 'peaks'>> {
  const type = await imageType(file);
  if (type && !(await isAnimated(file)))
    return { poster: await posterOf(await readStill(file, file.name, type)), peaks: null };
  if (type) {
    for await (const frame of movingFrames(file, file.name)) return { poster: await posterOf(frame), peaks: null };
  }
  if (await isFont(file)) return { poster: (await probeFont(file)).poster, peaks: null };
  const input = openInput(file);
  try {
    const [video, audio] = [await input.getPrimaryVideoTrack(), await input.getPrimaryAudioTrack()];
    const poster = video ? await posterOf(await tellingFrame(video, file.name)) : null;
    return { poster, peaks: audio ? peaksOf(await readSound(audio, file.name, await startOf(input)), PEAKS) : null };
  } catch (error) {
    throw error instanceof JackplaneError ? error : damaged(file.name, 'it could not be read');
  } finally {
    input.dispose();
  }
}

/** Shares of a clip at which it is looked for a frame that shows something when the first is as good as black. */
const LATER = [0.05, 0.2, 0.5];
/** Mean byte up to which a frame is as good as black. */
const BLACK = 10;
const brightness = ({ data }: Still): number => {
  let [sum, seen] = [0, 0];
  for (let i = 0; i < data.length; i += 4 * 97, seen++) sum += (data[i]! + data[i + 1]! + data[i + 2]!) / 3;
  return sum / Math.max(1, seen);
};
/** The first frame, or a later one when that is as good as black. */
async function tellingFrame(track: InputVideoTrack, name: string): Promise<Still> {
  const first = await frameAt(track, name, 0);
  if (brightness(first) > BLACK) return first;
  const seconds = (await track.computeDuration()) - (await track.getFirstTimestamp());
  for (const share of LATER) {
    const later = await frameAt(track, name, share * seconds).catch(() => null);
    if (later && brightness(later) > BLACK) return later;
  }
  return first;
}

/** @param seconds from the track's first time stamp on */
async function frameAt(track: InputVideoTrack, name: string, seconds: number): Promise<Still> {
  const sample = await new VideoSampleSink(track).getSample((await track.getFirstTimestamp()) + seconds + 0.001);
  if (!sample) throw damaged(name, 'it has no frame');
  const still = await straightBytes(sample, ownRoom);
  sample.close();
  return still;
}

const damaged = (name: string, why: string): JackplaneError =>
  new JackplaneError(
    'bad-media',
    `“${name}” is damaged or cut off: ${why}.`,
    'Copy or export it again and import the new file.',
  );

/** Time stamp at which a clip begins, seconds: that of its first picture or sound. What lies before 0 is a codec's run-up. */
export async function startOf(input: Input): Promise<number> {
  const tracks = [await input.getPrimaryVideoTrack(), await input.getPrimaryAudioTrack()].filter(
    (track) => track !== null,
  );
  const firsts = await Promise.all(tracks.map((track) => track.getFirstTimestamp()));
  return Math.max(0, Math.min(...firsts, Infinity) === Infinity ? 0 : Math.min(...firsts));
}

/** A moving picture is a clip without sound. */
async function probeMoving(file: File, type: string, progress: (share: number) => void): Promise<Probe> {
  await checkHeader(file, file.name);
  const stamps: number[] = [];
  let seconds = 0;
  let first: Still | null = null;
  let alpha = false;
  for await (const frame of movingFrames(file, file.name)) {
    first ??= frame;
    alpha ||= hasAlpha(frame);
    stamps.push(frame.start);
    seconds = frame.end;
    progress(stamps.length / (stamps.length + 20));
  }
  if (!first) throw damaged(file.name, 'it has no frame');
  const codec = type === 'image/png' ? 'APNG' : type.slice(6).toUpperCase();
  const facts: MediaFacts = {
    width: first.width,
    height: first.height,
    rate: rateFromStamps([...stamps, seconds]) ?? 'variable',
    seconds,
    codec,
    alpha,
    bytes: file.size,
  };
  return { kind: 'video', facts, poster: await posterOf(first), peaks: null };
}

async function probeStill(file: File, type: string): Promise<Probe> {
  const still = await readStill(file, file.name, type);
  const facts: MediaFacts = {
    width: still.width,
    height: still.height,
    codec: type.slice(6).toUpperCase(),
    alpha: hasAlpha(still),
    bytes: file.size,
  };
  return { kind: 'image', facts, poster: await posterOf(still), peaks: null };
}

async function probeInput(file: File, input: Input, progress: (share: number) => void): Promise<Probe> {
  if (!(await input.canRead())) {
    throw new JackplaneError(
      'unsupported',
      `“${file.name}” is not a kind of file that Jackplane opens, whatever its name says.`,
      'Use MP4, MOV, MKV, WebM, PNG, JPEG, WebP, GIF, AVIF, WAV, MP3, OGG, FLAC, or fonts as TTF, OTF, WOFF or WOFF2.',
    );
  }
  const [video, audio] = [await input.getPrimaryVideoTrack(), await input.getPrimaryAudioTrack()];
  if (!video && !audio)
    throw new JackplaneError('bad-media', `“${file.name}” holds neither picture nor sound.`, 'Choose another file.');
  const start = await startOf(input);
  const seconds = (await input.computeDuration()) - start;
  if (!(seconds > 0) || !Number.isFinite(seconds))
    throw new JackplaneError(
      'bad-media',
      `“${file.name}” is empty: it holds no ${video ? 'frame' : 'sound'}.`,
      'Copy or export it again and import the new file.',
    );
  progress(0.2);
  const sound = audio ? await soundFacts(file, audio) : undefined;
  const picture = video ? await pictureFacts(file, video) : null;
  progress(0.6);
  const peaks =
    audio && sound
      ? peaksOf(await readSound(audio, file.name, start, (share) => progress(0.6 + 0.3 * share)), PEAKS)
      : null;
  const facts: MediaFacts = {
    codec: '',
    alpha: false,
    ...picture?.facts,
    seconds,
    bytes: file.size,
    ...(sound ? { sound } : {}),
  };
  if (!picture) facts.codec = sound!.codec;
  return { kind: picture ? 'video' : 'sound', facts, poster: picture?.poster ?? null, peaks };
}

async function soundFacts(file: File, track: InputAudioTrack): Promise<NonNullable<MediaFacts['sound']>> {
  const codec = await track.getCodec();
  if (!codec || !(await track.canDecode())) {
    throw new JackplaneError(
      'unsupported',
      `The sound of “${file.name}” (${codec ?? 'unknown codec'}) cannot be decoded by this browser.`,
      'Convert the sound to Opus, AAC, MP3 or WAV.',
    );
  }
  return { channels: await track.getNumberOfChannels(), sampleRate: await track.getSampleRate(), codec };
}

async function pictureFacts(
  file: File,
  track: InputVideoTrack,
): Promise<{ facts: Pick<MediaFacts, 'width' | 'height' | 'rate' | 'codec' | 'alpha'>; poster: Blob }> {
  const codec = await track.getCodec();
  if (!codec || !(await track.canDecode())) {
    throw new JackplaneError(
      'unsupported',
      `The picture of “${file.name}” (${codec ?? 'unknown codec'}) cannot be decoded by this browser.`,
      'Convert it to H.264, VP9 or AV1.',
    );
  }
  const [width, height] = [await track.getDisplayWidth(), await track.getDisplayHeight()];
  checkSize(file.name, width, height);
  const still = await tellingFrame(track, file.name);
  await checkEnd(track, file.name);
  const rate = rateFromStamps(await stampsOf(track));
  const facts = { width, height, codec, alpha: await track.canBeTransparent(), rate: rate ?? ('variable' as const) };
  return { facts, poster: await posterOf(still) };
}

/** A file that was cut off still lists its last frame but does not hold it. */
async function checkEnd(track: InputVideoTrack, name: string): Promise<void> {
  const last = await new VideoSampleSink(track).getSample(Infinity);
  if (!last) throw damaged(name, 'its last frame is missing');
  const missing = (await track.computeDuration()) - last.timestamp > 1;
  last.close();
  if (missing) throw damaged(name, 'its end is missing');
}

/** Presentation times of the first packets, ascending. */
async function stampsOf(track: InputVideoTrack): Promise<number[]> {
  const stamps: number[] = [];
  for await (const packet of new EncodedPacketSink(track).packets(undefined, undefined, { metadataOnly: true })) {
    stamps.push(packet.timestamp);
    if (stamps.length >= RATE_PACKETS) break;
  }
  // packets come in decoding order: the last few may still miss a neighbour that is shown before them
  return stamps.sort((a, b) => a - b).slice(0, stamps.length >= RATE_PACKETS ? -8 : undefined);
}

function peaksOf({ channels }: Pcm, parts: number): number[] {
  const length = channels[0]?.length ?? 0;
  const size = Math.max(1, Math.ceil(length / parts));
  return Array.from({ length: Math.ceil(length / size) }, (_, part) => {
    let peak = 0;
    for (let i = part * size; i < Math.min(length, (part + 1) * size); i++) {
      for (const channel of channels) peak = Math.max(peak, Math.abs(channel[i]!));
    }
    return Math.min(1, Math.round(peak * 1000) / 1000);
  });
}
