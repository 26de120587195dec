import type { Draft } from 'immer';
import { paramsOf, passOf, titleOf } from '../../passes/registry';
import { firstValues } from '../../params/registry';
import type { Edit } from '../edit';
import { layerIn, shotIn, withClipLine } from '../find';
import type { Layer, Pass, PassId, Project } from '../schema';
import { setValues, type At } from './keys';

const nameOf = (pass: Pass | undefined): string => (pass ? titleOf(pass.type) : 'pass');

const change = (at: At, name: string, apply: (layer: Draft<Layer>) => void): Edit => ({
  name,
  apply: (draft) => apply(layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>),
});

const passIn = (project: Project, at: At, id: PassId): Pass | undefined =>
  withClipLine(project, layerIn(shotIn(project, at.shot), at.layer)).passes.find((pass) => pass.id === id);

/** @param size of the picture that it will work on, in pixels @param own values in place of those that a new one begins with */
export function newPass(
  id: PassId,
  type: string,
  size?: { w: number; h: number } | null,
  own: Readonly<Record<string, unknown>> = {},
): Pass {
  const declared = passOf(type);
  const fitted = size && declared?.fitted ? Object.entries(declared.fitted(size)) : [];
  const values = {
    ...firstValues(paramsOf(type)),
    ...Object.fromEntries([...fitted, ...Object.entries(own)].map(([name, value]) => [name, { still: value }])),
  };
  return { id, type, on: true, space: declared?.space ?? 'layer', values };
}

/** A pass for another layer: that layer has not got the masks it may refer to. */
export function withoutMasks({ area: _, ...pass }: Pass): Pass {
  const defaults = firstValues(paramsOf(pass.type));
  const values = Object.fromEntries(
    Object.entries(pass.values).map(([name, value]) => [
      name,
      paramsOf(pass.type)[name]?.kind === 'masks' ? defaults[name] : value,
    ]),
  );
  return { ...pass, values } as Pass;
}

/** Inserts a pass. @param index its place in the line, 0 = first after the source; the end when left out */
export const addPass = (at: At, pass: Pass, index?: number): Edit =>
  change(at, `Add ${nameOf(pass)}`, (layer) => {
    layer.passes.splice(index ?? layer.passes.length, 0, pass as Draft<Pass>);
    layer.passes = inOrder(layer.passes);
  });
/** What works before Place stands before what works after it. */
export const inOrder = (passes: Draft<Pass>[]): Draft<Pass>[] => [
  ...inSpace(passes, 'layer'),
  ...inSpace(passes, 'shot'),
];
const inSpace = (passes: Draft<Pass>[], space: Pass['space']): Draft<Pass>[] =>
  passes.filter((pass) => pass.space === space);

/** From its layer's line, or from that of its clip. */
export const removePass = (project: Project, at: At, id: PassId): Edit => ({
  name: `Delete ${nameOf(passIn(project, at, id))}`,
  apply: (draft) => {
    const layer = layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>;
    layer.passes = layer.passes.filter((pass) => pass.id !== id);
    for (const item of draft.stock) item.line = item.line.filter((pass) => pass.id !== id);
  },
});

export const switchPass = (project: Project, at: At, id: PassId): Edit => {
  const pass = passIn(project, at, id);
  return {
    name: `${nameOf(pass)} ${pass?.on ? 'off' : 'on'}`,
    apply: (draft) => {
      const own = passIn(draft as Project, at, id) as Draft<Pass> | undefined;
      if (own) own.on = !own.on;
    },
  };
};

/** Leaves a group of a pass's dials out, or takes it back. */
export const switchGroup = (project: Project, at: At, id: PassId, group: string): Edit => {
  const title = nameOf(passIn(project, at, id));
  const out = passIn(project, at, id)?.out ?? [];
  return {
    name: `${title}: ${group.toLowerCase()} ${out.includes(group) ? 'on' : 'off'}`,
    apply: (draft) => {
      const own = passIn(draft as Project, at, id) as Draft<Pass> | undefined;
      if (!own) return;
      const left = out.includes(group) ? out.filter((other) => other !== group) : [...out, group];
      if (left.length) own.out = left;
      else delete own.out;
    },
  };
};

/** Moves a pass. @param index its place among those before Place, or after it @param space which of both; its own when left out */
export const orderPass = (project: Project, at: At, id: PassId, index: number, space?: Pass['space']): Edit =>
  change(at, `Reorder ${nameOf(passIn(project, at, id))}`, (layer) => {
    const pass = layer.passes.find((item) => item.id === id);
    if (!pass) return;
    const others = layer.passes.filter((item) => item.id !== id);
    const halves = { layer: inSpace(others, 'layer'), shot: inSpace(others, 'shot') };
    halves[space ?? pass.space].splice(index, 0, { ...pass, space: space ?? pass.space });
    layer.passes = [...halves.layer, ...halves.shot];
  });

/** Sets one value of a pass; a keyed one gets a keyframe at the playhead. */
export const setPassValue = (project: Project, at: At, id: PassId, param: string, value: unknown): Edit => {
  const pass = passIn(project, at, id);
  const label = (pass && paramsOf(pass.type)[param]?.label) ?? param;
  return setValues(at, { [`pass.${id}.${param}`]: value }, `${nameOf(pass)}: ${label.toLowerCase()}`);
};

/** Sets several values of a pass in one step. @param what it does, for the history */
export const setPassValues = (
  project: Project,
  at: At,
  id: PassId,
  values: Readonly<Record<string, unknown>>,
  what: string,
): Edit =>
  setValues(
    at,
    Object.fromEntries(Object.entries(values).map(([name, value]) => [`pass.${id}.${name}`, value])),
    `${nameOf(passIn(project, at, id))}: ${what}`,
  );
