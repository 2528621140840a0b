import { readFileSync } from "node:fs";
import { type APIRequestContext, expect, test } from "@playwright/test";
import type { InvoiceSummary } from "../src/api/client";
import { expectNoViolation } from "./axe";

async function invoices(request: APIRequestContext, batch = 1): Promise<InvoiceSummary[]> {
  return (await request.get(`/api/v1/batches/${batch}/invoices`)).json();
}

async function idOf(request: APIRequestContext, file: string): Promise<number> {
  const found = (await invoices(request)).find((invoice) => invoice.file === file);
  expect(found, file).toBeDefined();
  return found?.id ?? 0;
}

for (const colorScheme of ["light", "dark"] as const) {
  test.describe(colorScheme, () => {
    test.use({ colorScheme });

    test("no page violates a rule of accessibility", async ({ page, request }) => {
      await page.goto("/");
      await expect(page.getByRole("link", { name: "Kestrel Sound Ferries, November" })).toBeVisible();
      await expectNoViolation(page);
      await page.goto("/batches/1");
      await expect(page.getByRole("row")).toHaveCount(25);
      await expectNoViolation(page);
      await page.goto(`/invoices/${await idOf(request, "brinewood-chandlery-05.pdf")}`);
      await page.getByRole("img", { name: "Page 1" }).waitFor();
      await page
        .getByRole("list", { name: "What to look at" })
        .getByRole("button", { name: /^▲? ?Line 2/ })
        .click();
      await expectNoViolation(page);
      await page.goto("/nowhere");
      await expectNoViolation(page);
    });
  });
}

test("a batch tells what to look at first, and the filter that a clerk sets stays", async ({ page }) => {
  await page.goto("/batches/1");
  const rows = page.getByRole("row");
  await expect(rows.nth(1)).toContainText("▲ held");
  await expect(rows.nth(1)).toContainText(
    "Line 2: 5.7 × 5.29 EUR comes to 30.15 EUR; the invoice states 30.51 EUR",
  );
  await page.getByText("To look at 4").click();
  await expect(rows).toHaveCount(5);
  await page.reload();
  await expect(rows).toHaveCount(5);
  await page.getByText("All 24").click();
  await expect(rows).toHaveCount(25);
});

test("a value shows its place on the page, and a place its value", async ({ page, request }) => {
  await page.goto(`/invoices/${await idOf(request, "skerrow-sail-loft-02.pdf")}`);
  const total = page.locator('[data-value="total"]');
  await expect(total).toContainText("50,706.26 EUR");
  await page.locator('[data-mark="total"]').waitFor();
  await total.click();
  const mark = page.locator('[data-mark="total"]');
  await expect(mark).toHaveClass(/chosen/);
  await expect(mark).toBeInViewport();
  await expect(page.locator(".connector path")).toHaveAttribute("d", /^M /);

  await page.locator('[data-mark="lines[3].amount"]').click();
  const cell = page.locator('[data-value="lines[3].amount"]');
  await expect(cell).toBeFocused();
  await expect(cell).toHaveClass(/chosen/);
  await page.keyboard.press("ArrowDown");
  await expect(page.locator('[data-value="lines[4].itemCode"]')).toBeFocused();
  await expect(page.locator('[data-mark="lines[4].itemCode"]')).toHaveClass(/chosen/);
});

test("a file with several invoices shows each on its own pages, and a value tells its way from print to figure", async ({
  page,
  request,
}) => {
  const folder = "../tests/families/northbank-jspdf";
  await request.post("/api/v1/templates", {
    headers: { "content-type": "application/json" },
    data: readFileSync(`${folder}/northbank.template.json`, "utf8"),
  });
  const batch = await (await request.post("/api/v1/batches", { data: { name: "Several" } })).json();
  await page.goto(`/batches/${batch.id}`);
  const address = `/api/v1/batches/${batch.id}`;
  await expect(page.getByText("This batch is empty.")).toBeVisible();
  // The list is answered as it was before, until the counts are answered as they are after the capture.
  let counted = false;
  await page.route(`**${address}/invoices?*`, (route) =>
    counted ? route.continue() : route.fulfill({ json: [] }),
  );
  await page.route(`**${address}`, async (route) => {
    await expect
      .poll(async () => {
        const { documents, waiting } = await (await request.get(address)).json();
        return documents > 0 && waiting === 0;
      })
      .toBe(true);
    await route.continue();
    counted = true;
  });
  await page.locator("input[type=file]").first().setInputFiles(`${folder}/multi.pdf`);
  await page.getByText(", pages 2–3 of 4").waitFor();
  await expect(page.getByRole("row")).toHaveCount(4);
  await page.unrouteAll();

  await page.getByRole("link", { name: "NB70273" }).click();
  await page.getByRole("img", { name: "Page 2" }).waitFor();
  await expect(page.getByRole("img", { name: /^Page \d/ })).toHaveCount(2);
  await page.locator('[data-value="lines[2].quantity"]').click();
  await expect(page.locator(".trace p")).toHaveText(
    "row 2, quantity: printed “51kg” on page 2, column quantity → splitUnit: “51”; = quantity × unit price = amount (line 2)",
  );
  await expectNoViolation(page);
});

test("lists under rows stand under them", async ({ page, request }) => {
  const folder = "../tests/families/seagrass-reportlab";
  await request.post("/api/v1/templates", {
    headers: { "content-type": "application/json" },
    data: readFileSync(`${folder}/seagrass.template.json`, "utf8"),
  });
  const batch = await (await request.post("/api/v1/batches", { data: { name: "Lists" } })).json();
  await page.goto(`/batches/${batch.id}`);
  await page.locator("input[type=file]").first().setInputFiles(`${folder}/inv-4.pdf`);
  await page.getByRole("link", { name: "SME/26/104" }).click();
  const second = page.getByRole("row", { name: /^2 Hand-held radio/ });
  await expect(second.locator("xpath=following-sibling::tr[1]")).toHaveText("serials: serial K3509");
  await expectNoViolation(page);
});

test("a mark stands over its printed figures", async ({ page, request }) => {
  const id = await idOf(request, "port-ellery-galley-01.pdf");
  await page.goto(`/invoices/${id}`);
  await page.locator('[data-mark="total"]').waitFor();
  const invoice = await (await request.get(`/api/v1/invoices/${id}`)).json();
  const [leaf, mark] = [
    await page.locator(".leaf").first().boundingBox(),
    await page.locator('[data-mark="total"]').boundingBox(),
  ];
  const scale = (leaf?.width ?? 0) / 595;
  expect((mark?.x ?? 0) - (leaf?.x ?? 0)).toBeCloseTo(invoice.fields.total.box.left * scale, 0);
  expect((mark?.y ?? 0) - (leaf?.y ?? 0)).toBeCloseTo(invoice.fields.total.box.top * scale, 0);
});

test("a clear invoice is approved by the keyboard, a held one only with a reason, and words typed stay", async ({
  page,
  request,
}) => {
  await page.goto(`/invoices/${await idOf(request, "halvard-marine-diesel-01.pdf")}`);
  await expect(page.getByText("○ clear")).toBeVisible();
  await page.keyboard.press("Control+Enter");
  await expect(page.getByText("● approved")).toBeVisible();

  await page.goto(`/invoices/${await idOf(request, "halvard-marine-diesel-05.pdf")}`);
  await expect(page.getByText("▲ held")).toBeVisible();
  await page.keyboard.press("Control+Enter");
  const reason = page.getByLabel("Why it is right all the same");
  await expect(page.getByRole("button", { name: "Approve", exact: true })).toBeDisabled();
  await reason.fill("Total corrected by credit note HMD/77");
  await page.reload();
  await page.getByRole("button", { name: "Approve all the same" }).click();
  await expect(reason).toHaveValue("Total corrected by credit note HMD/77");
  await page.getByRole("button", { name: "Approve", exact: true }).click();
  await expect(page.getByText("● approved")).toBeVisible();
  await expect(page.getByText("because: Total corrected by credit note HMD/77")).toBeVisible();

  await page.goto("/batches/1");
  await page.getByRole("button", { name: "Post 2 approved" }).click();
  // What the run would come to stands there before it is made.
  const question = page.getByRole("dialog", { name: /^Post Kestrel/ });
  await expect(question.getByText(/^Run 1 would post 2 invoices in \d+ records\.$/)).toBeVisible();
  await expect(question.getByText("34,202.94 GBP")).toBeVisible();
  await question.getByRole("button", { name: "Post 2 invoices" }).click();
  await expect(page.getByText("■ Run 1: 2 invoices.")).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Fetch the file" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("posting-run-1.csv");
});

test("rows are copied so that a spreadsheet takes them cell by cell, and adds up to what the invoice states", async ({
  page,
  request,
}) => {
  await page.context().grantPermissions(["clipboard-read", "clipboard-write"]);
  const id = await idOf(request, "brinewood-chandlery-02.pdf");
  const invoice = await (await request.get(`/api/v1/invoices/${id}`)).json();
  await page.goto(`/invoices/${id}`);
  await page.getByRole("button", { name: "Copy for a spreadsheet" }).click();
  await expect(page.getByText(`${invoice.lines.length} rows copied`)).toBeVisible();
  const [text, html] = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const as = async (type: string) => (await item?.getType(type))?.text() ?? "";
    return [await as("text/plain"), await as("text/html")];
  });
  const [headings, ...rows] = (text ?? "").split("\n").map((line) => line.split("\t"));
  expect(headings).toContain(`amount ${invoice.currency}`);
  const amount = (headings ?? []).indexOf(`amount ${invoice.currency}`);
  expect(rows.length).toBe(invoice.lines.length);
  const sum = rows.reduce((so, row) => so + Math.round(Number(row[amount]) * 100), 0);
  expect(sum).toBe(Math.round(Number(invoice.fields.subtotal.value) * 100));
  expect(html?.match(/<tr>/g)?.length).toBe(invoice.lines.length + 1);

  await page.goto("/batches/1");
  await page.getByRole("button", { name: "Copy for a spreadsheet" }).click();
  await expect(page.getByText("24 invoices copied")).toBeVisible();
  const list = await page.evaluate(() => navigator.clipboard.readText());
  expect(list).toContain(`\t${invoice.invoiceNumber ?? invoice.fields.invoiceNumber.value}\t`);
  expect(list.split("\n")).toHaveLength(25);
});

test("files are taken in from the page; a bad one is set aside with its reason, and markup in names stays text", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByLabel("Name of the new batch").fill("<b>Second</b>");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "<b>Second</b>" })).toBeVisible();
  await expect(page.getByText("This batch is empty.")).toBeVisible();
  await page.getByLabel("Files to take in").setInputFiles([
    {
      name: "again.pdf",
      mimeType: "application/pdf",
      buffer: readFileSync("../samples/port-ellery-galley/port-ellery-galley-03.pdf"),
    },
    {
      name: "<img src=x onerror=alert(1)>.pdf",
      mimeType: "application/pdf",
      buffer: Buffer.from("no PDF"),
    },
  ]);
  await expect(page.getByText("2 of 2 files taken in")).toBeVisible();
  await expect(page.getByRole("cell", { name: "<img src=x onerror=alert(1)>.pdf" })).toBeVisible();
  await expect(
    page.getByRole("cell", { name: "This is not a PDF: it does not begin as one." }),
  ).toBeVisible();
  // The same invoice is in the demo's batch already.
  const copy = page.getByRole("cell", { name: /This is the same file as port-ellery-galley-\d+\.pdf/ });
  await expect(copy).toContainText("Kestrel Sound Ferries, November");

  // A copy is set aside with its reason, and is held no more.
  await page.getByRole("link", { name: /PE\d+/ }).first().click();
  await page.getByRole("button", { name: "Set aside …" }).click();
  await expect(page.getByRole("button", { name: "Set aside", exact: true })).toBeDisabled();
  await page.getByLabel("Why it is set aside").fill("The same file, taken in twice.");
  await page.getByRole("button", { name: "Set aside", exact: true }).click();
  await expect(page.getByText("× returned")).toBeVisible();
  await expect(page.getByText("set aside by")).toContainText("because: The same file, taken in twice.");
});

test("what no sum checks and what is part of no row is said, and leads to its place", async ({
  page,
  request,
}) => {
  const folder = "../tests/corpus/fuel-jspdf";
  await request.post("/api/v1/templates", { data: readFileSync(`${folder}/fuel.template.json`, "utf8") });
  const batch = await (await request.post("/api/v1/batches", { data: { name: "Fuel" } })).json();
  await request.post(`/api/v1/batches/${batch.id}/documents`, {
    multipart: {
      files: { name: "inv-5.pdf", mimeType: "application/pdf", buffer: readFileSync(`${folder}/inv-5.pdf`) },
    },
  });
  await page.goto(`/batches/${batch.id}`);
  await page.getByRole("link").filter({ hasText: /\d{4}/ }).first().click();
  const unproved = page.getByRole("note", { name: "Not checked by any sum" });
  await expect(unproved).toContainText("quantity of rows");
  await expect(page.getByText(/printed texts? (is|are) no part of a row/)).toBeVisible();
  await expectNoViolation(page);
});

test("files dropped on a batch are taken in", async ({ page, request }) => {
  const batch = await (await request.post("/api/v1/batches", { data: { name: "Dropped" } })).json();
  await page.goto(`/batches/${batch.id}`);
  await expect(page.getByText("This batch is empty.")).toBeVisible();
  const files = await page.evaluateHandle(() => {
    const transfer = new DataTransfer();
    transfer.items.add(new File(["no PDF either"], "dropped.pdf", { type: "application/pdf" }));
    return transfer;
  });
  await page.dispatchEvent("body", "dragenter", { dataTransfer: files });
  const zone = page.getByText("Drop the files to take them into Dropped");
  await expect(zone).toBeVisible();
  await zone.dispatchEvent("drop", { dataTransfer: files });
  await expect(page.getByRole("cell", { name: "dropped.pdf" })).toBeVisible();
});

test("a decision is bound to what was shown, and says so when that has changed", async ({
  page,
  request,
}) => {
  const id = await idOf(request, "port-ellery-galley-06.pdf");
  const { revision } = await (await request.get(`/api/v1/invoices/${id}`)).json();
  await page.goto(`/invoices/${id}`);
  let sent = "";
  await page.route("**/approval", async (route) => {
    sent = (await route.request().headerValue("If-Match")) ?? "";
    // As if it had been captured again while the clerk read it.
    await route.continue({ headers: { ...route.request().headers(), "if-match": '"4711"' } });
  });
  await page.getByRole("button", { name: "Approve" }).click();
  await expect(page.getByRole("alert")).toContainText(
    `Invoice ${id} is not as it was shown: it was captured again by the template`,
  );
  expect(sent).toBe(`"${revision}"`);
  await expect(page.getByRole("button", { name: "Approve" })).toBeVisible();
});

test("a full disk is told on every page until there is room", async ({ page }) => {
  let isWell = false;
  const sentence = "The disk of the data folder is full: nothing was taken in and nothing was changed.";
  await page.route("**/api/v1/state", (route) =>
    route.fulfill({
      json: isWell ? { isWell, code: "", sentence: "" } : { isWell, code: "disk-full", sentence },
    }),
  );
  await page.goto("/batches/1");
  await expect(page.getByRole("alert")).toContainText(sentence);
  await expectNoViolation(page);
  isWell = true;
  await expect(page.getByRole("alert")).toHaveCount(0);
});

test("what cannot be shown says so", async ({ page }) => {
  await page.goto("/invoices/9999");
  await expect(page.getByRole("alert")).toContainText("There is no invoice 9999.");
  await page.goto("/nowhere");
  await expect(page.getByText("There is no such page.")).toBeVisible();
});
