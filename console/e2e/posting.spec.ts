import { readdirSync, readFileSync } from "node:fs";
import { type APIRequestContext, expect, test } from "@playwright/test";
import type { InvoiceSummary } from "../src/api/client";
import { expectNoViolation } from "./axe";
import { batchOf, invoicesOf } from "./batches";
import { typeText } from "./document-text";

/** A batch of approved invoices of a vendor that no other test knows. */
async function approvedBatch(request: APIRequestContext, name: string, only = /inv-[124]\.pdf$/) {
  const folder = "../tests/families/tiderace-pdfkit";
  await request.post("/api/v1/templates", {
    data: JSON.parse(readFileSync(`${folder}/tiderace.template.json`, "utf8")),
  });
  const batch = await batchOf(request, name, folder, only);
  for (const { id } of await invoicesOf(request, batch)) {
    const { revision } = await (await request.get(`/api/v1/invoices/${id}`)).json();
    const answer = await request.post(`/api/v1/invoices/${id}/approval`, {
      data: {},
      headers: { "If-Match": `"${revision}"` },
    });
    expect(answer.status()).toBe(200);
  }
  return batch;
}

test("a layout is made of columns beside what it makes of invoices, without its text", async ({
  page,
  request,
}) => {
  await page.goto("/layouts/-");
  const columns = page.getByRole("region", { name: "Columns of lines" });
  const headings = columns.getByLabel(/^Heading of column \d+$/);
  const inOrder = () => headings.evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
  const preview = page.getByRole("region", { name: "What it makes of invoices" });
  await page.getByLabel("Name of the layout").fill("by-columns");

  // Pointing at a heading of the preview leads to where it is named; a row goes up and down by the keyboard.
  await preview.getByRole("button", { name: "text", exact: true }).click();
  await expect(columns.getByLabel("Heading of column 4")).toBeFocused();
  await page.keyboard.type("Words");
  await page.keyboard.press("Alt+ArrowUp");
  await expect(columns.getByLabel("Heading of column 3")).toBeFocused();
  await columns.getByRole("button", { name: "Drop column 1" }).click();
  await columns.getByLabel("One more column of").fill("month of invoiceDate");
  await page.keyboard.press("Enter");
  expect(await inOrder()).toEqual([
    "invoiceNumber",
    "Words",
    "invoiceDate",
    "amount",
    "currency",
    "month of invoiceDate",
  ]);
  await expect(preview.getByRole("columnheader", { name: "month of invoiceDate" })).toBeVisible();
  await expect(preview.getByRole("columnheader").first()).toHaveText("invoiceNumber");

  // A step back is one of the whole form; a fault leads to its place.
  await page.keyboard.press("Control+z");
  await expect(headings).toHaveCount(5);
  await page.keyboard.press("Control+Shift+z");
  await expect(headings).toHaveCount(6);
  await columns.getByLabel("Value of column 3").fill("invoiceDat");
  const faults = page.getByRole("list", { name: "What is wrong with the layout" });
  await faults
    .getByRole("button", { name: "column 3, value: At its character 1: There is no “invoiceDat” here" })
    .click();
  await expect(columns.getByLabel("Value of column 3")).toBeFocused();
  await page.keyboard.type("dueDate");
  await expect(faults).toHaveCount(0);

  // A column that comes to no total any more is told; a format takes along only what it can have.
  await columns.getByLabel("Control total of column 4").selectOption("");
  await expect(faults).toContainText("proves");
  await columns.getByLabel("Control total of column 4").selectOption("lines");
  await columns.getByLabel("Digits of column 4 behind the decimal mark").selectOption("currency");
  const files = page.getByRole("region", { name: "The files" });
  await files.getByLabel("Decimal mark").selectOption(",");
  await files.getByLabel("Format").selectOption("json");
  await expect(files.getByLabel("Decimal mark")).toHaveCount(0);
  await page.getByRole("button", { name: "Save as version 1" }).click();
  await expect(page).toHaveURL(/\/layouts\/by-columns$/);

  const saved = await (await request.get("/api/v1/posting-layouts/by-columns")).json();
  expect(JSON.parse(saved.text)).toEqual({
    name: "by-columns",
    tables: [
      {
        records: "lines",
        columns: [
          "invoiceNumber",
          { heading: "Words", value: "description", width: 60, cut: true },
          { heading: "invoiceDate", value: "dueDate" },
          { heading: "amount", value: "amount", decimals: "currency", proves: "lines" },
          "currency",
          "month of invoiceDate",
        ],
      },
    ],
    file: { format: "json" },
  });
  // As a person would write it: a column on a line.
  expect(saved.text.split("\n")).toContain('        "invoiceNumber",');
});

test("a layout is written beside what it makes of invoices, a run made by it, and one of its invoices taken back", async ({
  page,
  request,
}) => {
  const batch = await approvedBatch(request, "To be posted");
  await page.goto("/posting");
  await page.getByRole("button", { name: "New layout" }).click();
  const preview = page.getByRole("region", { name: "What it makes of invoices" });
  await expect(preview.getByRole("columnheader", { name: "invoiceNumber" })).toBeVisible();
  await expect(preview.getByRole("list", { name: "Held against the control totals" })).toContainText(
    "“amount” of lines: It comes to",
  );

  // A fault is told at its place, and keeps the layout from being saved; so does no amount that is lost.
  const layout = (extra: string, value: string) => `{
    "name": "net-lines",
    "tables": [{ "records": "lines", ${extra}
      "columns": ["invoiceNumber", "description", { "heading": "net", "value": "${value}", "decimals": 2, "proves": "lines" }, "currency"] }]
  }`;
  await page.getByText("Text", { exact: true }).click();
  const text = page.getByRole("textbox", { name: "The layout as text" });
  await typeText(page, layout("", "amuont"), text);
  const faults = page.getByRole("list", { name: "What is wrong with the layout" });
  await expect(faults).toContainText(
    "Line 4, tables[0].columns[2].value: At its character 1: There is no “amuont” here; “amount” is meant, perhaps.",
  );
  const save = page.getByRole("button", { name: "Save as version 1" });
  await expect(save).toBeDisabled();
  await typeText(page, layout('"where": "line > 1",', "amount"), text);
  await expect(preview.getByRole("list", { name: "What cannot be written" })).toContainText("too little");
  await typeText(page, layout("", "amount"), text);
  await expect(preview.getByRole("list", { name: "What cannot be written" })).toHaveCount(0);
  // What is typed is kept until it is saved.
  await page.reload();
  await expect(preview.getByRole("columnheader", { name: "net" })).toBeVisible();
  await page.getByLabel("Note for the history").fill("For the ledger");
  await save.click();
  await expect(page).toHaveURL(/\/layouts\/net-lines$/);
  await expect(page.getByRole("region", { name: "Versions" })).toContainText("For the ledger");

  await page.goto(`/batches/${batch}`);
  await page.getByRole("button", { name: "Post 3 approved" }).click();
  const question = page.getByRole("dialog");
  await question.getByLabel("By the layout").selectOption({ label: "net-lines (csv)" });
  await expect(question).toContainText(/net-lines-\d+\.csv/);
  await expect(question.getByRole("list", { name: "Held against the control totals" })).toContainText(
    "“net” of lines",
  );
  await question.getByRole("button", { name: "Post 3 invoices" }).click();
  await page.getByRole("link", { name: /^Run \d+$/ }).click();
  await expect(page.getByRole("heading", { name: /^Posting run \d+$/ })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: /net-lines-\d+\.csv/ }).click(),
  ]);
  expect(readFileSync(await download.path(), "utf8")).toMatch(
    /^invoiceNumber,description,net,currency\r\n[^,]+,.*,\d+\.\d\d,GBP\r\n/,
  );

  await page
    .getByRole("checkbox", { name: /^Take invoice / })
    .first()
    .check();
  await page.getByRole("button", { name: "Take 1 invoice back" }).click();
  const back = page.getByRole("dialog");
  await expect(back.getByRole("button", { name: "Take back" })).toBeDisabled();
  await back.getByLabel("Why it is taken back").fill("Posted to the wrong period");
  await back.getByRole("button", { name: "Take back" }).click();
  await expect(page.getByRole("cell", { name: /^↩ takes run \d+ back$/ })).toBeVisible();
  await expect(page.getByText("Posted to the wrong period")).toBeVisible();
  await page.goto(`/batches/${batch}`);
  await expect(page.getByRole("button", { name: "Post 1 approved" })).toBeVisible();
});

test("a period is closed, a run then asks for a posting date, and the period is opened again for a reason", async ({
  page,
  request,
}) => {
  // The same files as before would be held as doubles.
  const batch = await approvedBatch(request, "Dated", /inv-[56]\.pdf$/);
  await page.goto("/posting");
  const periods = page.getByRole("region", { name: "Closed periods" });
  await expect(periods).toContainText("No period is closed");
  await periods.getByRole("button", { name: "Close or open …" }).click();
  const day = periods.getByLabel("Closed up to (empty: nothing)");
  try {
    await day.fill("2026-11-01");
    await periods.getByRole("button", { name: "Close", exact: true }).click();
    await expect(periods).toContainText("All up to 2026-11-01 is closed");

    await page.goto(`/batches/${batch}`);
    await page.getByRole("button", { name: /^Post \d+ approved$/ }).click();
    const question = page.getByRole("dialog");
    await expect(question.getByRole("alert")).toContainText(
      /All up to 2026-11-01 is closed, and 2 invoices are dated in that time/,
    );
    const post = question.getByRole("button", { name: /^Post( \d+ invoices?)?$/ });
    await expect(post).toBeDisabled();
    await question.getByLabel("Posted on, where the period is closed").fill("2026-10-20");
    await expect(question).toContainText("The posting date 2026-10-20 lies in a closed period, too");
    await question.getByLabel("Posted on, where the period is closed").fill("2026-11-02");
    await post.click();
    await page.getByRole("link", { name: /^Run \d+$/ }).click();
    await expect(page.getByText("2026-11-02, of what is dated in a closed period")).toBeVisible();

    await page.goto("/posting");
    await periods.getByRole("button", { name: "Close or open …" }).click();
    await day.fill("");
    await expect(periods.getByRole("button", { name: "Open them again" })).toBeDisabled();
    await periods.getByLabel("Why days are opened again").fill("A correction of October");
    await periods.getByRole("button", { name: "Open them again" }).click();
    await expect(periods).toContainText("because: A correction of October");
  } finally {
    // Other tests post what is dated before.
    const { revision, through } = await (await request.get("/api/v1/closed-periods")).json();
    if (through !== null) {
      await request.put("/api/v1/closed-periods", {
        data: { through: null, reason: "Taken back by the test" },
        headers: { "If-Match": `"${revision}"` },
      });
    }
  }
});

test("sums are shown with a chart, and each figure opens the rows behind it", async ({ page, request }) => {
  const folder = "../tests/corpus/solvinge-chromium";
  const template = readdirSync(folder).find((file) => file.endsWith(".template.json"));
  await request.post("/api/v1/templates", {
    data: JSON.parse(readFileSync(`${folder}/${template}`, "utf8")),
  });
  const batch = await batchOf(request, "Added up", folder, /inv-[12]\.pdf$/);
  const invoices = await invoicesOf(request, batch);
  for (const { id, revision } of invoices) {
    await request.post(`/api/v1/invoices/${id}/approval`, {
      data: {},
      headers: { "If-Match": `"${revision}"` },
    });
  }
  await page.goto("/posting");
  await page.getByRole("link", { name: /^Sums by account/ }).click();
  await page.getByLabel("By", { exact: true }).selectOption("vendor");
  await expect(page).toHaveURL(/by=vendor/);
  const { vendor, currency } = invoices[0] as InvoiceSummary;
  const sums = page.getByRole("region", { name: `Sums in ${currency}` });
  await expect(sums.getByRole("img", { name: /by vendor$/ })).toBeVisible();
  const total = invoices.reduce((sum, one) => sum + Number(one.total), 0);
  const row = sums.getByRole("row", { name: new RegExp(`^${vendor}`) });
  await expect(row).toContainText(
    `${total.toLocaleString("en", { minimumFractionDigits: 2, maximumFractionDigits: 2 })} ${currency}`,
  );
  await row.getByRole("button").click();
  const parts = page.getByRole("region", { name: `The rows behind ${vendor}` });
  await expect(parts.getByRole("link")).toHaveText(invoices.map((one) => one.invoiceNumber));
  await expectNoViolation(page);
  // A time in which nothing is dated says so.
  await page.getByLabel("Dated from").fill("2099-01-01");
  await expect(page.getByText("Nothing is approved or posted that was dated in that time.")).toBeVisible();
});

for (const colorScheme of ["light", "dark"] as const) {
  test.describe(colorScheme, () => {
    test.use({ colorScheme });

    test("the pages of posting violate no rule of accessibility", async ({ page, request }) => {
      const runs = await (await request.get("/api/v1/posting-runs")).json();
      const violatesNothing = async (what: string) => {
        await expectNoViolation(page, what);
      };
      for (const path of ["/posting", `/posting/${runs[0]?.number ?? 1}`]) {
        await page.goto(path);
        await page.getByRole("table").first().waitFor();
        await violatesNothing(path);
      }
      await page.goto("/layouts/-");
      await page.getByRole("list", { name: "Held against the control totals" }).waitFor();
      await page.getByLabel("Heading of column 1").waitFor();
      await violatesNothing("a layout by its columns");
      await page.getByText("Text", { exact: true }).click();
      await page.getByLabel("The layout as text").waitFor();
      await violatesNothing("a layout as text");
    });
  });
}
