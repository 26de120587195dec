import { writeDrawing } from '../../core/formats/svg-drawing';
import { pathData, pathsOf } from '../../core/formats/svg-path';
import { readJig, writeJig, JIG_ENDING } from '../../core/formats/jig';
import { encodePng } from '../../core/formats/png';
import { safeName, stockName } from '../../core/formats/names';
import { checkHeader } from '../../core/formats/picture-size';
import { JackplaneError } from '../../core/base/errors';
import { pasteMasks } from '../../core/document/edits/masks';
import { MASK_COLOURS, MOST_MASKS, newMask, type MaskId } from '../../core/document/mask';
import { still } from '../../core/base/value';
import { packMatte } from '../../core/masks/matte-data';
import type { Vertex } from '../../core/masks/path';
import { planCoverage } from '../../core/plan/masks';
import { steadyAt } from '../../core/time/values';
import { useEngine } from '../../engine/client';
import { newId } from '../base/ids';
import { readSvg } from '../base/svg';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { usePlayhead } from '../stores/playhead';
import { useMasking } from '../stores/masking';
import { useNotices } from '../stores/notices';
import { download } from '../stores/renders';

const MOST_BYTES = 20e6;

/** Masks to files and from them: SVG paths, PNG mattes, jigs. */
export function useMaskFiles() {
  const bench = useBench();
  const edits = useEdits();
  const playhead = usePlayhead();
  const masking = useMasking();
  const notices = useNotices();

  const named = (ending: string): string => safeName(`${bench.layer!.name} masks${ending}`);
  const said = async (work: () => unknown): Promise<void> => {
    try {
      await work();
    } catch (error) {
      notices.problem(error);
    }
  };
  async function textOf(file: File): Promise<string> {
    if (file.size > MOST_BYTES)
      throw new JackplaneError(
        'unsupported',
        `“${file.name}” is larger than ${MOST_BYTES / 1e6} MB.`,
        'Simplify the drawing.',
      );
    return file.text();
  }

  function saveSvg(): void {
    const { w, h } = bench.size!;
    const paths = masking.masks.flatMap(({ shape, name }) =>
      shape.kind === 'path' ? [{ name, d: pathData(steadyAt(shape.path, masking.frame) as readonly Vertex[]) }] : [],
    );
    if (!paths.length)
      return notices.say(`${bench.layer!.name} has no paths; only those can be written as SVG.`, 'problem');
    const figures = paths.map((path) => ({
      ...path,
      ...{ fill: [0, 0, 0] as const, line: null, opacity: 1, evenOdd: false, matrix: [1, 0, 0, 1, 0, 0] as const },
    }));
    const svg = writeDrawing({ w, h }, figures);
    download(new Blob([svg], { type: 'image/svg+xml' }), named('.svg'));
  }

  /** All that a drawing encloses; its view box is laid over the source. */
  const openSvg = (file: File): Promise<void> =>
    said(async () => {
      const { view, elements } = await readSvg(file);
      const { w, h } = bench.size!;
      const [x, y, wide, tall] = view ?? [0, 0, w, h];
      const fit = `translate(${-w / 2} ${-h / 2}) scale(${w / wide} ${h / tall}) translate(${-x} ${-y})`;
      const found = elements.flatMap(({ d, transform, name }) =>
        pathsOf(d, `${fit} ${transform}`).map((path) => ({ path, name })),
      );
      if (!found.length)
        throw new JackplaneError(
          'bad-media',
          `“${file.name}” has no closed paths with three or more points.`,
          'Turn its shapes into paths and save it again.',
        );
      const room = MOST_MASKS - masking.masks.length;
      if (found.length > room)
        throw new JackplaneError(
          'unsupported',
          `“${file.name}” has ${found.length} closed paths; ${bench.layer!.name} can have ${room} more masks.`,
          'Join its paths, or leave out those that are not needed.',
        );
      const masks = found.map(({ path, name }, i) =>
        newMask(
          newId<MaskId>(),
          name.slice(0, 200),
          { kind: 'path', closed: true, path: still(path as never) },
          MASK_COLOURS[i % MASK_COLOURS.length]!,
        ),
      );
      edits.editLayer((_, at) => pasteMasks(at, masks, newId));
      masking.open = true;
    });

  async function savePng(): Promise<void> {
    await said(async () => {
      const plan = planCoverage(
        { ...playhead.moment, frame: masking.frame },
        masking.masks.map((mask) => mask.id),
        bench.size!,
      );
      const { w, h, values } = await (await useEngine()).measure(null, 'coverage', plan);
      const pixels = new Uint8ClampedArray(w * h * 4);
      values.forEach((v, i) => pixels.set([v, v, v, 255], i * 4));
      download(new Blob([encodePng(pixels, w, h)], { type: 'image/png' }), named('.png'));
    });
  }
  /** A picture's brightness times its alpha as a drawn matte. */
  const openPng = (file: File): Promise<void> =>
    said(async () => {
      await checkHeader(file, file.name);
      const bitmap = await createImageBitmap(file).catch(() => {
        throw new JackplaneError('bad-media', `“${file.name}” could not be read as a picture.`, 'Choose a PNG file.');
      });
      const { width, height } = bitmap;
      const context = new OffscreenCanvas(width, height).getContext('2d')!;
      context.drawImage(bitmap, 0, 0);
      bitmap.close();
      const { data } = context.getImageData(0, 0, width, height);
      const values = Uint8Array.from(
        { length: width * height },
        (_, i) =>
          ((0.2126 * data[i * 4]! + 0.7152 * data[i * 4 + 1]! + 0.0722 * data[i * 4 + 2]!) * data[i * 4 + 3]!) / 255 +
          0.5,
      );
      masking.addMatte(
        packMatte(values, width, height),
        stockName(file.name),
        'Import it as stock and use it as a picture mask.',
      );
    });

  const saveJig = (): void =>
    download(
      new Blob([writeJig(`${bench.layer!.name} masks`, masking.masks)], { type: 'application/json' }),
      named(JIG_ENDING),
    );
  const openJig = (file: File): Promise<void> =>
    said(async () => {
      const jig = readJig(await textOf(file), file.name);
      edits.editLayer((_, at) => pasteMasks(at, jig.masks, newId));
      masking.open = true;
    });

  return { saveSvg, openSvg, savePng, openPng, saveJig, openJig };
}
