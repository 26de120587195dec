import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import type { Edit } from '../../core/document/edit';
import { freeMasks } from '../../core/document/edits/masks';
import { addPass, newPass, withoutMasks } from '../../core/document/edits/passes';
import type { LayerId, Pass, PassId, Project, ShotId } from '../../core/document/schema';
import { paramsOf, passOf, titleOf, type Offered } from '../../core/passes/registry';
import { newId } from '../base/ids';
import { useBench } from './bench';
import { useNotices } from './notices';
import { usePlayhead } from './playhead';
import { useProject } from './project';

/** Something that is only seen on the picture while it is highlighted: a pass, or what the layer would begin or end with. */
export type Tried = { pass: string; values?: Offered['values'] } | { transition: string | null };

/** Edits of the chosen layer and of its line. */
export const useEdits = defineStore('edits', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const store = useProject();
  /** a type of pass that is shown as if it were in the line, while it is looked at in the search */
  const tried = shallowRef<Tried | null>(null);

  /** Edits the chosen layer, unless it is locked. */
  function editLayer(
    make: (project: Project, at: { shot: ShotId; layer: LayerId; frame: number }) => Edit,
    gesture?: string,
  ): void {
    if (!bench.layer || bench.layer.locked) return;
    try {
      store.edit(make(store.current(), playhead.at), gesture);
    } catch (error) {
      useNotices().problem(error); // an edit that would make no sense says why
    }
  }

  /** Where a new pass goes: after the chosen one, at the end when none is chosen. */
  function nextPlace(): number {
    const passes = bench.layer?.passes ?? [];
    const index = passes.findIndex((item) => item.id === bench.chosen);
    return bench.chosen === 'source' || bench.ofClip ? 0 : index < 0 ? passes.length : index + 1;
  }

  /** A pass for the chosen layer; it works inside masks that were drawn and do nothing yet. */
  function passFor(id: PassId, type: string, values?: Offered['values']): Pass {
    const declared = passOf(type);
    const inShot = declared?.space === 'shot' && bench.shot;
    const own = newPass(id, type, inShot ? { w: inShot.width, h: inShot.height } : bench.size, values);
    const masks = declared?.whole || declared?.group === 'cut out' || !bench.layer ? [] : freeMasks(bench.layer);
    return masks.length ? { ...own, area: { masks, side: 'inside' } } : own;
  }
  /** The chosen layer's line with a new pass where it would come. */
  const lineWith = (type: string, values?: Offered['values']): Pass[] => {
    const passes = [...(bench.layer?.passes ?? [])];
    passes.splice(nextPlace(), 0, passFor('tried' as PassId, type, values));
    return passes;
  };
  /** Puts a pass into the chosen layer's line, after the chosen pass, and opens its dials. */
  function insertPass(type: string, values?: Offered['values']): void {
    if (!bench.layer || bench.layer.locked) return;
    const own = passFor(newId<PassId>(), type, values);
    const names = bench.layer.masks.filter((mask) => own.area?.masks.includes(mask.id)).map(({ name }) => name);
    store.edit(addPass(playhead.at, own, nextPlace()));
    bench.chosen = own.id;
    if (names.length) useNotices().say(`${titleOf(type)} works inside ${names.join(', ')}.`);
    const pickFirst = Object.entries(paramsOf(type)).find(([, param]) => param.kind === 'samples' && param.finds);
    bench.picking = pickFirst?.[0] ?? null;
  }

  /** Shows the dials of the layer's pass of a type, and adds one when it has none. */
  function openPass(type: string): void {
    const there = bench.layer?.passes.find((item) => item.type === type);
    if (there) bench.show(there.id);
    else insertPass(type);
  }

  /** A copy of a pass, the chosen one when left out, at the end of another layer's line. */
  function copyPassTo(target: LayerId, own: Pass | null = bench.pass): void {
    if (own) store.edit(addPass({ shot: bench.shotId!, layer: target }, withoutMasks({ ...own, id: newId<PassId>() })));
  }
  /** A copy of one of the chosen layer's passes, right after it. */
  function duplicatePass(own: Pass): void {
    const copy = { ...own, id: newId<PassId>() };
    const index = bench.layer?.passes.indexOf(own) ?? -1;
    editLayer((_, where) => addPass(where, copy, index < 0 ? undefined : index + 1));
    bench.chosen = copy.id;
  }

  return { tried, editLayer, lineWith, insertPass, openPass, copyPassTo, duplicatePass };
});
