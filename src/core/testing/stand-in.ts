// Pictures in place of media, so that documents can be looked at where nothing can be decoded.
import { bytesOf } from '../picture/bytes';
import type { Project, ShotId, Stock } from '../document/schema';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import type { Fetch } from '../execute/backend';
import type { FetchedPicture } from '../picture/fetched';
import { planFrame } from '../plan/plan';
import type { Reduction } from '../time/moment';
import { testRig } from './rig';

/** A textured disc that wanders over an uneven green sheet, or over grey with a clear border for pictures with alpha. */
function drawn({ id, facts }: Stock, seconds: number, reduction: Reduction): FetchedPicture {
  const { alpha } = facts;
  const [width, height] = [Math.ceil((facts.width ?? 64) / reduction), Math.ceil((facts.height ?? 36) / reduction)];
  const data = new Uint8Array(width * height * 4);
  const seed = [...id].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) % 97;
  const centre = [width * (0.5 + 0.25 * Math.sin(seconds + seed)), height * (0.5 + 0.2 * Math.cos(1.3 * seconds))];
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i += 4) {
      const far = Math.hypot(x - centre[0]!, y - centre[1]!) / height;
      const inside = Math.min(1, Math.max(0, (0.3 - far) * 40));
      const light = 0.6 + 0.4 * (x / width) - 0.2 * (y / height);
      const back = alpha ? [110, 110, 120] : [30 * light, 190 * light, 50 * light];
      const cloth = 20 * Math.sin(((x + seed) * 24) / width) * Math.cos((y * 17) / height);
      const front = [190 + cloth, 120 + cloth - seed, 90 + cloth];
      for (let c = 0; c < 3; c++) data[i + c] = inside * front[c]! + (1 - inside) * back[c]!;
      data[i + 3] = alpha ? 255 * Math.min(1, Math.max(0, (0.45 - far) * 10)) : 255;
    }
  }
  return { data, width, height };
}

/** An executor for a project whose media are drawn, reduced already. */
async function standInExecutor(project: Project, reduction: Reduction): Promise<WasmExecutor> {
  const { kernels, arena } = await testRig();
  const held = new Map<string, FetchedPicture>();
  const fetch: Fetch = async (plan) => {
    const name = `${plan.stock} ${plan.seconds.toFixed(6)}`;
    const picture =
      held.get(name) ??
      drawn(
        project.stock.find((item) => item.id === plan.stock)!,
        plan.seconds,
        reduction,
      );
    if (held.size > 40) held.clear();
    held.set(name, picture);
    return picture;
  };
  return new WasmExecutor(kernels, arena, fetch);
}

/** Frames of a shot as straight RGBA, made smaller by a whole factor as means of blocks. */
export async function framesOf(
  project: Project,
  shot: ShotId,
  frames: readonly number[],
  reduction: Reduction,
  smaller: number,
): Promise<Uint8Array[]> {
  const executor = await standInExecutor(project, reduction);
  const out: Uint8Array[] = [];
  for (const frame of frames) {
    const problems: { sentence: string }[] = [];
    const picture = await executor.frame(planFrame(project, shot, frame, { reduction }), 'last', problems as never);
    if (problems.length) throw new Error(problems[0]!.sentence);
    out.push(shrunk(bytesOf(executor, picture), picture.rect.w, picture.rect.h, smaller));
    picture.release();
  }
  return out;
}

function shrunk(data: Uint8ClampedArray, width: number, height: number, by: number): Uint8Array {
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const out = new Uint8Array(w * h * 4);
  for (let i = 0; i < out.length; i++) {
    const [x, y, c] = [Math.floor(i / 4) % w, Math.floor(i / 4 / w), i % 4];
    let sum = 0;
    for (let v = 0; v < by; v++) for (let u = 0; u < by; u++) sum += data[((y * by + v) * width + x * by + u) * 4 + c]!;
    out[i] = Math.round(sum / by / by);
  }
  return out;
}
