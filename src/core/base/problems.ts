import type { z } from 'zod';

/** The first few problems of a parse, each as place and reason. */
export function problemsOf(error: z.ZodError, most = 3): string {
  const lines = error.issues
    .slice(0, most)
    .map((issue) => (issue.path.length ? `${issue.path.join('.')}: ${issue.message}` : issue.message));
  if (error.issues.length > most) lines.push(`and ${error.issues.length - most} more`);
  return lines.join('; ');
}
