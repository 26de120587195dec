import { JackplaneError } from '../../core/base/errors';
import { setPassValue, setPassValues } from '../../core/document/edits/passes';
import type { PassId } from '../../core/document/schema';
import { readCube, writeCube } from '../../core/formats/cube';
import { safeName } from '../../core/formats/names';
import { keepTable } from '../../core/params/table';
import { passOf, titleOf } from '../../core/passes/registry';
import { planPasses } from '../../core/plan/passes';
import { useEngine } from '../../engine/client';
import { usePlayhead } from './playhead';
import { useEdits } from './edits';
import { useBench } from './bench';
import { useNotices } from './notices';
import { download } from './renders';

const MOST_BYTES = 60e6;
/** Sides of the tables that a grade is saved as. */
export const TABLE_SIZES = [17, 33, 65] as const;

export async function textOf(file: File): Promise<string> {
  if (file.size > MOST_BYTES)
    throw new JackplaneError(
      'unsupported',
      `“${file.name}” is larger than ${MOST_BYTES / 1e6} MB.`,
      'Choose a smaller table.',
    );
  return file.text();
}

/** Grades to files and from them. */
export function useGradeFiles() {
  const [bench, notices] = [useBench(), useNotices()];
  const playhead = usePlayhead();
  const edits = useEdits();
  const said = async (work: () => unknown): Promise<void> => {
    try {
      await work();
    } catch (error) {
      notices.problem(error);
    }
  };

  /** A .cube file as the table of a pass. */
  const openTable = (id: PassId, name: string, file: File): Promise<void> =>
    said(async () => {
      const read = readCube(await textOf(file), file.name);
      const kept = keepTable({ ...read, title: read.title || file.name.replace(/\.cube$/i, '') });
      edits.editLayer((project, at) => setPassValue(project, at, id, name, kept));
    });

  /** The values of a pass from a file that can hold them. */
  const openValues = (id: PassId, file: File): Promise<void> =>
    said(async () => {
      const type = bench.line.find((pass) => pass.id === id)?.type;
      const files = type && passOf(type)?.files;
      if (!files) return;
      const [first, ...more] = files.read(await textOf(file), file.name);
      edits.editLayer((project, at) =>
        setPassValues(project, at, id, first!.values as Record<string, unknown>, `from ${file.name}`),
      );
      if (more.length)
        notices.say(`“${file.name}” holds ${more.length + 1} corrections; the first one, “${first!.name}”, was taken.`);
    });

  /** What a layer's grading passes make of every colour, as a .cube file. What looks at more than a pixel is left out, and said. */
  const saveTable = (size: (typeof TABLE_SIZES)[number]): Promise<void> =>
    said(async () => {
      const { layer, size: picture } = bench;
      if (!layer || !picture) return;
      const grades = layer.passes.filter((pass) => pass.on && passOf(pass.type)?.group === 'grade');
      const held = grades.filter(
        (pass) => !pass.area?.masks.length && passOf(pass.type)?.byColour !== false && 'prepare' in passOf(pass.type)!,
      );
      const left = grades.filter((pass) => !held.includes(pass)).map((pass) => titleOf(pass.type));
      if (!held.length)
        throw new JackplaneError(
          'bad-value',
          `${layer.name} has no grade that a table can hold.`,
          'Add Tone, Wheels, Colour or another pass that grades each pixel by its colour alone.',
        );
      const passes = planPasses(playhead.moment, held, picture, '');
      const table = await (await useEngine()).measure(null, 'gradeTable', { passes, size, title: layer.name });
      download(new Blob([writeCube(table)], { type: 'text/plain' }), safeName(`${layer.name} ${size}.cube`));
      if (left.length)
        notices.say(`Left out, since a table holds what becomes of a colour and nothing else: ${left.join(', ')}.`);
    });

  /** The chosen pass's values as a file. */
  const saveValues = (ending: string): Promise<void> =>
    said(() => {
      const { pass, layer } = bench;
      const write = pass && passOf(pass.type)?.files?.writes[ending];
      const [plan] = pass ? planPasses(playhead.moment, [{ ...pass, on: true }], bench.size!, '') : [];
      if (!write || !plan) return;
      download(
        new Blob([write(plan.values as never, layer!.name)], { type: 'application/xml' }),
        safeName(`${layer!.name}${ending}`),
      );
    });

  return { openTable, openValues, saveTable, saveValues };
}
