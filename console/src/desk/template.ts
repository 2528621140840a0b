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

/** The vendor's name, where it stands in a template: for itself, and as the value of a field. */
export function withVendor(document: TemplateDocument, vendor: string): string {
  const fields = { ...document.fields };
  const where = fields.vendorName?.where as { always?: string } | undefined;
  if (where?.always !== undefined) {
    fields.vendorName = { ...fields.vendorName, where: { always: vendor } };
  }
  return written({ ...document, vendor, fields });
}
