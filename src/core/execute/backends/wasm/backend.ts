// The reference backend: pictures in the kernels' memory, every step computed by the kernels.
import { between } from '../../../analysis/flow';
import type { CoveragePlan } from '../../../masks/coverage';
import type { Arena } from '../../../picture/arena';
import { pictureOf, type FetchedPicture } from '../../../picture/fetched';
import type { Kernels } from '../../../picture/kernels';
import { Picture } from '../../../picture/picture';
import type { Rect } from '../../../picture/rect';
import { partOf } from '../../../picture/rows';
import type { LayerPlan, PassPlan, Size } from '../../../plan/types';
import type { DrawnSource } from '../../../sources/define';
import { sourceOf } from '../../../sources/registry';
import type { LineStyle } from '../../../text/fonts';
import type { Backend, DrawnPlan, Further, Ground, Keep, MatteWay } from '../../backend';
import { PictureCache } from '../../cache';
import { backdrop, placeholder } from './composite';
import { adjustBelow, drawLayer, matteOf } from './draw';
import type { MaskStore } from './masks';
import { layerSpace, runPasses, type Rig } from './passes';
import type { PlateStore } from './plates';

/** Share of the memory that finished pictures may take. */
const CACHED = 0.6;

export class WasmBackend implements Backend<Picture>, Rig {
  readonly cache: PictureCache<Picture>;

  constructor(
    readonly kernels: Kernels,
    readonly arena: Arena,
    readonly masks: MaskStore,
    readonly plates: PlateStore,
  ) {
    this.cache = new PictureCache(arena.limit * CACHED);
    arena.relief = () => this.cache.dropOldest();
  }

  guarded<T>(work: () => T): T {
    return this.arena.guarded(work);
  }

  prepareMasks(plans: readonly CoveragePlan[]): Promise<void> {
    return this.masks.prepare(plans);
  }
  preparePlates(passes: readonly PassPlan[], size: Size): Promise<void> {
    return this.plates.prepare(passes, size);
  }
  prepareLines(lines: readonly (readonly [text: string, style: LineStyle])[]): Promise<string> {
    return this.masks.prepareLines(lines);
  }

  upload(fetched: FetchedPicture, size: Size): Picture {
    return pictureOf(this, fetched, Math.round(fetched.width / size.w) || 1);
  }
  between(first: Picture, second: Picture, share: number, how: 'blend' | 'flow'): Picture {
    if (how === 'flow') return between(this, first, second, share);
    const out = Picture.make(this.arena, first.rect);
    this.kernels.lerpSpan(first.at, second.at, out.at, out.pixels, share);
    return out;
  }
  draw({ type, values }: DrawnPlan, size: Size, pictures: Further<Picture>): Picture {
    const { kernels, arena, masks } = this;
    const line = masks.line.bind(masks);
    const picture = (key: string): Picture | null => pictures(key) ?? null;
    return (sourceOf(type) as DrawnSource).draw(values as never, { kernels, arena, size, line, picture });
  }
  placeholder(size: Size): Picture {
    return placeholder(this, size);
  }
  ground(rect: Rect, colour: readonly [number, number, number] | null, linear: boolean): Picture {
    const out = backdrop(this, rect, colour);
    if (linear) this.kernels.toLinearSpan(out.at, out.pixels);
    return out;
  }

  part(picture: Picture, rect: Rect): Picture {
    return partOf(this, picture, rect);
  }
  halved(picture: Picture, size: Size): Picture {
    let current = picture.retain();
    while (current.rect.w > size.w) {
      const { w, h } = current.rect;
      const smaller = Picture.make(this.arena, { x: 0, y: 0, w: Math.ceil(w / 2), h: Math.ceil(h / 2) });
      this.kernels.halve(current.at, w, h, smaller.at);
      current.release();
      current = smaller;
    }
    return current;
  }
  trimmed(picture: Picture): Picture {
    const { x, y, w, h } = picture.rect;
    const [left, right, top, bottom] = this.arena.scratch(16, (at) => {
      this.kernels.seenBox(picture.at, w, h, at);
      return [...new Int32Array(this.arena.bytes(at, 16).slice().buffer)] as [number, number, number, number];
    });
    if (right < left) return picture.retain(); // a clear one stays as it is
    return partOf(this, picture, { x: x + left, y: y + top, w: right - left + 1, h: bottom - top + 1 });
  }
  encode(picture: Picture): void {
    this.kernels.toDisplaySpan(picture.at, picture.pixels);
  }

  passes(passes: readonly PassPlan[], picture: Picture, size: Size, further: Further<Picture>, keep: Keep): Picture {
    return runPasses(this, { ...layerSpace(this, size), moment: further }, passes, picture, keep);
  }
  blend(under: Picture, layer: LayerPlan, picture: Picture, ground: Ground<Picture>): void {
    drawLayer(this, under, layer, picture, ground);
  }
  adjust(under: Picture, layer: LayerPlan, ground: Ground<Picture>): void {
    adjustBelow(this, under, layer, ground);
  }
  matte(layer: LayerPlan, picture: Picture, how: MatteWay, ground: Ground<Picture>): Picture {
    return matteOf(this, layer, picture, how, ground);
  }
}
