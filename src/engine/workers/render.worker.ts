// Computes frames from plans. Each of the pool has its own kernels, memory and cache.
import * as Comlink from 'comlink';
import { checkKey, checkPicture } from '../../core/analysis/key-check';
import { thumbnail } from '../../core/execute/composite';
import { Executor, type Problem } from '../../core/execute/execute';
import { Arena } from '../../core/picture/arena';
import { bindKernels } from '../../core/picture/kernels';
import { Picture } from '../../core/picture/picture';
import type { FramePlan, LayerPlan } from '../../core/plan/plan';
import { carryErrors } from '../thrown';
import type { Look, ShownFrame } from '../types';
import type { DecodeApi } from './decode.worker';

carryErrors();

let executor: Executor;

async function bitmapOf(picture: Picture): Promise<ImageBitmap> {
  const image = new ImageData(executor.toBytes(picture), picture.rect.w, picture.rect.h);
  return createImageBitmap(image);
}

function asMatte(picture: Picture): Picture {
  const grey = Picture.make(executor.arena, picture.rect);
  executor.kernels.matteSpan(picture.at, grey.at, picture.pixels);
  picture.release();
  return grey;
}

/** The picture's coverage sorted, painted and counted. */
async function checked(picture: Picture, problems: Problem[]): Promise<ShownFrame> {
  const { w, h } = picture.rect;
  const pixels = executor.toBytes(picture);
  picture.release();
  const alpha = Uint8Array.from({ length: w * h }, (_, i) => pixels[i * 4 + 3]!);
  const check = checkKey(alpha, w, h);
  const islands = check.islands.map((island) => ({ ...island, x: island.x / w, y: island.y / h, radius: island.radius / w }));
  const bitmap = await createImageBitmap(new ImageData(checkPicture(alpha), w, h));
  return Comlink.transfer({ bitmap, problems, check: { ...check, islands } }, [bitmap]);
}

const api = {
  async start(module: WebAssembly.Module, limit: number, decoder: MessagePort): Promise<void> {
    const arena = new Arena(limit);
    const decode = Comlink.wrap<DecodeApi>(decoder);
    executor = new Executor(await bindKernels(module, arena), arena, (source) => decode.frame(source.stock, source.name, source.seconds));
  },

  /** A frame to show. @param editing keep every step, for turning dials */
  async show(plan: FramePlan, look: Look, editing: boolean): Promise<ShownFrame> {
    const problems: Problem[] = [];
    let picture = await executor.frame(plan, editing ? 'every' : 'last', problems);
    if (look === 'check') return checked(picture, problems);
    if (look === 'matte') picture = asMatte(picture);
    const bitmap = await bitmapOf(picture);
    picture.release();
    return Comlink.transfer({ bitmap, problems }, [bitmap]);
  },

  /** A frame as straight 8-bit RGBA, for a file. @throws when a layer cannot be computed */
  async bytes(plan: FramePlan): Promise<Uint8ClampedArray<ArrayBuffer>> {
    const problems: Problem[] = [];
    const picture = await executor.frame(plan, 'last', problems);
    const data = executor.toBytes(picture);
    picture.release();
    if (problems.length) throw new Error(problems[0]!.sentence);
    return Comlink.transfer(data, [data.buffer]);
  },

  /** A layer's picture after its source and after each of its passes, small. */
  async thumbnails(layer: LayerPlan, width: number, height: number): Promise<ImageBitmap[]> {
    const out: ImageBitmap[] = [];
    for (let count = 0; count <= layer.passes.length; count++) {
      const picture = await executor.layer({ ...layer, passes: layer.passes.slice(0, count) });
      const small = thumbnail(executor, picture, layer.size, width, height);
      picture.release();
      out.push(await bitmapOf(small));
      small.release();
    }
    return Comlink.transfer(out, out);
  },

  /** Mean straight colour and alpha of a part of a layer's picture. @param part pixels at the plan's scale */
  async mean(layer: LayerPlan, part: { x: number; y: number; w: number; h: number }): Promise<[number, number, number, number]> {
    const picture = await executor.layer(layer);
    const colour = executor.mean(picture, part);
    picture.release();
    return colour;
  },

  connect(port: MessagePort): void {
    Comlink.expose(api, port);
  },
};

export type RenderApi = typeof api;
Comlink.expose(api);
