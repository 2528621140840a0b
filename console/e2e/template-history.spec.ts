import { readdirSync, readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import type { Invoice, InvoiceSummary } from "../src/api/client";
import { expectNoViolation } from "./axe";
import { batchOf, invoicesOf } from "./batches";

const TEMPLATE = "halvard-standard";
const FILE = "../samples/halvard-marine-diesel/halvard.template.json";

async function newestOf(page: Page): Promise<{ version: number; document: { fields: object } }> {
  return (await page.request.get(`/api/v1/templates/${TEMPLATE}`)).json();
}

test("a mended template is rehearsed on an approved invoice first, published with a note, compared and taken back", async ({
  page,
  request,
}) => {
  const invoices: InvoiceSummary[] = await (
    await request.get("/api/v1/batches/1/invoices?limit=1000")
  ).json();
  const clear = invoices.find((one) => one.vendor === "Halvard Marine Diesel Ltd" && one.state === "clear");
  const approved = await request.post(`/api/v1/invoices/${clear?.id}/approval`, {
    data: { despite: "" },
    headers: { "If-Match": `"${clear?.revision}"` },
  });
  expect(approved.ok()).toBe(true);
  const before: Invoice = await approved.json();

  await page.goto("/templates");
  await page.getByLabel("Search").fill("halvard");
  await expect(page.locator("table:not(.tight) tbody tr")).toHaveCount(1);
  await page.getByRole("link", { name: TEMPLATE }).click();
  await page.getByRole("link", { name: "Open on the desk" }).click();
  await expect(page.getByText(/invoices at hand are recognised/)).toBeVisible();
  await page.locator('[data-value="dueDate"]').first().click();
  await page.getByRole("button", { name: "Leave the due date out of the template" }).click();
  await page.getByRole("button", { name: "Rehearse", exact: true }).click();
  const rehearsal = page.getByRole("region", { name: "Rehearsal" });
  await expect(rehearsal.getByRole("row").first()).toContainText("approved or posted, with other values");
  await expect(rehearsal.getByRole("row", { name: clear?.invoiceNumber })).toContainText(
    `${clear?.invoiceNumber}● approved → ○ cleardue date: ${before.fields.dueDate?.value} → nothing`,
  );
  // What is typed on after it was rehearsed is not published unseen.
  await page.getByLabel("Template for the vendor").fill("Halvard Marine Diesel Limited");
  await expect(rehearsal).toContainText("The template has been changed since");
  await expect(page.getByRole("button", { name: "Publish version 2" })).toBeDisabled();
  await page.getByRole("button", { name: "Step back" }).click();
  await page.getByLabel("Note for the history").fill("Due dates are agreed by contract");
  await page.getByRole("button", { name: "Publish version 2" }).click();
  await expect(page).toHaveURL(/batches\/1$/);
  const still: Invoice = await (await request.get(`/api/v1/invoices/${clear?.id}`)).json();
  expect(still.fields).toEqual(before.fields);
  expect(still.templateVersion).toBe(1);

  await page.goto(`/templates/${TEMPLATE}`);
  await expect(page.getByRole("row", { name: /Due dates are agreed by contract/ })).toContainText("2");
  await expect(page.getByRole("region", { name: "What they say otherwise" })).toContainText("fields.dueDate");
  await page.getByRole("button", { name: "Make current again" }).click();
  await page.getByLabel("Why").fill("They want them after all");
  await page.getByRole("button", { name: "Make it current" }).click();
  await expect(page.getByText(`${TEMPLATE}, version 3`)).toBeVisible();
  await page.getByLabel("from version 1").check();
  await expect(page.getByText("They say the same.")).toBeVisible();
  expect((await newestOf(page)).document.fields).toHaveProperty("dueDate");

  await page.getByRole("button", { name: "Retire" }).click();
  await page.getByLabel("Why").fill("They send another form");
  await page.getByRole("button", { name: "Retire it" }).click();
  await expect(page.getByText("× Retired: it recognises nothing any more")).toBeVisible();
  await page.getByRole("button", { name: "Bring back" }).click();
  await page.getByLabel("Why").fill("They do not");
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByText(`${TEMPLATE}, version 5`)).toBeVisible();
});

test("what was corrected on three invoices is tried on the desk as a change of the template, and published", async ({
  page,
  request,
}) => {
  const folder = "../tests/corpus/hollin-latex";
  const name = readdirSync(folder).find((file) => file.endsWith(".template.json")) ?? "";
  const template = JSON.parse(readFileSync(`${folder}/${name}`, "utf8"));
  template.fields.dueDate = { where: { beside: "Nowhere" }, required: false };
  expect((await request.post("/api/v1/templates", { data: template })).status()).toBe(201);
  const batch = await batchOf(request, "Hollin, corrected", folder);
  const truth = JSON.parse(readFileSync(`${folder}/truth.json`, "utf8")).invoices as {
    file: string;
    dueDate: string;
  }[];
  const dueOf = (file: string) => truth.find((one) => one.file === file)?.dueDate;
  const invoices = (await invoicesOf(request, batch)).filter((one) => dueOf(one.file));
  for (const { id, file, revision } of invoices.slice(0, 3)) {
    const answer = await request.post(`/api/v1/invoices/${id}/corrections`, {
      data: { act: "enter", of: "dueDate", text: dueOf(file) },
      headers: { "If-Match": `"${revision}"` },
    });
    expect(answer.ok()).toBe(true);
  }
  await page.goto(`/invoices/${invoices[0]?.id}`);
  await expect(page.getByText("The due date was entered by hand on 3 invoices.")).toBeVisible();
  await page.getByRole("link", { name: "Mend the template for all of them" }).click();
  await expect(page.getByRole("region", { name: "Corrected again and again" })).toContainText(
    /Mended if the due date is looked for beside “.+” first\./,
  );
  await page.getByRole("button", { name: "Try it on the desk" }).click();
  await expect(page.locator('[data-value="dueDate"]').first()).toContainText(
    dueOf(invoices[0]?.file ?? "") ?? "",
  );
  await page.getByRole("button", { name: "Rehearse", exact: true }).click();
  await expect(page.getByRole("region", { name: "Rehearsal" })).toContainText("with other values");
  // A draft that lies there already is not written over.
  await page.goto(`/templates/${template.name}`);
  await page.getByRole("button", { name: "Try it on the desk" }).click();
  await expect(page.getByRole("alert")).toContainText("lies on the desk already");
  await page.goto(`/desk/${invoices[0]?.id}`);
  await page.getByRole("button", { name: "Rehearse", exact: true }).click();
  await page.getByRole("button", { name: "Publish version 2" }).click();
  await expect(page).toHaveURL(new RegExp(`batches/${batch}$`));
  await request.post(`/api/v1/batches/${batch}/recapture`);
  await (await request.get(`/api/v1/batches/${batch}/events`)).text();
  for (const { id, file } of invoices) {
    const now: Invoice = await (await request.get(`/api/v1/invoices/${id}`)).json();
    expect(now.fields.dueDate?.value).toBe(dueOf(file));
  }
});

test("a template file that is dropped is saved, or refused by key and line", async ({ page }) => {
  await page.goto("/templates");
  const whole = readFileSync(FILE, "utf8");
  const { version } = await newestOf(page);
  const drop = (name: string, text: string) =>
    page
      .locator('input[type="file"]')
      .last()
      .setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
  await drop("broken.template.json", whole.replace('"total"', '"totall"'));
  await expect(page.getByRole("status", { name: "What became of the files" })).toContainText(
    /broken\.template\.json: The template has 2 faults.*line 17, fields\.totall: “totall” is no settled name/,
  );
  await drop("halvard.template.json", whole.replace('"vendor"', ' "vendor"'));
  await expect(page.getByRole("status", { name: "What became of the files" })).toContainText(
    `halvard.template.json: saved as ${TEMPLATE}, version ${version + 1}`,
  );
});

test("two people on one draft see each other's changes, and nothing typed is lost", async ({
  page,
  browser,
}) => {
  const id = (await (await page.request.get(`/api/v1/templates/skerrow-standard`)).json()).lastInvoice;
  await page.goto(`/desk/${id}`);
  const vendor = page.getByLabel("Template for the vendor");
  await expect(vendor).toHaveValue("Skerrow Sail Loft");
  await vendor.fill("Skerrow Sails");
  const kept = () =>
    page.request.get("/api/v1/template-drafts/skerrow-standard").then((answer) => answer.text());
  await expect.poll(kept).toContain("Skerrow Sails");

  const other = await (await browser.newContext()).newPage();
  await other.goto(`/desk/${id}`);
  const theirs = other.getByLabel("Template for the vendor");
  await expect(theirs).toHaveValue("Skerrow Sails");
  await theirs.fill("Skerrow Sails and Covers");
  // Who has typed nothing since sees it by himself.
  await expect(vendor).toHaveValue("Skerrow Sails and Covers");

  // Both type at once: the second one is told, and chooses.
  await page.route("**/template-drafts/**", (route) =>
    route.request().method() === "GET" ? route.abort() : route.continue(),
  );
  await theirs.fill("Theirs");
  await expect.poll(kept).toContain("Theirs");
  await page.unroute("**/template-drafts/**");
  await vendor.fill("Mine");
  await expect(page.getByRole("alert")).toContainText("has changed this draft in another window");
  await page.getByRole("button", { name: "Keep mine in its place" }).click();
  await expect.poll(kept).toContain("Mine");
  await expect(theirs).toHaveValue("Mine");

  await page.goto("/templates");
  await expect(page.getByRole("region", { name: "Not published yet" })).toContainText(
    "the next version of skerrow-standard",
  );
  await page.request.delete("/api/v1/template-drafts/skerrow-standard");
});

for (const colorScheme of ["light", "dark"] as const) {
  test.describe(colorScheme, () => {
    test.use({ colorScheme });

    test("the templates' pages violate no rule of accessibility", async ({ page }) => {
      for (const path of ["/templates", `/templates/${TEMPLATE}`]) {
        await page.goto(path);
        await expect(page.getByRole("table").first()).toBeVisible();
        await expectNoViolation(page, path);
      }
    });
  });
}
