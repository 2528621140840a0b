import type { OfferedFormat } from "../api/client";
import { parsedDocument, writtenDocument } from "../shared/documentText";

/** What a column says; a text alone is a column of that heading and value. */
export interface LayoutColumn {
  heading: string;
  value: string;
  proves?: string;
  decimals?: number | "currency";
  width?: number;
  cut?: boolean;
  fill?: string;
}

export interface LayoutTable {
  name?: string;
  records?: string;
  where?: string;
  columns?: (string | LayoutColumn)[];
}

/** What the form changes in a layout; all the rest of the document stays as it is. */
export interface LayoutDocument {
  name?: string;
  invoices?: string;
  creditNotes?: string;
  names?: Record<string, string>;
  tables?: LayoutTable[];
  file?: Record<string, string | boolean>;
  [key: string]: unknown;
}

/** A layout's document; null where the text is none that a form could show. */
export function layoutIn(text: string): LayoutDocument | null {
  const document = parsedDocument(text) as LayoutDocument | null;
  const tables = document?.tables;
  const isShown =
    Array.isArray(tables) &&
    tables.every((table) => typeof table === "object" && table !== null && Array.isArray(table.columns)) &&
    tables.every((table) => table.columns?.every((column) => isText(column) || isColumn(column)));
  return isShown ? document : null;
}

const isText = (value: unknown) => typeof value === "string";
const isColumn = (value: unknown) => typeof value === "object" && value !== null && !Array.isArray(value);

export const columnOf = (column: string | LayoutColumn): LayoutColumn =>
  typeof column === "string" ? { heading: column, value: column } : column;

/** A column that says nothing but its name is written as that. */
function brief(column: LayoutColumn): string | LayoutColumn {
  const said = withoutEmpty(column);
  return Object.keys(said).length === 2 && said.heading === said.value && said.value !== ""
    ? said.value
    : said;
}

/** Leaves out what says nothing: an empty width, a `cut` that is not so. A heading and a value stay. */
function withoutEmpty(column: LayoutColumn): LayoutColumn {
  const kept = Object.entries(column).filter(
    ([key, value]) =>
      key === "heading" || key === "value" || (value !== "" && value !== undefined && value !== false),
  );
  return Object.fromEntries(kept) as unknown as LayoutColumn;
}

/** The text of a layout in which one table is another; null leaves it out. */
export function withTable(document: LayoutDocument, at: number, table: LayoutTable | null): string {
  const tables = [...(document.tables ?? [])];
  tables.splice(at, 1, ...(table ? [table] : []));
  return writtenDocument({ ...document, tables });
}

/** The text of a layout with one more kind of records. */
export const withNewTable = (document: LayoutDocument, records: string, columns: string[]): string =>
  writtenDocument({ ...document, tables: [...(document.tables ?? []), { records, columns }] });

/** The text of a layout in which a key of its own, or of its file, says something else; an empty text leaves the key out. */
export function withKey(document: LayoutDocument, key: string, value: string): string {
  const { [key]: _, ...rest } = document;
  // In the place where it stood.
  return writtenDocument(value === "" ? rest : { ...document, [key]: value });
}

export function withFileKey(document: LayoutDocument, key: string, value: string | boolean): string {
  const { [key]: _, ...rest } = document.file ?? {};
  const file = value === "" ? rest : { ...document.file, [key]: value };
  return writtenDocument({ ...document, file });
}

/** The format of a layout's files; without a word they are CSV. */
export const formatOf = (document: LayoutDocument): string => String(document.file?.format ?? "csv");

/** The text of a layout whose files have another format; of its keys, those that leave no choice there are left out. */
export function withFormat(document: LayoutDocument, format: OfferedFormat): string {
  const kept = Object.entries(document.file ?? {}).filter(([key]) => format.keys.includes(key));
  return withFileKey({ ...document, file: Object.fromEntries(kept) }, "format", format.format);
}

/** A table in which some keys of a column are others. */
export function withColumn(table: LayoutTable, at: number, change: Partial<LayoutColumn>): LayoutTable {
  const columns = (table.columns ?? []).map((column, index) =>
    index === at ? brief({ ...columnOf(column), ...change }) : column,
  );
  return { ...table, columns };
}

/** A table in which a column stands elsewhere; beyond either end it stays where it is. */
export function withMovedColumn(table: LayoutTable, from: number, to: number): LayoutTable {
  const columns = [...(table.columns ?? [])];
  const moved = columns[from];
  if (moved === undefined || to < 0 || to >= columns.length) {
    return table;
  }
  columns.splice(from, 1);
  columns.splice(to, 0, moved);
  return { ...table, columns };
}

export const withoutColumn = (table: LayoutTable, at: number): LayoutTable => ({
  ...table,
  columns: (table.columns ?? []).filter((_, index) => index !== at),
});

export const withNewColumn = (table: LayoutTable, name: string): LayoutTable => ({
  ...table,
  columns: [...(table.columns ?? []), name],
});
