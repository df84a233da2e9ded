/**
 * Reads a content file: one record a line, fields divided by `|`. A line that begins with `#` is a comment.
 * @throws Error when a record has more or fewer fields than names
 */
export function readTable<const Names extends readonly string[]>(
  text: string,
  names: Names,
): Record<Names[number], string>[] {
  return text
    .split('\n')
    .filter((line) => line.trim() && !line.startsWith('#'))
    .map((line) => {
      const fields = line.split('|').map((field) => field.trim());
      if (fields.length !== names.length) throw new Error(`${names.length} fields expected in “${line}”.`);
      return Object.fromEntries(names.map((name, i) => [name, fields[i]])) as Record<Names[number], string>;
    });
}
