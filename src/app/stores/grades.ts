import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { JackplaneError } from '../../core/base/errors';
import { addGrade, addJig, copiesOf, gradeJigs, gradeOf, removeJig } from '../../core/document/edits/jigs';
import { freeName } from '../../core/document/edits/time';
import { newPass } from '../../core/document/edits/passes';
import type { GradeJig, Pass, PassId } from '../../core/document/schema';
import { readCube } from '../../core/formats/cube';
import { JIG_ENDING, readGradeJig, writeGradeJig } from '../../core/formats/jig';
import { safeName, stockName } from '../../core/formats/names';
import { keepTable } from '../../core/params/table';
import type { GradeLook } from '../../core/passes/grade/looks';
import { PASSES } from '../../core/passes/registry';
import { newId } from '../base/ids';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { textOf } from './grade-files';
import { useNotices } from './notices';
import { useProject } from './project';
import { download } from './renders';

/** Endings of files that hold a grade. */
const TABLES = ['.cube'];
const LISTS = PASSES.flatMap((pass) => (pass.files ? pass.files.reads.map((ending) => ({ ending, pass })) : []));
export const GRADE_ENDINGS = [JIG_ENDING, ...TABLES, ...LISTS.map(({ ending }) => ending)];
export const isGradeFile = (name: string): boolean =>
  GRADE_ENDINGS.some((ending) => name.toLowerCase().endsWith(ending));

/** Every grade in a file: a jig, a table, or decision lists. */
function gradesIn(text: string, file: string): { name: string; passes: Pass[] }[] {
  const lower = file.toLowerCase();
  if (lower.endsWith('.json')) return [readGradeJig(text, file)];
  if (lower.endsWith('.cube')) {
    const read = readCube(text, file);
    const title = read.title || stockName(file);
    return [
      { name: title, passes: [newPass(newId<PassId>(), 'table', null, { table: keepTable({ ...read, title }) })] },
    ];
  }
  const list = LISTS.find(({ ending }) => lower.endsWith(ending));
  if (!list)
    throw new JackplaneError('unsupported', `“${file}” holds no grade.`, `Choose ${GRADE_ENDINGS.join(', ')}.`);
  return list.pass
    .files!.read(text, file)
    .map(({ name, values }) => ({ name, passes: [newPass(newId<PassId>(), list.pass.type, null, values)] }));
}

/** Grades on their way between layers, shots, the project's own looks and files. */
export const useGrades = defineStore('grades', () => {
  const [bench, store, notices] = [useBench(), useProject(), useNotices()];
  const playhead = usePlayhead();
  const clipboard = shallowRef<{ name: string; passes: readonly Pass[] } | null>(null);
  const jigs = computed(() => (store.project ? gradeJigs(store.project) : []));
  function said(work: () => void): void {
    try {
      work();
    } catch (error) {
      notices.problem(error);
    }
  }

  /** What a look is made of, for the chosen layer. */
  const lookPasses = ({ passes }: GradeLook): Pass[] =>
    passes.map(([type, values]) => newPass(newId<PassId>(), type, bench.size, values));

  /** Puts a grade on the chosen layer, as ordinary passes. */
  function use(name: string, passes: readonly Pass[]): void {
    const { at } = playhead;
    const { layer } = bench;
    if (!at || !layer || layer.locked || store.readOnly) return;
    const own = copiesOf(passes, newId);
    store.edit(addGrade(store.current(), at, layer, own, name));
    bench.show(own[0]!.id);
  }
  const copy = (): void =>
    said(() => {
      const { layer } = bench;
      if (!layer) return;
      clipboard.value = { name: layer.name, passes: gradeOf(layer) };
      notices.say(`Copied the grade of ${layer.name}. Choose another layer, in any shot, and paste it there.`);
    });
  const paste = (): void =>
    void (clipboard.value && use(`Paste the grade of ${clipboard.value.name}`, clipboard.value.passes));

  function keep(title: string, passes: readonly Pass[]): void {
    store.edit(
      addJig({ id: newId(), kind: 'grade', name: freeName(title, jigs.value), passes: copiesOf(passes, newId) }),
    );
  }
  /** The chosen layer's grade becomes one of the project's looks. */
  const save = (): void => said(() => bench.layer && keep(bench.layer.name, gradeOf(bench.layer)));
  const remove = (id: string): void => store.edit(removeJig(store.current(), id));
  const saveFile = ({ name, passes }: GradeJig): void =>
    download(new Blob([writeGradeJig(name, passes)], { type: 'application/json' }), safeName(`${name}${JIG_ENDING}`));
  /** Files become looks of the project. */
  async function openFiles(files: readonly File[]): Promise<void> {
    for (const file of files) {
      try {
        const grades = gradesIn(await textOf(file), file.name);
        grades.forEach(({ name, passes }) => keep(name, passes));
        notices.say(
          grades.length === 1
            ? `“${file.name}” is among the project’s grades now, below the stock and in Layer, Looks.`
            : `“${file.name}” holds ${grades.length} corrections. They are among the project’s grades now, below the stock and in Layer, Looks.`,
        );
      } catch (error) {
        notices.problem(error);
      }
    }
  }

  return { clipboard, jigs, lookPasses, use, copy, paste, save, remove, saveFile, openFiles };
});
