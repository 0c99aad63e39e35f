/** Readers of single columns that say which column was not what the schema promises. */
type Row = Record<string, unknown>;

function fail(column: string, wanted: string): never {
  throw new Error(`column ${column} is not ${wanted}`);
}
export const text = (row: Row, column: string): string =>
  typeof row[column] === 'string' ? row[column] : fail(column, 'text');
export const number = (row: Row, column: string): number =>
  typeof row[column] === 'number' ? row[column] : fail(column, 'a number');
export const boolean = (row: Row, column: string): boolean =>
  typeof row[column] === 'boolean' ? row[column] : fail(column, 'a boolean');
export const instant = (row: Row, column: string): string =>
  row[column] instanceof Date ? row[column].toISOString() : fail(column, 'an instant');
export const orNull =
  <T>(read: (row: Row, column: string) => T) =>
  (row: Row, column: string): T | null =>
    row[column] === null ? null : read(row, column);
/** Text that a check constraint keeps to the members of a union. */
// The caller names the union that the column's check constraint keeps.
// oxlint-disable-next-line typescript/no-unnecessary-type-parameters
export const member = <T extends string>(row: Row, column: string): T => text(row, column) as T;
