/** A short id that is free in a table: prefix and the lowest number. */
export function freeId(table: Readonly<Record<string, unknown>>, prefix: string): string {
  let k = Object.keys(table).length + 1;
  while (Object.hasOwn(table, `${prefix}${k}`)) k++;
  return `${prefix}${k}`;
}
