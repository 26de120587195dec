// Draws docs/passes: a sheet for each group of passes, on which every pass and each of its further uses is seen as it begins.
import { bytesOf } from '../src/core/picture/bytes';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { still } from '../src/core/base/value';
import { newSource, stockSource } from '../src/core/document/edits/layers';
import { newPass } from '../src/core/document/edits/passes';
import type { Layer, PassId, StockId } from '../src/core/document/schema';
import { WasmExecutor } from '../src/core/execute/backends/wasm/executor';
import { OFFERED, type Offered } from '../src/core/passes/registry';
import { planFrame } from '../src/core/plan/plan';
import { testRig } from '../src/core/testing/rig';
import { clipStock, layerOf, projectOf, SHOT } from '../src/core/testing/documents';

const FOLDER = join(import.meta.dirname, '../docs/passes');
const MEDIA = join(import.meta.dirname, '../demo/media');
const FULL = { width: 1280, height: 720 };
const [WIDE, TALL, LABEL, COLUMNS] = [240, 135, 22, 4];
/** The sky of the tower, as picking it gives. */
const SKY = [0.71, 0.84, 0.93];
/** Further values without which nothing is to be seen here: a picked screen, a tilted line. */
const SHOWN: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  'colour-key': { screen: [SKY] },
  'brightness-key': { invert: false },
};

async function pixels(file: string) {
  const { data, info } = await sharp(join(MEDIA, file)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data: new Uint8ClampedArray(data), width: info.width, height: info.height };
}
const tower = await pixels('signal-tower-still.webp');
const kite = await pixels('paper-kite.png');
const { kernels, arena } = await testRig(2e9);
const executor = new WasmExecutor(kernels, arena, ({ stock }) => Promise.resolve(stock === 'kite' ? kite : tower));

const ground = (): Layer => layerOf('ground', newSource('gradient', { size: [1280, 720] }));
/** What is cut out or gives light is seen on something; what shows other moments has something that moves; the rest is on the picture itself. */
function layersFor({ pass, values }: Offered): Layer[] {
  const size = { w: tower.width, h: tower.height };
  const own = newPass('p' as PassId, pass.type, size, { ...SHOWN[pass.type], ...values });
  const photo = layerOf('photo', stockSource('tower' as StockId));
  const moves = pass.group === 'time' || pass.space === 'shot' || pass.type === 'outline';
  if (!moves) return [{ ...photo, passes: [own] }, ground()];
  const flying = layerOf('kite', stockSource('kite' as StockId), { passes: [{ ...own, space: 'shot' }] });
  flying.place.scale = still([0.7, 0.7]);
  flying.place.position = {
    keys: [
      { at: 0, value: [-420, 60], ease: 'linear' },
      { at: 47, value: [420, -60], ease: 'linear' },
    ],
  };
  return [flying, photo];
}
async function tile(offered: Offered): Promise<Buffer> {
  const stock = (id: string, of: { width: number; height: number }) => {
    const item = clipStock(id);
    return { ...item, kind: 'image' as const, facts: { ...item.facts, width: of.width, height: of.height } };
  };
  const project = { ...projectOf([], FULL), stock: [stock('tower', tower), stock('kite', kite)] };
  const shot = { ...project.shots[0]!, layers: layersFor(offered), length: 48 };
  const plan = planFrame({ ...project, shots: [shot] }, SHOT, 30, { reduction: 2 });
  const problems: { sentence: string }[] = [];
  const picture = await executor.frame(plan, 'last', problems as never);
  if (problems.length) throw new Error(`${offered.title}: ${problems[0]!.sentence}`);
  const { w, h } = picture.rect;
  const bytes = bytesOf(executor, picture);
  picture.release();
  return sharp(bytes, { raw: { width: w, height: h, channels: 4 } })
    .resize(WIDE, TALL)
    .png()
    .toBuffer();
}
const escaped = (text: string): string => text.replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`);
const label = (text: string): Buffer =>
  Buffer.from(
    `<svg width="${WIDE}" height="${LABEL}"><text x="2" y="16" font-family="sans-serif" font-size="13" fill="#e6e1d6">${escaped(text)}</text></svg>`,
  );

await mkdir(FOLDER, { recursive: true });
for (const group of new Set(OFFERED.map(({ pass }) => pass.group))) {
  const offers = OFFERED.filter(({ pass }) => pass.group === group);
  const parts = await Promise.all(
    offers.map(async (offered, i) => {
      const [left, top] = [(i % COLUMNS) * (WIDE + 8), Math.floor(i / COLUMNS) * (TALL + LABEL + 6)];
      return [
        { input: await tile(offered), left, top },
        { input: label(offered.title), left, top: top + TALL },
      ];
    }),
  );
  const rows = Math.ceil(offers.length / COLUMNS);
  await sharp({
    create: {
      width: COLUMNS * (WIDE + 8) - 8,
      height: rows * (TALL + LABEL + 6),
      channels: 3,
      background: '#1f1f1f',
    },
  })
    .composite(parts.flat())
    .webp({ quality: 82 })
    .toFile(join(FOLDER, `${group.replaceAll(' ', '-')}.webp`));
}
console.log('docs/passes is drawn.');
