import type { FetchedPicture } from '../../core/picture/fetched';
import { JackplaneError } from '../../core/base/errors';
import type { FrameStore } from './clip-reader';
import { imageType, stillOf, type Still } from './images';
import { inOrder } from './in-order';

/** Most frames of a moving picture. */
const MOST_FRAMES = 5000;
/** Shown for as long as browsers show a frame that says no time or next to none, in seconds. */
const UNSAID = 0.1;

/** When each frame of a moving picture (GIF, WebP, PNG) begins and when the last one ends, in seconds, with the frames as they come. */
export async function* movingFrames(file: Blob, name: string): AsyncGenerator<Still & { start: number; end: number }> {
  const type = (await imageType(file))!;
  if (typeof ImageDecoder !== 'function' || !(await ImageDecoder.isTypeSupported(type)))
    throw new JackplaneError(
      'unsupported',
      `“${name}” moves, and this browser cannot decode its frames.`,
      'Convert it to MP4 or WebM.',
    );
  const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type });
  try {
    await Promise.all([decoder.tracks.ready, decoder.completed]);
    const count = decoder.tracks.selectedTrack?.frameCount ?? 1;
    if (count > MOST_FRAMES)
      throw new JackplaneError(
        'unsupported',
        `“${name}” has ${count} frames, more than the ${MOST_FRAMES} that Jackplane takes of a moving picture.`,
        'Convert it to MP4 or WebM.',
      );
    for (let frameIndex = 0, start = 0; frameIndex < count; frameIndex++) {
      const { image } = await decoder.decode({ frameIndex, completeFramesOnly: true });
      const seconds = (image.duration ?? 0) / 1e6;
      const end = start + (seconds > 0.0105 ? seconds : UNSAID);
      yield { ...(await stillOf(image, name)), start, end };
      start = end;
    }
  } catch (error) {
    if (error instanceof JackplaneError) throw error;
    throw new JackplaneError(
      'bad-media',
      `“${name}” is damaged or cut off; one of its frames could not be decoded.`,
      'Export it again and import the new file.',
    );
  } finally {
    decoder.close();
  }
}

/** Frames of a moving picture by time: in sequence when asked in sequence, from the beginning when asked to go back. */
export class AnimatedReader {
  private frames: ReturnType<typeof movingFrames> | null = null;
  private current: (Still & { start: number; end: number }) | null = null;

  constructor(
    private readonly id: string,
    private readonly file: Blob,
    private readonly name: string,
    private readonly store: FrameStore,
  ) {}

  readonly frameAt = inOrder((seconds: number) => this.read(seconds));

  private async read(seconds: number): Promise<FetchedPicture> {
    const held = this.store.find(this.id, seconds);
    if (held) return held;
    if (!this.frames || (this.current && seconds < this.current.start)) {
      await this.close();
      this.frames = movingFrames(this.file, this.name);
    }
    while (!this.current || seconds >= this.current.end) {
      const next = await this.frames.next();
      if (next.done) break;
      this.current = next.value;
      this.store.put(this.id, this.current);
    }
    return this.current!;
  }

  async close(): Promise<void> {
    this.current = null;
    await this.frames?.return(undefined);
    this.frames = null;
  }
}
