import type { VideoSample } from 'mediabunny';
import { JackplaneError } from '../../core/base/errors';
import type { FetchedPicture, Planes } from '../../core/picture/fetched';
import { inOrder } from './in-order';

export interface HeldFrame extends FetchedPicture {
  /** shows from here until `end`, seconds */
  start: number;
  end: number;
}

/** Frames of all clips, bounded together. */
export class FrameStore {
  private readonly frames = new Map<string, HeldFrame[]>();
  private readonly order: { clip: string; frame: HeldFrame }[] = [];
  private bytes = 0;

  constructor(private readonly limit: number) {}

  clips(): string[] {
    return [...this.frames.keys()];
  }

  find(clip: string, seconds: number): HeldFrame | undefined {
    return this.frames.get(clip)?.find((frame) => frame.start <= seconds && seconds < frame.end);
  }

  put(clip: string, frame: HeldFrame): void {
    this.frames.set(clip, [...(this.frames.get(clip) ?? []), frame]);
    this.order.push({ clip, frame });
    this.bytes += frame.data.byteLength;
    while (this.bytes > this.limit && this.order.length > 1) {
      const old = this.order.shift()!;
      this.bytes -= old.frame.data.byteLength;
      this.frames.set(
        old.clip,
        this.frames.get(old.clip)!.filter((other) => other !== old.frame),
      );
    }
  }

  drop(clip: string): void {
    for (const frame of this.frames.get(clip) ?? []) this.bytes -= frame.data.byteLength;
    this.frames.delete(clip);
    for (let i = this.order.length - 1; i >= 0; i--) if (this.order[i]!.clip === clip) this.order.splice(i, 1);
  }
}

/** How far ahead decoding goes on in sequence before seeking is cheaper. */
const RUN_SECONDS = 1;
/** Frames passed on the way to one at most this far ahead are held: workers that share a clip do not ask in order. */
const NEAR_SECONDS = 0.13;

/**
 * Exact frames of one clip by time: in sequence when asked in sequence, else by seeking.
 * `samplesFrom` decodes from the frame that shows at a time on.
 */
export class ClipReader {
  private samples: AsyncGenerator<VideoSample, void, unknown> | null = null;
  private current: VideoSample | null = null;
  private ahead: VideoSample | null = null;

  constructor(
    private readonly id: string,
    private readonly samplesFrom: (seconds: number) => AsyncGenerator<VideoSample, void, unknown>,
    private readonly store: FrameStore,
    /** time stamp of the clip's beginning, seconds; all other times count from there */
    private readonly start = 0,
    private readonly name = 'the clip',
  ) {}

  private time(sample: VideoSample): number {
    return sample.timestamp - this.start;
  }

  /** The frame showing at a time; before the first and after the last, the nearest. */
  readonly frameAt = inOrder((seconds: number) => this.read(seconds));

  private async read(seconds: number): Promise<HeldFrame> {
    const held = this.store.find(this.id, seconds);
    if (held) return held;
    const position = this.current ? this.time(this.current) : undefined;
    const ahead = position === undefined ? Infinity : seconds - position;
    const near = ahead >= 0 && ahead <= NEAR_SECONDS;
    if (!this.samples || ahead < 0 || ahead > RUN_SECONDS) await this.seek(seconds);
    for (;;) {
      this.ahead ??= (await this.samples!.next()).value ?? null;
      if (!this.ahead || (this.current && this.time(this.ahead) > seconds)) break;
      if (near && this.current && !this.store.find(this.id, this.time(this.current)))
        await this.hold(this.current, this.time(this.current));
      this.current?.close();
      this.current = this.ahead;
      this.ahead = null;
    }
    if (!this.current)
      throw new JackplaneError(
        'bad-media',
        `“${this.name}” has no frame that could be decoded there.`,
        'Export it again and link the new file to it.',
      );
    return this.hold(this.current, Math.min(this.time(this.current), seconds));
  }

  /** @param start from where on the sample shows; up to the one ahead */
  private async hold(sample: VideoSample, start: number): Promise<HeldFrame> {
    const frame = {
      ...(await frameOf(sample)),
      start,
      end: this.ahead ? this.time(this.ahead) : Infinity,
    };
    this.store.put(this.id, frame);
    return frame;
  }

  private async seek(seconds: number): Promise<void> {
    await this.close();
    this.samples = this.samplesFrom(seconds);
  }

  async close(): Promise<void> {
    this.current?.close();
    this.ahead?.close();
    this.current = this.ahead = null;
    await this.samples?.return();
    this.samples = null;
  }
}

/** Memory that other workers read without a copy, where the page is isolated. */
export const sharedRoom = (bytes: number): ArrayBufferLike =>
  globalThis.crossOriginIsolated ? new SharedArrayBuffer(bytes) : new ArrayBuffer(bytes);
export const ownRoom = (bytes: number): ArrayBuffer => new ArrayBuffer(bytes);

/** What decoders call the ways of weighing colours that are known here. */
const MATRICES: Record<string, Planes['matrix']> = {
  bt709: 'bt709',
  bt470bg: 'bt601',
  smpte170m: 'bt601',
  'bt2020-ncl': 'bt2020',
};

/** How a sample's planes lie in memory and what they mean; null when that is not known here, so that the browser has to convert them. */
function planesOf(sample: SampleFacts): Planes | null {
  const { format, colorSpace } = sample;
  const matrix = MATRICES[colorSpace.matrix ?? ''];
  const { fullRange } = colorSpace;
  if (!matrix || typeof fullRange !== 'boolean' || !isPlain(sample)) return null;
  const { width, height } = sample.visibleRect;
  const luma = width * height;
  const colour = Math.ceil(width / 2) * Math.ceil(height / 2);
  const meaning = { matrix, full: fullRange };
  if (format === 'NV12') return { u: luma, v: luma + 1, step: 2, a: 0, ...meaning };
  if (format !== 'I420' && format !== 'I420A') return null;
  return { u: luma, v: luma + colour, step: 1, a: format === 'I420A' ? luma + 2 * colour : 0, ...meaning };
}

/** A sample as the decoder made it, where its planes are known; else as straight 8-bit RGBA. */
async function frameOf(sample: VideoSample): Promise<FetchedPicture> {
  const planes = planesOf(sample);
  if (!planes) return straightBytes(sample, sharedRoom);
  const data = new Uint8Array(sharedRoom(sample.allocationSize()));
  await sample.copyTo(data);
  return { data, width: sample.displayWidth, height: sample.displayHeight, planes };
}

type SampleFacts = Pick<
  VideoSample,
  'format' | 'colorSpace' | 'rotation' | 'flip' | 'visibleRect' | 'displayWidth' | 'displayHeight'
>;
/** Upright, with square pixels. */
const isPlain = ({
  rotation,
  flip,
  visibleRect,
  displayWidth,
  displayHeight,
}: Omit<SampleFacts, 'format' | 'colorSpace'>): boolean =>
  !rotation && !flip && visibleRect.width === displayWidth && visibleRect.height === displayHeight;

/** A sample as straight 8-bit RGBA, upright and with square pixels. @param room makes the memory that it lies in */
export async function straightBytes<B extends ArrayBufferLike>(
  sample: VideoSample,
  room: (bytes: number) => B,
): Promise<{ data: Uint8ClampedArray<B>; width: number; height: number }> {
  const { displayWidth: width, displayHeight: height } = sample;
  if (isPlain(sample)) {
    const data = new Uint8ClampedArray(room(sample.allocationSize({ format: 'RGBA' })));
    await sample.copyTo(data, { format: 'RGBA' });
    return { data, width, height };
  }
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  sample.draw(context, 0, 0, width, height);
  const drawn = context.getImageData(0, 0, width, height).data;
  const data = new Uint8ClampedArray(room(drawn.length));
  data.set(drawn);
  return { data, width, height };
}
