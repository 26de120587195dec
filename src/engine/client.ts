// What the app sees of the engine: typed calls to the workers, and the cache of finished frames.
import * as Comlink from 'comlink';
import kernelsUrl from '../../build/kernels.wasm?url';
import type { Luma } from '../core/analysis/edge-pull';
import type { SelectHint } from '../core/analysis/select';
import type { DrawnMatte } from '../core/document/mask';
import { JackplaneError } from '../core/errors';
import type { CoveragePlan } from '../core/masks/coverage';
import type { Project, ShotId } from '../core/document/schema';
import type { Colour } from '../core/passes/define';
import type { FramePlan, LayerPlan } from '../core/plan/plan';
import type { SoundItem } from '../core/sound/mix';
import { carryErrors } from './thrown';
import type { Look, Probe, RenderResult, RenderSettings, ShownFrame } from './types';
import type { DecodeApi } from './workers/decode.worker';
import type { EncodeApi } from './workers/encode.worker';
import type { RenderApi } from './workers/render.worker';

const ARENA_BYTES = 768e6;
const CACHE_BYTES = 512e6;
const MOST_WORKERS = 4;

/** What this browser lacks, each as a sentence; empty when everything is there. */
export function missingAbilities(): string[] {
  const missing: string[] = [];
  if (typeof VideoDecoder === 'undefined') missing.push('This browser has no WebCodecs, so it cannot decode or write video. Use a current Chromium, Edge or Safari.');
  if (typeof OffscreenCanvas === 'undefined') missing.push('This browser has no OffscreenCanvas. Use a current one.');
  if (!globalThis.crossOriginIsolated) missing.push('The page is not isolated, so some work runs slower. Serve Jackplane with its own server (npm start).');
  return missing;
}

/** Finished frames by plan key, the least recently used leaving first. */
class FrameCache {
  private readonly frames = new Map<string, ShownFrame>();
  private bytes = 0;

  get(key: string): ShownFrame | undefined {
    const frame = this.frames.get(key);
    if (frame) {
      this.frames.delete(key);
      this.frames.set(key, frame);
    }
    return frame;
  }

  has(key: string): boolean {
    return this.frames.has(key);
  }

  put(key: string, frame: ShownFrame): void {
    // two workers may have been asked for the same frame: the one that came first stays
    if (this.frames.has(key)) return frame.bitmap.close();
    this.frames.set(key, frame);
    this.bytes += size(frame);
    for (const [old, other] of this.frames) {
      if (this.bytes <= CACHE_BYTES || old === key) break;
      this.frames.delete(old);
      this.bytes -= size(other);
      other.bitmap.close();
    }
  }

  clear(): void {
    this.frames.forEach((frame) => frame.bitmap.close());
    this.frames.clear();
    this.bytes = 0;
  }
}
const size = ({ bitmap }: ShownFrame) => bitmap.width * bitmap.height * 4;

export class Engine {
  readonly cache = new FrameCache();
  private constructor(
    private readonly decode: Comlink.Remote<DecodeApi>,
    private readonly renders: Comlink.Remote<RenderApi>[],
    private readonly encode: Comlink.Remote<EncodeApi>,
  ) {}

  static async start(): Promise<Engine> {
    carryErrors();
    const module = await WebAssembly.compile(await (await fetch(kernelsUrl)).arrayBuffer());
    const decode = Comlink.wrap<DecodeApi>(new Worker(new URL('./workers/decode.worker.ts', import.meta.url), { type: 'module' }));
    const count = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2));
    const renders = await Promise.all(
      Array.from({ length: count }, async () => {
        const render = Comlink.wrap<RenderApi>(new Worker(new URL('./workers/render.worker.ts', import.meta.url), { type: 'module' }));
        const port = await connected(decode);
        await render.start(module, ARENA_BYTES, Comlink.transfer(port, [port]));
        return render;
      }),
    );
    const encode = Comlink.wrap<EncodeApi>(new Worker(new URL('./workers/encode.worker.ts', import.meta.url), { type: 'module' }));
    const ports = await Promise.all(renders.map(connected));
    const decodePort = await connected(decode);
    await encode.start(Comlink.transfer(ports, ports), Comlink.transfer(decodePort, [decodePort]));
    return new Engine(decode, renders, encode);
  }

  get workers(): number {
    return this.renders.length;
  }

  openStock = (id: string, file: Blob, name: string): Promise<void> => this.decode.open(id, file, name);
  closeStock = (id: string): Promise<void> => this.decode.close(id);

  probe(file: File, progress: (share: number) => void): Promise<Probe> {
    return this.decode.probe(file, Comlink.proxy(progress));
  }

  unpack = (file: File): Promise<{ project: Project; media: Map<string, Blob> }> => this.decode.unpack(file);
  pack = (project: Project, media: ReadonlyMap<string, Blob>): Promise<Blob> => this.decode.pack(project, media);

  /** A frame from the cache, or computed. @param worker which of the pool; 0 is the one that follows the dials */
  async frame(plan: FramePlan, look: Look, worker = 0): Promise<ShownFrame> {
    const key = frameKey(plan, look);
    const held = this.cache.get(key);
    if (held) return held;
    const shown = await this.renders[worker % this.renders.length]!.show(plan, look, worker === 0);
    if (!shown.problems.length) this.cache.put(key, shown);
    return this.cache.get(key) ?? shown;
  }

  thumbnails = (layer: LayerPlan, width: number, height: number): Promise<ImageBitmap[]> => this.renders[0]!.thumbnails(layer, width, height);
  mean = (layer: LayerPlan, part: { x: number; y: number; w: number; h: number }): Promise<[number, number, number, number]> => this.renders[0]!.mean(layer, part);
  luma = (layer: LayerPlan): Promise<Luma> => this.renders[0]!.luma(layer);
  coverage = (plan: CoveragePlan): Promise<{ w: number; h: number; values: Uint8Array<ArrayBuffer> }> => this.renders[0]!.coverage(plan);
  select = (layer: LayerPlan, hints: readonly SelectHint[], carry: { layer: LayerPlan; matte: DrawnMatte } | null): Promise<{ matte: DrawnMatte; confidence: number }> => this.renders[0]!.select(layer, hints, carry);
  findScreen = (layer: LayerPlan): Promise<{ samples: Colour[]; share: number } | null> => this.renders[0]!.findScreen(layer);
  screenShare = (layer: LayerPlan, picked: readonly Colour[]): Promise<{ seen: number; rim: number }> => this.renders[0]!.screenShare(layer, picked);
  pixels = (plan: FramePlan): Promise<Uint8ClampedArray<ArrayBuffer>> => this.renders[0]!.bytes(plan);
  mix = (items: SoundItem[], from: number, length: number, rate: number): Promise<[Float32Array, Float32Array]> => this.decode.mix(items, from, length, rate);

  render(project: Project, shot: ShotId, settings: RenderSettings, progress: (done: number) => void): Promise<RenderResult> {
    return this.encode.render(project, shot, settings, Comlink.proxy(progress));
  }
  cancelRender = (): Promise<void> => this.encode.cancel();
}

export const frameKey = (plan: FramePlan, look: Look): string => `${look} ${plan.key}`;

async function connected(worker: { connect(port: MessagePort): Promise<void> }): Promise<MessagePort> {
  const { port1, port2 } = new MessageChannel();
  await worker.connect(Comlink.transfer(port1, [port1]));
  return port2;
}

let engine: Promise<Engine> | null = null;

/** The one engine of this page, started at first use. @throws JackplaneError unsupported */
export function useEngine(): Promise<Engine> {
  engine ??= Engine.start().catch((error: unknown) => {
    engine = null;
    throw new JackplaneError('unsupported', `The workers could not be started (${(error as Error).message}).`, 'Reload the page; if it stays so, use a current browser.');
  });
  return engine;
}
