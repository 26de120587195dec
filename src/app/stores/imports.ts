import { defineStore } from 'pinia';
import { ref } from 'vue';
import { addStock, relinkStock } from '../../core/document/edits/project';
import { stockIn } from '../../core/document/find';
import type { Stock, StockId } from '../../core/document/schema';
import { JackplaneError, sentenceOf } from '../../core/base/errors';
import { safeName, stockName } from '../../core/formats/names';
import { useEngine } from '../../engine/client';
import { newId } from '../base/ids';
import { storeMedia } from '../storage/media';
import { isDrawing, openDrawing } from './drawings';
import { isGradeFile, useGrades } from './grades';
import { useNotices } from './notices';
import { useProject } from './project';

export interface ImportJob {
  id: number;
  name: string;
  share: number;
  problem: string | null;
}

/** Largest file that is taken in. */
const MOST_BYTES = 4e9;

/** Files on their way into stock. */
export const useImports = defineStore('imports', () => {
  const store = useProject();
  const jobs = ref<ImportJob[]>([]);
  const cancelled = new Set<number>();
  let last = 0;

  /** Imports several files, one after the other. @param still of which frame they are pictures @returns what became stock */
  async function take(files: readonly File[], still?: Stock['still']): Promise<Stock[]> {
    if (store.readOnly) {
      useNotices().say(
        'This project is open in another tab, so nothing can be imported here. Close the other tab first.',
        'problem',
      );
      return [];
    }
    const grades = files.filter((file) => isGradeFile(file.name));
    if (grades.length) await useGrades().openFiles(grades);
    const drawings = files.filter((file) => isDrawing(file.name));
    for (const file of drawings) await openDrawing(file);
    const media = files.filter((file) => !grades.includes(file) && !drawings.includes(file));
    const queue = media.map((file) => ({
      file,
      job: { id: ++last, name: file.name, share: 0, problem: null } as ImportJob,
    }));
    jobs.value.push(...queue.map((entry) => entry.job));
    const out: Stock[] = [];
    for (const { file, job } of queue) {
      const stock = await attempt(file, job.id, still);
      if (stock) out.push(stock);
    }
    return out;
  }

  async function attempt(file: File, id: number, still?: Stock['still'], replaces?: StockId): Promise<Stock | null> {
    const update = (change: Partial<ImportJob>) => {
      jobs.value = jobs.value.map((job) => (job.id === id ? { ...job, ...change } : job));
    };
    const gone = () => cancelled.has(id);
    try {
      if (gone()) return null;
      if (file.size > MOST_BYTES)
        throw new JackplaneError(
          'unsupported',
          `“${file.name}” is ${(file.size / 1e9).toFixed(1)} GB, more than the ${MOST_BYTES / 1e9} GB that Jackplane takes in.`,
          'Cut out the part you need first.',
        );
      const engine = await useEngine();
      const { kind, facts, poster, peaks } = await engine.probe(file, (share) => update({ share }));
      if (gone()) return null;
      const project = store.current();
      const before = replaces && stockIn(project, replaces);
      // a layer cannot show a font, nor a title be set in a clip
      if (before && (before.kind === 'font') !== (kind === 'font'))
        throw new JackplaneError(
          'bad-value',
          `“${file.name}” cannot stand for ${before.name}: only one of them is a font.`,
          'Import it by itself.',
        );
      const stockId = replaces ?? newId<StockId>();
      const record = { project: project.id, stock: stockId, file, poster, peaks };
      await storeMedia(record, file.name);
      update({ share: 0.9 });
      await engine.replaceStock(stockId, file, file.name);
      engine.cache.clear();
      store.addMedia(record);
      const stock: Stock = {
        id: stockId,
        name: stockName(file.name),
        file: safeName(file.name),
        kind,
        facts,
        line: [],
        ...(still && { still }),
      };
      store.edit(replaces ? relinkStock(project, replaces, { file: stock.file, kind, facts }) : addStock(stock));
      jobs.value = jobs.value.filter((job) => job.id !== id);
      return stock;
    } catch (error) {
      update({ problem: sentenceOf(error) });
      return null;
    }
  }

  /** Gives a stock item with missing media its file again. */
  async function relink(stock: StockId, file: File): Promise<void> {
    const id = ++last;
    jobs.value.push({ id, name: file.name, share: 0, problem: null });
    await attempt(file, id, undefined, stock);
  }

  function dismiss(id: number): void {
    cancelled.add(id);
    jobs.value = jobs.value.filter((job) => job.id !== id);
  }

  return { jobs, take, relink, dismiss };
});
