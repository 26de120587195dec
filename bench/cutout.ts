// Cutting out, measured: the key of one 720p frame, the model of its screen, a smart selection, and dragging a path.
import sharp from 'sharp';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { TOWER_STROKES } from '../demo/strokes';
import { modelScreen } from '../src/core/analysis/screen-model';
import { select } from '../src/core/analysis/select';
import { toLinear } from '../src/core/picture/light';
import { Picture } from '../src/core/picture/picture';
import { runPass, testRig } from '../src/core/testing/rig';
import { onePick, pickedKey, truthFrames } from '../src/core/testing/key-truth';
import { openShot, picture } from '../tests/helpers';
import { median, type Row } from './kernels';

const DEMO = join(import.meta.dirname, '../demo');

export async function cutoutRows(): Promise<Row[]> {
  return [...(await keyRows()), ...(await selectionRows())];
}

async function keyRows(): Promise<Row[]> {
  const bench = await testRig(512e6);
  const { arena, kernels } = bench;
  const [truth] = await truthFrames('uneven', 1);
  const { width: w, height: h, frame } = truth!;
  const pick = onePick(truth!);
  const plate = Picture.make(arena, { x: 0, y: 0, w, h });
  arena.scratch(w * h * 4, (at) => {
    arena.bytes(at, w * h * 4).set(frame);
    kernels.widen(at, plate.at, w * h);
  });
  const model = await median(() => modelScreen(bench, plate, 1, [pick.map(toLinear) as [number, number, number]]), 15);
  const values = pickedKey(bench, truth!, [pick]);
  const whole = await median(() => runPass(bench, 'colour-key', values, plate.retain()).release(), 15);
  const key = whole - model;
  return [
    { what: 'model of the screen, one 720p frame', goal: '≤ 150 ms', got: `${model.toFixed(0)} ms`, met: model <= 150 },
    {
      what: 'a new colour key after one pick, one 720p frame, the model apart',
      goal: '≤ 35 ms',
      got: `${key.toFixed(0)} ms`,
      met: key <= 35,
    },
  ];
}

async function selectionRows(): Promise<Row[]> {
  const { data, info } = await sharp(join(DEMO, 'media/signal-tower-still.webp'))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const truth = await sharp(join(DEMO, 'truth/tower/matte.png')).extractChannel(0).raw().toBuffer();
  const pixels = { w: info.width, h: info.height, data };
  const time = await median(() => select(pixels, TOWER_STROKES), 5);
  const { matte } = select(pixels, TOWER_STROKES);
  const error = matte.reduce((sum, v, i) => sum + Math.abs(v - truth[i]!), 0) / matte.length / 255;
  return [
    {
      what: 'smart selection of the signal tower after three strokes: mean error',
      goal: '≤ 0.02',
      got: error.toFixed(4),
      met: error <= 0.02,
    },
    { what: 'smart selection of one 720p frame', goal: '≤ 500 ms', got: `${time.toFixed(0)} ms`, met: time <= 500 },
  ];
}

/** Dragging a vertex of the crane's arm in the title card: event → picture. */
export async function pathRow(page: Page): Promise<Row> {
  await openShot(page, 'Title card');
  await page
    .getByRole('group', { name: 'Layer crane arm', exact: true })
    .getByRole('button', { name: 'crane arm', exact: true })
    .click();
  await page.keyboard.press('a');
  const vertex = (await page.getByRole('button', { name: 'Vertex 4 of 8' }).boundingBox())!;
  const at = { x: vertex.x + vertex.width / 2, y: vertex.y + vertex.height / 2 };
  await picture(page).waitFor();
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  const times: number[] = [];
  for (let i = 0; i < 25; i++) {
    times.push(
      await page.evaluate(
        ([x, y]) =>
          new Promise<number>((done) => {
            const observer = new MutationObserver(() => {
              observer.disconnect();
              done(performance.now() - begin);
            });
            observer.observe(document.querySelector('canvas[role=img]')!, {
              attributes: true,
              attributeFilter: ['data-drawn'],
            });
            const begin = performance.now();
            window.dispatchEvent(
              new PointerEvent('pointermove', { pointerId: 1, clientX: x!, clientY: y!, buttons: 1, ctrlKey: true }),
            );
          }),
        [at.x + 4 + (i % 7) * 3, at.y + 4 + (i % 5) * 3],
      ),
    );
  }
  await page.mouse.up();
  const drag = times.slice(3).sort((a, b) => a - b)[Math.floor((times.length - 3) / 2)]!;
  return {
    what: 'a vertex of a path dragged, Title card at 720p: event → new picture, median',
    goal: '≤ 80 ms',
    got: `${drag.toFixed(0)} ms`,
    met: drag <= 80,
  };
}
