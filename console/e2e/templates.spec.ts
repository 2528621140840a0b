import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { Ajv2020 } from "ajv/dist/2020.js";

test("every template of the demo and the corpus is valid by the schema that the service publishes", async ({
  request,
}) => {
  const schema = await (await request.get("/api/v1/template.schema.json")).json();
  const isValid = new Ajv2020({ strict: false }).compile(schema);
  const files = ["../samples", "../tests/corpus", "../tests/families"].flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: "utf8" })
      .filter((file) => file.endsWith(".template.json"))
      .map((file) => `${folder}/${file}`),
  );
  expect(files.length).toBeGreaterThanOrEqual(15);
  for (const file of files) {
    const document = JSON.parse(readFileSync(file, "utf8"));
    expect(isValid(document), `${file}: ${JSON.stringify(isValid.errors)}`).toBe(true);
    expect(isValid({ ...document, colour: "red" })).toBe(false);
  }
});
