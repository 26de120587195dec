// The demo's media in other wrappings: same pictures, other container, time stamps or rotation. Nothing is encoded anew.
import {
  ALL_FORMATS,
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacket,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  FilePathSource,
  Input,
  MkvOutputFormat,
  MovOutputFormat,
  Mp4OutputFormat,
  OggOutputFormat,
  Output,
} from 'mediabunny';
import sharp from 'sharp';
import { media } from './helpers';

interface Wrapping {
  container: 'mov' | 'mp4' | 'mkv';
  rotation?: 0 | 90 | 180 | 270;
  /** time stamp and duration of a frame in seconds, from its own ones */
  stamp?: (timestamp: number) => { timestamp: number; duration: number };
}
const CONTAINERS = { mov: MovOutputFormat, mp4: Mp4OutputFormat, mkv: MkvOutputFormat };

/** The pictures of a demo clip in another wrapping. */
export async function wrapped(name: string, { container, rotation = 0, stamp }: Wrapping): Promise<Buffer> {
  const input = new Input({ source: new FilePathSource(media(name)), formats: ALL_FORMATS });
  const track = (await input.getPrimaryVideoTrack())!;
  const target = new BufferTarget();
  const output = new Output({ format: new CONTAINERS[container](), target });
  const source = new EncodedVideoPacketSource((await track.getCodec())!);
  output.addVideoTrack(source, { rotation });
  await output.start();
  const decoderConfig = (await track.getDecoderConfig())!;
  for await (const packet of new EncodedPacketSink(track).packets()) {
    await source.add(packet.clone(stamp ? stamp(packet.timestamp) : {}), { decoderConfig });
  }
  await output.finalize();
  input.dispose();
  return Buffer.from(target.buffer!);
}

/** An OGG file of some seconds of silence: Opus packets of 20 ms that hold nothing. */
export async function silentOgg(seconds: number): Promise<Buffer> {
  const target = new BufferTarget();
  const output = new Output({ format: new OggOutputFormat(), target });
  const source = new EncodedAudioPacketSource('opus');
  output.addAudioTrack(source);
  await output.start();
  // identification header of RFC 7845: one channel, nothing to skip, 48 kHz
  const description = Uint8Array.from([...Buffer.from('OpusHead'), 1, 1, 0, 0, 0x80, 0xbb, 0, 0, 0, 0, 0]);
  for (let i = 0; i < seconds * 50; i++) {
    await source.add(new EncodedPacket(new Uint8Array([0xf8, 0xff, 0xfe]), 'key', i / 50, 1 / 50), {
      decoderConfig: { codec: 'opus', numberOfChannels: 1, sampleRate: 48000, description },
    });
  }
  await output.finalize();
  return Buffer.from(target.buffer!);
}

/** An MP3 of silence: MPEG-1 layer III frames of 128 kbit/s at 44.1 kHz, mono, with empty side information. */
export function silentMp3(frames: number): Buffer {
  const frame = Buffer.alloc(417);
  frame.writeUInt32BE(0xfffb90c4);
  return Buffer.concat(Array.from({ length: frames }, () => frame));
}

/** A picture of four flat quarters: red, green over blue, white. */
export function quarters(format: 'jpeg' | 'webp'): Promise<Buffer> {
  const [width, height] = [320, 180];
  const pixels = Buffer.alloc(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [right, low] = [x >= width / 2, y >= height / 2];
      pixels.set(
        low ? (right ? [255, 255, 255] : [0, 0, 255]) : right ? [0, 255, 0] : [255, 0, 0],
        (y * width + x) * 3,
      );
    }
  }
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    [format]({ quality: 95 })
    .toBuffer();
}
