import type { DrawnMatte } from '../../../masks/matte-data';
import type { StockId } from '../../../document/schema';
import type { Arena } from '../../../picture/arena';
import type { Kernels } from '../../../picture/kernels';
import type { Picture } from '../../../picture/picture';
import { EMPTY_LINE } from '../../../text/fonts';
import type { Fetch } from '../../backend';
import { Executor } from '../../execute';
import { WasmBackend } from './backend';
import { MaskStore, type Outline } from './masks';
import { PlateStore } from './plates';

/** An executor on the kernels. */
export class WasmExecutor extends Executor<Picture> {
  declare readonly backend: WasmBackend;

  /** @param outline sets lines of text @param matteOf finds drawn mattes and tables by their names */
  constructor(
    readonly kernels: Kernels,
    readonly arena: Arena,
    fetch: Fetch,
    outline: Outline = () => Promise.resolve(EMPTY_LINE),
    matteOf?: (id: string) => DrawnMatte | undefined,
  ) {
    const tools = { kernels, arena };
    const frameOf = ({ stock, name, file }: { stock: string; name: string; file: string }, seconds: number) =>
      fetch({ kind: 'stock', stock: stock as StockId, name, file, seconds });
    const masks = new MaskStore(tools, (shape) => frameOf(shape, shape.seconds), outline, matteOf);
    super(new WasmBackend(kernels, arena, masks, new PlateStore(tools, frameOf)), fetch);
  }
}
