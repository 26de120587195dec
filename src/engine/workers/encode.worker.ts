// Writes a shot to a file: frames from the render workers in order, sound from the decode worker, then a check of what was written.
import * as Comlink from 'comlink';
import {
  ALL_FORMATS,
  AudioSample,
  AudioSampleSource,
  BlobSource,
  canEncodeAudio,
  EncodedPacketSink,
  Input,
  Mp4OutputFormat,
  Output,
  StreamTarget,
  VideoSample,
  VideoSampleSource,
  WebMOutputFormat,
  type AudioCodec,
} from 'mediabunny';
import { JackplaneError } from '../../core/base/errors';
import type { Project, ShotId } from '../../core/document/schema';
import { shotIn } from '../../core/document/find';
import { SOUND_BITRATE } from '../../core/formats/bitrate';
import { onNothing } from '../../core/plan/looks';
import { planFrame } from '../../core/plan/plan';
import type { FramePlan } from '../../core/plan/types';
import { rangeOf } from '../../core/document/edits/markers';
import { planSound, type SoundItem } from '../../core/sound/mix';
import { secondsAt } from '../../core/time/rate';
import { carryErrors } from '../thrown';
import { PartsFile } from './parts-file';
import type { RenderResult, RenderSettings } from '../types';

carryErrors();

/** What frames are and what files say they are, so that players show them as the viewer does: BT.709 in limited range, with the curve of a display. */
const WRITTEN = { primaries: 'bt709', transfer: 'iec61966-2-1', matrix: 'bt709', fullRange: false } as const;
const SAMPLE_RATE = 48000;
const SOUND_BLOCK_SECONDS = 1;
type Mix = (items: SoundItem[], from: number, length: number, rate: number) => Promise<[Float32Array, Float32Array]>;
/** Frames that are asked for ahead of the one that is written. */
const IN_HAND = 8;
/** Bytes that are written at a time. */
const CHUNK = 1 << 20;
/** Packets of sound in a second, at most: the shortest that a codec makes is 10 ms. */
const MOST_SOUND_PACKETS = 100;
let cancelled = false;

function checkCancelled(): void {
  if (cancelled) throw new JackplaneError('cancelled', 'The render was cancelled.', 'Nothing was written.');
}

async function soundCodec(container: RenderSettings['container']): Promise<AudioCodec> {
  if (container === 'webm') return 'opus';
  if (!(await canEncodeAudio('aac'))) (await import('@mediabunny/aac-encoder')).registerAacEncoder();
  return (await canEncodeAudio('aac')) ? 'aac' : 'opus';
}

/** @param from, to seconds of the shot @param start second of the shot at which the file begins */
async function addSound(
  source: AudioSampleSource,
  mix: Mix,
  items: SoundItem[],
  from: number,
  to: number,
  start: number,
): Promise<void> {
  const first = Math.round(from * SAMPLE_RATE);
  const length = Math.round(to * SAMPLE_RATE) - first;
  const [left, right] = await mix(items, from, length, SAMPLE_RATE);
  const data = new Float32Array(length * 2);
  data.set(left);
  data.set(right, length);
  const sample = new AudioSample({
    data,
    format: 'f32-planar',
    numberOfChannels: 2,
    sampleRate: SAMPLE_RATE,
    timestamp: (first - Math.round(start * SAMPLE_RATE)) / SAMPLE_RATE,
  });
  await source.add(sample);
  sample.close();
}

const api = {
  cancel(): void {
    cancelled = true;
  },

  /** @param progress frames done @param ask computes a frame: its planes of Y′CbCr, and of coverage when asked for @param mix gives sound */
  async render(
    project: Project,
    shotId: ShotId,
    settings: RenderSettings,
    progress: (done: number) => void,
    ask: (plan: FramePlan, alpha: boolean) => Promise<Uint8Array<ArrayBuffer>>,
    mix: Mix,
  ): Promise<RenderResult> {
    cancelled = false;
    const shot = shotIn(project, shotId);
    const { rate } = shot;
    const { from, to } = rangeOf(shot);
    const begin = secondsAt(from, rate);
    const written = settings.clear ? onNothing(project, shot) : project;
    const file = new PartsFile();
    const output = new Output({
      // room for the table of contents is kept at the beginning, so that nothing has to wait in memory for it
      format: settings.container === 'mp4' ? new Mp4OutputFormat({ fastStart: 'reserve' }) : new WebMOutputFormat(),
      target: new StreamTarget(file.stream, { chunked: true, chunkSize: CHUNK }),
    });
    const keepAlpha = settings.container === 'webm' && (settings.clear || !shot.background);
    const video = new VideoSampleSource({
      codec: settings.video,
      bitrate: settings.bitrate,
      bitrateMode: 'variable',
      keyFrameInterval: 2,
      alpha: keepAlpha ? 'keep' : 'discard',
    });
    output.addVideoTrack(video, { frameRate: rate.num / rate.den, maximumPacketCount: to - from });
    const items = settings.sound ? planSound(project, shotId) : [];
    const codec = items.length ? await soundCodec(settings.container) : null;
    const audio = codec ? new AudioSampleSource({ codec, bitrate: SOUND_BITRATE }) : null;
    const longest = secondsAt(to, rate) - begin;
    if (audio) output.addAudioTrack(audio, { maximumPacketCount: Math.ceil(longest * MOST_SOUND_PACKETS) + 64 });
    try {
      await output.start();
      let sounded = begin;
      // frames are computed by whoever is free, and taken in order
      const hand: Promise<Uint8Array<ArrayBuffer>>[] = [];
      let asked = from;
      for (let frame = from; frame < to; frame++) {
        checkCancelled();
        for (; asked < Math.min(to, frame + IN_HAND); asked++) {
          const data = ask(planFrame(written, shotId, asked), keepAlpha);
          data.catch(() => undefined);
          hand.push(data);
        }
        const data = await hand.shift()!;
        const end = secondsAt(frame + 1, rate);
        const timestamp = secondsAt(frame, rate) - begin;
        const sample = new VideoSample(data, {
          format: keepAlpha ? 'I420A' : 'I420',
          colorSpace: WRITTEN,
          codedWidth: shot.width,
          codedHeight: shot.height,
          timestamp,
          duration: end - begin - timestamp,
        });
        await video.add(sample);
        sample.close();
        if (audio && (end - sounded >= SOUND_BLOCK_SECONDS || frame === to - 1)) {
          await addSound(audio, mix, items, sounded, end, begin);
          sounded = end;
        }
        progress(frame - from + 1);
      }
      await output.finalize();
    } catch (error) {
      await output.cancel().catch(() => undefined);
      throw error;
    }
    const blob = file.blob(`video/${settings.container}`);
    return check(blob, {
      frames: to - from,
      width: shot.width,
      height: shot.height,
      seconds: secondsAt(to, rate) - begin,
    });
  },
};

/** Opens what was written and compares it with what was asked for. */
async function check(
  blob: Blob,
  wanted: { frames: number; width: number; height: number; seconds: number },
): Promise<RenderResult> {
  const input = new Input({ source: new BlobSource(blob), formats: ALL_FORMATS });
  try {
    const video = await input.getPrimaryVideoTrack();
    if (!video)
      throw new JackplaneError('bad-media', 'The written file holds no picture.', 'Render again with another codec.');
    let frames = 0;
    let end = 0;
    for await (const packet of new EncodedPacketSink(video).packets(undefined, undefined, { metadataOnly: true })) {
      frames++;
      end = Math.max(end, packet.timestamp + packet.duration);
    }
    const audio = await input.getPrimaryAudioTrack();
    const found = {
      frames,
      width: await video.getDisplayWidth(),
      height: await video.getDisplayHeight(),
      seconds: end,
    };
    const right =
      frames === wanted.frames &&
      found.width === wanted.width &&
      found.height === wanted.height &&
      Math.abs(end - wanted.seconds) < 0.05;
    if (!right) {
      throw new JackplaneError(
        'bad-media',
        `The written file has ${frames} frames of ${found.width}×${found.height} in ${end.toFixed(2)} s instead of ${wanted.frames} of ${wanted.width}×${wanted.height} in ${wanted.seconds.toFixed(2)} s, so it was thrown away.`,
        'Render again with another codec.',
      );
    }
    return {
      blob,
      ...found,
      videoCodec: (await video.getCodec()) ?? 'unknown',
      soundCodec: audio ? await audio.getCodec() : null,
    };
  } finally {
    input.dispose();
  }
}

export type EncodeApi = typeof api;
Comlink.expose(api);
