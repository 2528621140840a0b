/** What the desk changes in a template document; all the rest of it stays as it is. */
interface TemplateDocument {
  name?: string;
  vendor?: string;
  fields?: Record<string, { where?: unknown; required?: boolean }>;
  [key: string]: unknown;
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
