import { defineStore } from 'pinia';
import { computed } from 'vue';
import { layerJigOf, layerJigs, putLayerJig } from '../../core/document/edits/layer-jigs';
import { addJig, removeJig, renameJig, setJigDials } from '../../core/document/edits/jigs';
import { partJigOf, partJigs, putPartJig } from '../../core/document/edits/part-jigs';
import { freeName } from '../../core/document/edits/time';
import type { DialledJig, Jig, JigDial, LayerPart } from '../../core/document/schema';
import { JIG_ENDING, readDialledJig, writeDialledJig } from '../../core/formats/jig';
import { safeName } from '../../core/formats/names';
import { newId } from '../base/ids';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { textOf } from './grade-files';
import { useNotices } from './notices';
import { useProject } from './project';
import { download } from './renders';
import { useSelection } from './selection';

/** Made layers, and what was done to a layer, kept to be used again: in the project, and in files. */
export const useJigs = defineStore('jigs', () => {
  const [bench, store, notices, selection] = [useBench(), useProject(), useNotices(), useSelection()];
  const playhead = usePlayhead();
  const ofLayers = computed(() => (store.project ? layerJigs(store.project) : []));
  const ofParts = computed(() => (store.project ? partJigs(store.project) : []));
  const all = computed<DialledJig[]>(() => [...ofLayers.value, ...ofParts.value]);
  const nameFor = (wanted: string): string => freeName(wanted, all.value);

  /** Keeps what is made of the project and says how it is used. */
  function keepJig(make: () => Jig, use: string): void {
    try {
      const jig = make();
      store.edit(addJig(jig));
      notices.say(`${jig.name} is one of the project’s jigs now; ${use}`);
    } catch (error) {
      notices.problem(error);
    }
  }
  /** Keeps the chosen layers. */
  function keep(): void {
    const { shot, layer } = bench;
    if (shot && layer)
      keepJig(
        () => layerJigOf(store.current(), shot.id, selection.layers, nameFor(layer.name), newId()),
        'it is put in from below the stock, or by the search.',
      );
  }
  /** Keeps parts of the chosen layer. */
  function keepParts(parts: ReadonlySet<LayerPart>): void {
    const { at } = playhead;
    const { layer } = bench;
    if (at && layer)
      keepJig(
        () => partJigOf(store.current(), at, parts, { id: newId(), name: nameFor(layer.name) }),
        'it is put on chosen layers by Layer, Jigs, or by the search.',
      );
  }
  /** Puts layers in, from a frame on, and opens their text; or does to the chosen layers what was kept. */
  function use(jig: DialledJig, from = playhead.frame): void {
    const { shot } = bench;
    if (!shot) return;
    if (jig.kind === 'parts')
      return store.edit(putPartJig(store.current(), shot.id, [...selection.layers], jig, newId));
    selection.choosingText(() => store.edit(putLayerJig(store.current(), shot.id, from, jig, newId)));
  }
  const setDials = (id: string, dials: readonly JigDial[]): void => store.edit(setJigDials(id, dials));
  const remove = (id: string): void => store.edit(removeJig(store.current(), id));
  function rename(id: string, text: string): void {
    const name = text.trim();
    if (name) store.edit(renameJig(id, name));
  }
  const save = (jig: DialledJig): void =>
    download(new Blob([writeDialledJig(jig)], { type: 'application/json' }), safeName(`${jig.name}${JIG_ENDING}`));
  async function openFiles(files: readonly File[]): Promise<void> {
    for (const file of files) {
      try {
        const jig = readDialledJig(await textOf(file), file.name, newId());
        store.edit(addJig({ ...jig, name: nameFor(jig.name) }));
      } catch (error) {
        notices.problem(error);
      }
    }
  }
  return { all, ofLayers, ofParts, keep, keepParts, use, setDials, rename, remove, save, openFiles };
});
