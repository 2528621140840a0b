/** What of JSON Schema (2020-12) the template's schema uses. */
export interface Schema {
  $ref?: string;
  $defs?: Record<string, Schema>;
  properties?: Record<string, Schema>;
  additionalProperties?: Schema | boolean;
  items?: Schema;
  oneOf?: Schema[];
  anyOf?: Schema[];
  allOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
  type?: string | string[];
  description?: string;
}

/** The schemas that a value at a path may follow, with references resolved; several where it may be one thing or another. */
export function schemasAt(root: Schema, path: (string | number)[]): Schema[] {
  return path.reduce<Schema[]>(
    (schemas, step) => schemas.flatMap((schema) => resolved(root, stepInto(schema, step))),
    resolved(root, root),
  );
}

function stepInto(schema: Schema, step: string | number): Schema | undefined {
  if (typeof step === "number") {
    return schema.items;
  }
  const own = schema.properties?.[step];
  const other = schema.additionalProperties;
  return own ?? (typeof other === "object" ? other : undefined);
}

function resolved(root: Schema, schema: Schema | undefined): Schema[] {
  if (schema === undefined) {
    return [];
  }
  const choices = [...(schema.oneOf ?? []), ...(schema.anyOf ?? []), ...(schema.allOf ?? [])];
  const referred = schema.$ref === undefined ? undefined : root.$defs?.[schema.$ref.replace("#/$defs/", "")];
  return [schema, ...[referred, ...choices].flatMap((one) => resolved(root, one))];
}

/** The keys that an object at a path may have, each with what the schema says of it. */
export function keysAt(root: Schema, path: (string | number)[]): Map<string, string> {
  const keys = new Map<string, string>();
  for (const schema of schemasAt(root, path)) {
    for (const [key, property] of Object.entries(schema.properties ?? {})) {
      keys.set(key, descriptionOf(resolved(root, property)));
    }
  }
  return keys;
}

/** The values that may stand at a path, where the schema lists them. */
export function valuesAt(root: Schema, path: (string | number)[]): string[] {
  const schemas = schemasAt(root, path);
  const values = schemas.flatMap((schema) => [
    ...(schema.enum ?? []),
    ...(schema.const === undefined ? [] : [schema.const]),
    ...(schema.type === "boolean" ? [true, false] : []),
  ]);
  return [...new Set(values.map((value) => JSON.stringify(value)))];
}

export const descriptionOf = (schemas: Schema[]) =>
  schemas.find((schema) => schema.description !== undefined)?.description ?? "";
