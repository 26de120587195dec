import { readFileSync } from 'node:fs';
import { Arena } from '../picture/arena';
import { bindKernels, type Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';
import type { Rect } from '../picture/rect';

export interface TestBench {
  arena: Arena;
  kernels: Kernels;
}

/** Kernels and memory for tests and measurements in Node. */
export async function testBench(limit = 512e6): Promise<TestBench> {
  const module = await WebAssembly.compile(readFileSync(new URL('../../../build/kernels.wasm', import.meta.url)));
  const arena = new Arena(limit);
  return { arena, kernels: await bindKernels(module, arena) };
}

/** A picture from premultiplied floats, four a pixel. */
export function pictureOf({ arena }: TestBench, rect: Rect, values: ArrayLike<number>): Picture {
  const picture = Picture.make(arena, rect);
  arena.floats(picture.at, values.length).set(values);
  return picture;
}

/** A copy of a picture's floats. */
export const floatsOf = ({ arena }: TestBench, picture: Picture): Float32Array => arena.floats(picture.at, picture.pixels * 4).slice();
