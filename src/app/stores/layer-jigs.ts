import { defineStore } from 'pinia';
import { computed } from 'vue';
import { layerJigOf, layerJigs, putLayerJig } from '../../core/document/edits/layer-jigs';
import { addJig, removeJig, renameJig, setJigDials } from '../../core/document/edits/jigs';
import { freeName } from '../../core/document/edits/time';
import type { JigDial, LayerJig } from '../../core/document/schema';
import { JIG_ENDING, readLayerJig, writeLayerJig } from '../../core/formats/jig';
import { safeName } from '../../core/formats/names';
import { newId } from '../base/ids';
import { useBench } from './bench';
import { textOf } from './grade-files';
import { useNotices } from './notices';
import { useProject } from './project';
import { download } from './renders';
import { useSelection } from './selection';

/** Made layers that are kept to be used again: in the project, and in files. */
export const useLayerJigs = defineStore('layer jigs', () => {
  const [bench, store, notices, selection] = [useBench(), useProject(), useNotices(), useSelection()];
  const jigs = computed(() => (store.project ? layerJigs(store.project) : []));

  /** Keeps the chosen layers. */
  function keep(): void {
    const { shot, layer } = bench;
    if (!shot || !layer) return;
    try {
      const jig = layerJigOf(store.current(), shot.id, selection.layers, freeName(layer.name, jigs.value), newId());
      store.edit(addJig(jig));
      notices.say(`${jig.name} is one of the project’s jigs now; it is put in from below the stock, or by the search.`);
    } catch (error) {
      notices.problem(error);
    }
  }
  /** Puts one in, from a frame on, and opens its text. */
  function use(jig: LayerJig, from = bench.frame): void {
    const { shot } = bench;
    if (shot) selection.choosingText(() => store.edit(putLayerJig(store.current(), shot.id, from, jig, newId)));
  }
  const setDials = (id: string, dials: readonly JigDial[]): void => store.edit(setJigDials(id, [...dials]));
  const remove = (id: string): void => store.edit(removeJig(store.current(), id));
  function rename(id: string, text: string): void {
    const name = text.trim();
    if (name) store.edit(renameJig(id, name));
  }
  const save = (jig: LayerJig): void =>
    download(new Blob([writeLayerJig(jig)], { type: 'application/json' }), safeName(`${jig.name}${JIG_ENDING}`));
  async function openFiles(files: readonly File[]): Promise<void> {
    for (const file of files) {
      try {
        const jig = readLayerJig(await textOf(file), file.name);
        store.edit(addJig({ ...jig, id: newId(), kind: 'layers', name: freeName(jig.name, jigs.value) }));
      } catch (error) {
        notices.problem(error);
      }
    }
  }
  return { jigs, keep, use, setDials, rename, remove, save, openFiles };
});
