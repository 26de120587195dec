import { addDrawing } from '../../core/document/edits/figures';
import { MOST_MASKS } from '../../core/document/mask';
import type { LayerId, ShotId } from '../../core/document/schema';
import { JackplaneError } from '../../core/base/errors';
import { safeName, stockName } from '../../core/formats/names';
import { piecesOf, writeDrawing } from '../../core/formats/svg-drawing';
import { momentOf } from '../../core/place/moment';
import { figureOf } from '../../core/plan/figure';
import { newId } from '../base/ids';
import { readSvg } from '../base/svg';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { useNotices } from './notices';
import { useProject } from './project';
import { download } from './renders';
import { useSelection } from './selection';

export const isDrawing = (name: string): boolean => /\.svg$/i.test(name);

/** How much of the shot a drawing of another size takes. */
const FITTED = 2 / 3;

/** Puts what an SVG file draws on the stack: a shape, or a group of them. */
export async function openDrawing(file: File): Promise<void> {
  const bench = useBench();
  const store = useProject();
  const notices = useNotices();
  try {
    const { shot } = bench;
    if (!shot)
      throw new JackplaneError('bad-value', `“${file.name}” becomes layers of a shot.`, 'Make or open a shot first.');
    const { view, elements, ignored } = await readSvg(file);
    const [x, y, w, h] = view ?? [0, 0, shot.width, shot.height];
    const same = w === shot.width && h === shot.height;
    const scale = same ? 1 : FITTED * Math.min(shot.width / w, shot.height / h);
    const pieces = piecesOf(elements, `scale(${scale}) translate(${-x - w / 2} ${-y - h / 2})`, MOST_MASKS);
    if (!pieces.length)
      throw new JackplaneError(
        'bad-media',
        `“${file.name}” has no shapes with a fill or an outline.`,
        'Turn its contents into paths and save it again.',
      );
    const ids = { shot: newId<ShotId>(), layer: newId<LayerId>() };
    const before = new Set(shot.layers.map(({ id }) => id));
    store.edit(addDrawing(store.current(), shot.id, pieces, stockName(file.name), ids, newId));
    const made = bench.shot!.layers.find(({ id }) => !before.has(id));
    if (made) bench.choose(made.id, 'source');
    const left = ignored.length ? ` Left out: ${ignored.join(', ')}.` : '';
    notices.say(
      `“${stockName(file.name)}” is on the stack, ${pieces.length === 1 ? 'a shape' : `a group of ${pieces.length} shapes`}.${left}`,
    );
  } catch (error) {
    notices.problem(error);
  }
}

/** Saves the chosen shapes as they stand at the playhead. */
export function saveDrawing(): void {
  const bench = useBench();
  const playhead = usePlayhead();
  const notices = useNotices();
  const { shot } = bench;
  if (!shot) return;
  const chosen = useSelection().layers;
  const layers = shot.layers.filter(({ id, source }) => chosen.includes(id) && source.type === 'shape').reverse();
  const figures = layers.map((layer) => figureOf(momentOf(useProject().current(), shot, layer, playhead.frame, 1)));
  if (!figures.length)
    return notices.say('None of the chosen layers is a shape; only those can be written as SVG.', 'problem');
  const svg = writeDrawing({ w: shot.width, h: shot.height }, figures);
  download(new Blob([svg], { type: 'image/svg+xml' }), safeName(`${layers.at(-1)!.name}.svg`));
}
