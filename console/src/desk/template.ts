import { parsedDocument } from "../shared/documentText";

/** What the desk changes in a template document; all the rest of it stays as it is. */
interface TemplateDocument {
  name?: string;
  vendor?: string;
  fields?: Record<string, { where?: unknown; required?: boolean }>;
  [key: string]: unknown;
}

/** The left and the right bound of a column, in points. */
export type Edges = [number, number];

/** The first and the last of some pages of an invoice, from 1; null is the last that it has. */
export interface PageSpan {
  from: number;
  to: number | null;
}

interface EdgesOn {
  pages: unknown;
  columns: Record<string, Edges>;
}

interface Block {
  name?: string;
  columns?: Record<string, Record<string, unknown>>;
  edgesOn?: EdgesOn | EdgesOn[];
}

const blocksOf = (document: TemplateDocument | null) =>
  Array.isArray(document?.blocks) ? (document.blocks as Block[]) : [];

const edgesOnOf = (block: Block | undefined): EdgesOn[] =>
  (block?.edgesOn === undefined ? [] : [block.edgesOn].flat()).filter(
    (one) => typeof one?.columns === "object" && one.columns !== null,
  );

/** Pages as a template writes them: 2, "last", [2, "last"]. */
const writtenPages = ({ from, to }: PageSpan) => (from === to ? from : [from, to ?? "last"]);

/** Says that pages as a template writes them hold one, on an invoice of so many. */
function holds(pages: unknown, page: number, count: number): boolean {
  const [from, to] = (Array.isArray(pages) ? pages : [pages, pages]).map((one) =>
    one === "last" ? count : one === "first" ? 1 : Number(one),
  );
  return page >= (from ?? 0) && page <= (to ?? 0);
}

/**
 * The edges that a template says of the columns of a block.
 * @param page Of the invoice, from 1, which has so many.
 */
export function edgesIn(text: string, block: string, page: number, count: number): Record<string, Edges> {
  const found = blocksOf(parsed(text)).find((one) => one.name === block);
  const usual = Object.entries(found?.columns ?? {}).flatMap(([name, column]) =>
    Array.isArray(column.edges) ? [[name, column.edges as Edges] as const] : [],
  );
  const here = edgesOnOf(found).find((one) => holds(one.pages, page, count));
  return { ...Object.fromEntries(usual), ...here?.columns };
}

/** The same as {@link withEdges}, for some pages only. */
export function withEdgesOn(
  document: TemplateDocument,
  block: string,
  edges: Record<string, Edges | null>,
  pages: PageSpan,
): string {
  const wanted = JSON.stringify(writtenPages(pages));
  const blocks = blocksOf(document).map((one) => {
    if (one.name !== block) {
      return one;
    }
    const { edgesOn: _, ...rest } = one;
    const all = edgesOnOf(one);
    const known = all.find((some) => JSON.stringify(some.pages) === wanted);
    const columns = { ...known?.columns, ...edges };
    const said = Object.fromEntries(
      Object.entries(columns).filter((entry): entry is [string, Edges] => entry[1] !== null),
    );
    // What is said last counts before what was said of more pages.
    const next = [
      ...(Object.keys(said).length > 0 ? [{ pages: writtenPages(pages), columns: said }] : []),
      ...all.filter((some) => some !== known),
    ];
    return next.length === 0 ? rest : { ...rest, edgesOn: next };
  });
  return written({ ...document, blocks });
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
    return withoutEdgesOn({ ...one, columns: Object.fromEntries(columns) }, Object.keys(edges));
  });
  return written({ ...document, blocks });
}

/** What holds on all pages holds on those, too, of which something else was said. */
function withoutEdgesOn(whole: Block, columns: string[]): Block {
  const { edgesOn: _, ...block } = whole;
  const left = edgesOnOf(whole)
    .map((some) => ({
      ...some,
      columns: Object.fromEntries(Object.entries(some.columns).filter(([name]) => !columns.includes(name))),
    }))
    .filter((some) => Object.keys(some.columns).length > 0);
  return left.length === 0 ? block : { ...block, edgesOn: left };
}

/** The document, or null while its text is no JSON. */
export const parsed = (text: string) => parsedDocument(text) as TemplateDocument | null;

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
