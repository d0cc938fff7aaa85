import { type ColumnsOf, type ColumnType, type PackedRows, packRows } from '@/database/copyIn';

/** Rows, packed as they are handed over: column by column. */
export function packed<C extends Readonly<Record<string, ColumnType>>>(
  types: C,
  rows: readonly { readonly [K in keyof C]?: unknown }[],
): PackedRows {
  const columns = Object.fromEntries(Object.keys(types).map((column) => [column, rows.map((row) => row[column])]));
  return packRows(types, columns as unknown as ColumnsOf<C>, rows.length);
}
