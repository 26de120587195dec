import type { PlatePlan } from '../../../params/plate';
import { paramsOf } from '../../../passes/registry';
import type { Arena } from '../../../picture/arena';
import type { Kernels } from '../../../picture/kernels';
import { scaling } from '../../../picture/matrix';
import { pictureOf, rgbaOf, type FetchedPicture } from '../../../picture/fetched';
import { Picture } from '../../../picture/picture';
import { place } from '../../../picture/transform';
import { hash } from '../../../base/hash';
import type { PassPlan } from '../../../plan/types';

type Chosen = NonNullable<PlatePlan>;
interface Tools {
  kernels: Kernels;
  arena: Arena;
}
interface Size {
  w: number;
  h: number;
}
type FetchPlate = (plate: Chosen, seconds: number) => Promise<FetchedPicture>;

/** Most plates held. */
const HELD = 4;

/** Clean plates by content: a frame, or the median over a clip, fitted to the layer they are compared with. */
export class PlateStore {
  private readonly pictures = new Map<string, Picture>();

  constructor(
    private readonly tools: Tools,
    private readonly fetch: FetchPlate,
  ) {}

  /** Fetches and computes the plates of passes. */
  async prepare(passes: readonly PassPlan[], size: Size): Promise<void> {
    for (const pass of passes) {
      for (const [name, param] of Object.entries(paramsOf(pass.type))) {
        const plan = param.kind === 'plate' ? (pass.values[name] as PlatePlan) : null;
        if (plan && !this.pictures.has(keyOf(plan, size))) this.keep(keyOf(plan, size), await this.made(plan, size));
      }
    }
  }

  /** The picture of a plate that was prepared, of the layer's whole size and still the store's own; null when none is chosen. */
  get(plan: PlatePlan, size: Size): Picture | null {
    return plan ? (this.pictures.get(keyOf(plan, size)) ?? null) : null;
  }

  private keep(key: string, picture: Picture): void {
    this.pictures.set(key, picture);
    for (const [old, other] of this.pictures) {
      if (this.pictures.size <= HELD) break;
      this.pictures.delete(old);
      other.release();
    }
  }

  private async made(plan: Chosen, size: Size): Promise<Picture> {
    const frames = await Promise.all(plan.seconds.map((seconds) => this.fetch(plan, seconds)));
    const { width, height } = frames[0]!;
    const { arena } = this.tools;
    const median = () => ({
      data: medianOf(
        this.tools,
        frames.map((frame) => rgbaOf(this.tools, frame)),
      ),
      width,
      height,
    });
    const whole = pictureOf(this.tools, frames.length > 1 ? median() : frames[0]!, 1);
    if (width === size.w && height === size.h) return whole;
    const fitted = place(this.tools, whole, scaling(size.w / width, size.h / height), 1, { x: 0, y: 0, ...size });
    whole.release();
    return fitted ?? Picture.make(arena, { x: 0, y: 0, ...size });
  }
}

const keyOf = (plan: Chosen, { w, h }: Size): string => hash(JSON.stringify([plan, w, h]));

/** Bytes of each frame that are looked at together. */
const STRIP = 65536;

/** Value by value the one in the middle. @param frames alike in length */
export function medianOf(
  { kernels, arena }: Tools,
  frames: readonly (Uint8Array | Uint8ClampedArray)[],
): Uint8ClampedArray {
  const out = new Uint8ClampedArray(frames[0]!.length);
  arena.scratch(STRIP * (frames.length + 1), (at) => {
    const result = at + STRIP * frames.length;
    for (let from = 0; from < out.length; from += STRIP) {
      frames.forEach((frame, k) => arena.bytes(at + k * STRIP, STRIP).set(frame.subarray(from, from + STRIP)));
      kernels.medianBytes(at, STRIP, frames.length, result);
      out.set(arena.bytes(result, Math.min(STRIP, out.length - from)), from);
    }
  });
  return out;
}
