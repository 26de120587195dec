// What an edit changed, written so that it names things by id and fits only where it belongs.
import { JackplaneError } from '../base/errors';
import { fits, same } from './same';

/** A way into the document: names of properties, and members of lists by their id or by their frame. */
export type Path = readonly (string | { id: string } | { at: number })[];
type Member = Record<string, unknown>;

/** One change. `from` and `to` are left out where there was or is nothing. */
export type Change =
  | { kind: 'set'; path: Path; from?: unknown; to?: unknown }
  | {
      kind: 'members';
      path: Path;
      removed: readonly Member[];
      added: readonly Member[];
      /** ids in their order, when it matters and changed */
      order?: { from: readonly string[]; to: readonly string[] };
    };

const isPlain = (value: unknown): value is Member =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** How the members of a list are known: by `id`, or by `at` when those ascend. Null for a list that is one value. */
function knownBy(list: readonly unknown[]): 'id' | 'at' | null {
  if (!list.every(isPlain)) return null;
  const members = list as Member[];
  if (members.every((member) => typeof member['id'] === 'string'))
    return new Set(members.map((member) => member['id'])).size === members.length ? 'id' : null;
  const ascending = members.every(
    (member, i) => typeof member['at'] === 'number' && (i === 0 || (members[i - 1]!['at'] as number) < member['at']),
  );
  return ascending ? 'at' : null;
}

/** Changes that lead from one document (or part of it) to another. Parts that are the same object are not looked into. */
export function changesBetween(before: unknown, after: unknown, path: Path = []): Change[] {
  if (Object.is(before, after)) return [];
  if (Array.isArray(before) && Array.isArray(after)) {
    const by = knownBy(before.length ? before : after);
    if (by && knownBy(after.length ? after : before) === by)
      return memberChanges(before as Member[], after as Member[], by, path);
  } else if (isPlain(before) && isPlain(after)) {
    const names = new Set([...Object.keys(before), ...Object.keys(after)]);
    return [...names].flatMap((name) => changesBetween(before[name], after[name], [...path, name]));
  }
  return same(before, after)
    ? []
    : [
        {
          kind: 'set',
          path,
          ...(before === undefined ? {} : { from: before }),
          ...(after === undefined ? {} : { to: after }),
        },
      ];
}

function memberChanges(before: readonly Member[], after: readonly Member[], by: 'id' | 'at', path: Path): Change[] {
  const old = new Map(before.map((member) => [member[by], member]));
  const now = new Map(after.map((member) => [member[by], member]));
  const removed = before.filter((member) => !now.has(member[by]));
  const added = after.filter((member) => !old.has(member[by]));
  const [from, to] = [before, after].map((list) => list.map((member) => member[by])) as [string[], string[]];
  const moved = by === 'id' && !same(from, to);
  const inside = after.flatMap((member) =>
    old.has(member[by])
      ? changesBetween(old.get(member[by]), member, [...path, { [by]: member[by] } as { id: string }])
      : [],
  );
  return removed.length || added.length || moved
    ? [...inside, { kind: 'members', path, removed, added, ...(moved ? { order: { from, to } } : {}) }]
    : inside;
}

/** The same changes backwards. */
export function reversed(changes: readonly Change[]): Change[] {
  return changes.toReversed().map((change) => {
    if (change.kind === 'set') {
      const { kind, path } = change;
      return {
        kind,
        path,
        ...('to' in change ? { from: change.to } : {}),
        ...('from' in change ? { to: change.from } : {}),
      };
    }
    const { kind, path, removed, added, order } = change;
    return {
      kind,
      path,
      removed: added,
      added: removed,
      ...(order ? { order: { from: order.to, to: order.from } } : {}),
    };
  });
}

const misfit = (path: Path): JackplaneError =>
  new JackplaneError(
    'conflict',
    `The change does not fit what is there now (${path.map((step) => (typeof step === 'string' ? step : 'id' in step ? step.id : step.at)).join(' › ') || 'project'}).`,
    'Something else has changed the same thing since.',
  );

/** Makes changes. What they do not touch stays the same object. @throws JackplaneError conflict, with nothing changed, when one does not fit */
export function withChanges<T>(document: T, changes: readonly Change[]): T {
  return changes.reduce<unknown>((now, change) => changedAlong(now, change, 0), document) as T;
}

function changedAlong(node: unknown, change: Change, depth: number): unknown {
  const { path } = change;
  if (depth === path.length) return change.kind === 'set' ? settled(node, change) : regrouped(node, change);
  const step = path[depth]!;
  if (typeof step === 'string') {
    if (!isPlain(node)) throw misfit(path);
    const next = changedAlong(node[step], change, depth + 1);
    const copy = { ...node, [step]: next };
    if (next === undefined) delete copy[step];
    return copy;
  }
  const [by, key] = 'id' in step ? (['id', step.id] as const) : (['at', step.at] as const);
  const index = Array.isArray(node) ? node.findIndex((member: Member) => member?.[by] === key) : -1;
  if (index < 0) throw misfit(path);
  return (node as Member[]).with(index, changedAlong((node as Member[])[index], change, depth + 1) as Member);
}

function settled(node: unknown, change: Change & { kind: 'set' }): unknown {
  if (!fits(node, change.from)) throw misfit(change.path);
  return change.to;
}

function regrouped(node: unknown, { path, removed, added, order }: Change & { kind: 'members' }): unknown {
  if (!Array.isArray(node)) throw misfit(path);
  const list = node as Member[];
  const by = order ? 'id' : 'at';
  const gone = new Map(removed.map((member) => [member[by], member]));
  const taken = list.filter((member) => gone.has(member[by]));
  if (taken.length !== removed.length || taken.some((member) => !fits(member, gone.get(member[by]))))
    throw misfit(path);
  const rest = list.filter((member) => !gone.has(member[by]));
  if (added.some((member) => rest.some((other) => other[by] === member[by]))) throw misfit(path);
  if (!order) return [...rest, ...added].sort((a, b) => (a['at'] as number) - (b['at'] as number));
  if (
    !same(
      list.map((member) => member['id']),
      order.from,
    )
  )
    throw misfit(path);
  const members = new Map([...rest, ...added].map((member) => [member['id'], member]));
  const next = order.to.map((id) => members.get(id));
  if (next.some((member) => !member) || next.length !== members.size) throw misfit(path);
  return next;
}
