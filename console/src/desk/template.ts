/** What the desk changes in a template document; all the rest of it stays as it is. */
interface TemplateDocument {
  name?: string;
  vendor?: string;
  fields?: Record<string, { where?: unknown; required?: boolean }>;
  [key: string]: unknown;
}

/** The left and the right bound of a column, in points. */
export type Edges = [number, number];

interface Block {
  name?: string;
  columns?: Record<string, Record<string, unknown>>;
}

const blocksOf = (document: TemplateDocument | null) =>
  Array.isArray(document?.blocks) ? (document.blocks as Block[]) : [];

/** The edges that a template says of the columns of a block. */
export function edgesIn(text: string, block: string): Record<string, Edges> {
  const columns = blocksOf(parsed(text)).find((one) => one.name === block)?.columns ?? {};
  return Object.fromEntries(
    Object.entries(columns).flatMap(([name, column]) =>
      Array.isArray(column.edges) ? [[name, column.edges as Edges]] : [],
    ),
  );
}

/** The columns of a block that stand in a place of their own, and are not taken out of another or carried onto the row. */
export function placedIn(text: string, block: string): Set<string> {
  const columns = blocksOf(parsed(text)).find((one) => one.name === block)?.columns ?? {};
  return new Set(
    Object.keys(columns).filter((name) =>
      ["heading", "edges", "unheaded"].some((source) => columns[name]?.[source] !== undefined),
    ),
  );
}

/** Says where columns stand; a column keeps its heading, and without edges stands where its heading does again. */
export function withEdges(
  document: TemplateDocument,
  block: string,
  edges: Record<string, Edges | null>,
): string {
  const blocks = blocksOf(document).map((one) => {
    if (one.name !== block) {
      return one;
    }
    const columns = Object.entries(one.columns ?? {}).map(([name, column]) => {
      const next = edges[name];
      const { edges: _, unheaded, ...rest } = column;
      if (next === undefined || (next === null && column.heading === undefined)) {
        return [name, column];
      }
      return [name, next === null ? rest : { ...rest, edges: next }];
    });
    return { ...one, columns: Object.fromEntries(columns) };
  });
  return written({ ...document, blocks });
}

/** The document, or null while its text is no JSON. */
export function parsed(text: string): TemplateDocument | null {
  try {
    const document: unknown = JSON.parse(text);
    return typeof document === "object" && document !== null && !Array.isArray(document)
      ? (document as TemplateDocument)
      : null;
  } catch {
    return null;
  }
}

const written = (document: TemplateDocument) => `${JSON.stringify(document, null, 2)}\n`;

/** Says where a field is found; whether invoices must have it stays as it was. */
export function withField(document: TemplateDocument, name: string, rule: string): string {
  const before = document.fields?.[name];
  const next = { ...(JSON.parse(rule) as object), ...(before?.required === false && { required: false }) };
  return written({ ...document, fields: { ...document.fields, [name]: next } });
}

export function withoutField(document: TemplateDocument, name: string): string {
  const { [name]: _, ...fields } = document.fields ?? {};
  return written({ ...document, fields });
}

/** A step between the printed text and the value, as a template writes it. */
export type TidyStep = Record<string, unknown>;

/** The steps of a field, or of a column as `lines.amount`, in each block that has it. */
export function tidyIn(document: TemplateDocument, name: string): TidyStep[] {
  const column = columnOf(name);
  const rule =
    column === null
      ? document.fields?.[name]
      : blocksOf(document).find((block) => block.columns?.[column] !== undefined)?.columns?.[column];
  const { tidy } = (rule ?? {}) as { tidy?: unknown };
  return Array.isArray(tidy) ? (tidy as TidyStep[]) : [];
}

/** Gives a field, or a column in every block that has it, other steps. */
export function withTidy(document: TemplateDocument, name: string, tidy: TidyStep[]): string {
  const column = columnOf(name);
  const tidied = (rule: object) => {
    const { tidy: _, ...rest } = rule as { tidy?: unknown };
    return tidy.length === 0 ? rest : { ...rest, tidy };
  };
  if (column === null) {
    const rule = document.fields?.[name];
    return written(
      rule === undefined ? document : { ...document, fields: { ...document.fields, [name]: tidied(rule) } },
    );
  }
  const blocks = blocksOf(document).map((block) =>
    block.columns?.[column] === undefined
      ? block
      : { ...block, columns: { ...block.columns, [column]: tidied(block.columns[column]) } },
  );
  return written({ ...document, blocks });
}

/** "lines.amount" is the column amount; a field's name is none. */
const columnOf = (name: string) => (name.startsWith("lines.") ? name.slice("lines.".length) : null);

/** The vendor's name, where it stands in a template: for itself, and as the value of a field. */
export function withVendor(document: TemplateDocument, vendor: string): string {
  const fields = { ...document.fields };
  const where = fields.vendorName?.where as { always?: string } | undefined;
  if (where?.always !== undefined) {
    fields.vendorName = { ...fields.vendorName, where: { always: vendor } };
  }
  return written({ ...document, vendor, fields });
}
