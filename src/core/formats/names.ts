/** A file name without anything that could lead out of a folder. */
export function safeName(name: string): string {
  const last = name.split(/[\\/]/).at(-1) ?? '';
  const clean = last.replace(/[\u0000-\u001f<>:"|?*]/g, '_').replace(/^\.+/, '');
  return clean.slice(-200) || 'file';
}

/** A file name with the ending of what it holds, once. @param ending without the dot */
export function withEnding(name: string, ending: string): string {
  const bare = name.trim().replace(/\.(webm|mp4|png)$/i, '');
  return `${bare || 'untitled'}.${ending}`;
}

/** What a file is called in stock: its name without ending, dashes and underscores as spaces; 1 to 120 letters. */
export const stockName = (file: string): string =>
  safeName(file)
    .replace(/\.[^.]+$/, '')
    .replaceAll(/[-_\s]+/g, ' ')
    .trim()
    .slice(0, 120)
    .trim() || 'untitled';
