// Edits are checked before they are kept: only what changed, against the schema's part for it.
import { z } from 'zod';
import { JackplaneError } from '../base/errors';
import type { Change, Path } from './patch';
import { crossProblems, projectShape, type Project } from './schema';

type Loose = z.ZodType & { shape?: Record<string, z.ZodType>; element?: z.ZodType; unwrap?: () => z.ZodType };

/** Members of a list can only be checked as wholes, and so can unions: the way down ends there. */
function partAt(path: Path, project: Project): { schema: z.ZodType; value: unknown } {
  let schema: Loose = projectShape;
  let value: unknown = project;
  for (const step of path) {
    let inner: Loose = schema;
    while (inner instanceof z.ZodDefault || inner instanceof z.ZodNullable || inner instanceof z.ZodOptional)
      inner = inner.unwrap() as Loose;
    const [next, below] =
      typeof step === 'string'
        ? [
            inner instanceof z.ZodObject ? (inner.shape as Record<string, Loose>)[step] : undefined,
            (value as Record<string, unknown> | null)?.[step],
          ]
        : [
            inner instanceof z.ZodArray ? (inner.element as Loose) : undefined,
            (value as Record<string, unknown>[]).find((member) =>
              'id' in step ? member['id'] === step.id : member['at'] === step.at,
            ),
          ];
    if (!next) break;
    schema = next;
    value = below;
  }
  return { schema, value };
}

/** Properties that lead to other things of the project, and lists of things that have an id. */
const LINKS = ['parent', 'matte', 'source', 'drivers'];
const LISTS = ['stock', 'shots', 'layers', 'passes', 'masks', 'tracks'];

/** @param project as it is after the changes @throws JackplaneError bad-value when the document would not follow its schema any more */
export function checkChanges(project: Project, changes: readonly Change[], name: string): void {
  const refuse = (reason: string): never => {
    throw new JackplaneError('bad-value', `“${name}” was not done: ${reason}.`, 'Nothing was changed.');
  };
  const checked = new Set<unknown>();
  for (const change of changes) {
    // of a list that got members only these are new
    const parts =
      change.kind === 'members' && change.path.length
        ? change.added.map((member) =>
            partAt(
              [...change.path, 'id' in member ? { id: member['id'] as string } : { at: member['at'] as number }],
              project,
            ),
          )
        : [];
    const list = partAt(change.path, project);
    if (list.schema instanceof z.ZodArray && change.kind === 'members') {
      const size = z
        .array(z.unknown())
        .check(...((list.schema as unknown as { def: { checks?: z.core.$ZodCheck<unknown[]>[] } }).def.checks ?? []));
      const result = size.safeParse(list.value);
      if (!result.success) refuse(reasonOf(result.error, change.path));
    } else parts.push(list);
    for (const { schema, value } of parts) {
      if (typeof value === 'object' && value !== null && checked.has(value)) continue;
      checked.add(value);
      const result = schema.safeParse(value);
      if (!result.success) refuse(reasonOf(result.error, change.path));
    }
  }
  if (
    changes.some(
      ({ kind, path }) =>
        kind === 'members' ||
        path.some((step) => LINKS.includes(step as string)) ||
        LISTS.includes(path.at(-1) as string),
    )
  ) {
    const [problem] = crossProblems(project);
    if (problem) refuse(problem);
  }
}

/** Names that say nothing to a person. */
const VAGUE = ['still', 'keys', 'value', 'values'];

function reasonOf(error: z.ZodError, path: Path): string {
  const issue = error.issues[0]!;
  const names = [...path.filter((step) => typeof step === 'string'), ...issue.path.map(String)];
  return `${names.findLast((name) => !VAGUE.includes(name)) ?? 'the project'}: ${issue.message.toLowerCase()}`;
}
