import { expect, type Page, test } from "@playwright/test";
import { countActs, MOST_ACTS } from "./acts";
import { expectNoViolation } from "./axe";
import { batchOf, invoicesOf } from "./batches";
import { editorOf, expectText, textOf, typeText } from "./document-text";
import { cellsUnlikeTruth } from "./truth";

/** What the template recognises of the invoices at hand; the first draft waits for the reading processes to start. */
async function expectRecognised(page: Page, sentence: string) {
  await expect(page.getByText(/invoices at hand are recognised/)).toContainText(sentence);
}

test("a template is made from an unplaced invoice in a few acts, and the vendor's batch is captured by it", async ({
  page,
  request,
}) => {
  const batch = await batchOf(request, "Tarnbeck, new", "../tests/corpus/tarnbeck-writer");
  await page.goto(`/batches/${batch}`);
  const acts = await countActs(page);
  await page.getByRole("link", { name: "Make a template" }).first().click();
  await expectRecognised(page, "8 of 8 invoices at hand are recognised");
  // The proof on all, then a second look at what was captured here.
  await page.getByRole("tab", { name: "All 8 invoices" }).click();
  await expect(page.locator("tbody tr:not(.under)")).toHaveCount(8);
  await page.getByLabel("Of each invoice").selectOption("fields");
  await expect(page.locator("tbody tr")).toHaveCount(8);
  await page.getByLabel("Of each invoice").selectOption("invoiceDate");
  await expect(page.locator("tbody tr").first()).toContainText(/\d{4}-\d\d-\d\dbeside|\d{4}-\d\d-\d\dunder/);
  // A step is added, seen on all invoices at once, and taken away.
  await page.getByLabel("Of each invoice").selectOption("invoiceNumber");
  const number = (await page.locator("tbody tr").first().locator("td").nth(2).innerText()).trim();
  const steps = page.getByRole("region", { name: "Steps of the invoice number" });
  await steps.getByLabel("Another step").selectOption("replace");
  await steps.getByLabel("replace").fill(number.slice(0, 2));
  await steps.getByLabel("with", { exact: true }).fill("ZZ");
  await steps.getByRole("button", { name: "Add it" }).click();
  await expect(page.locator("tbody tr").first()).toContainText(`ZZ${number.slice(2)}`);
  await steps.getByRole("button", { name: "Take it away" }).click();
  await expect(page.locator("tbody tr").first()).not.toContainText("ZZ");
  // The credit note states its total beside other words: pointed at, they are added to those that find the invoices'.
  await page.getByRole("button", { name: "inv-7.pdf" }).click();
  await page
    .getByRole("group", { name: "Words of page 1" })
    .getByRole("button", { name: /23,533.62/ })
    .click();
  const panel = page.getByRole("region", { name: "What is this?" });
  await panel.getByLabel(/is the$/).selectOption("total");
  const added = panel.getByRole("button", {
    name: /^beside “CREDIT TOTAL”, where what the template says finds nothing/,
  });
  await expect(added).toContainText("fits on 7 of 7 others");
  await added.click();
  await expect(page.locator('[data-value="total"]')).toContainText("23,533.62");
  await page.getByRole("tab", { name: "Aloud" }).click();
  await expect(page.getByRole("list", { name: "The template read aloud" })).toContainText(
    /The total is the money beside “/,
  );
  await page.getByRole("tab", { name: "How sure" }).click();
  await expect(page.getByRole("region", { name: "Certain, by the figures themselves" })).toContainText(
    "it multiplies out or adds up on all 4 rows",
  );
  await page.getByRole("button", { name: "Rehearse", exact: true }).click();
  await expect(page.getByRole("region", { name: "Rehearsal" })).toContainText(
    "8○ better: captured, or clear",
  );
  await page.getByRole("button", { name: "Publish version 1" }).click();
  await expect(page).toHaveURL(new RegExp(`/batches/${batch}$`));
  await (await request.get(`/api/v1/batches/${batch}/events`)).text();
  const invoices = await invoicesOf(request, batch);
  expect(await cellsUnlikeTruth(request, invoices, "../tests/corpus/tarnbeck-writer")).toEqual([]);
  expect(invoices.filter((invoice) => invoice.state === "clear").length).toBeGreaterThanOrEqual(4);
  const taken = await acts();
  console.log(`A template for a corpus family took ${taken} acts.`);
  expect(taken).toBeLessThanOrEqual(MOST_ACTS);
});

test("by the keyboard alone a value is pointed at, found again in a way that is proved, and the template published", async ({
  page,
  request,
}) => {
  const batch = await batchOf(request, "Wendmark, new", "../tests/corpus/wendmark-pdfmake", /inv-[1-4]/);
  const first = (await invoicesOf(request, batch)).find((invoice) => invoice.file === "inv-1.pdf");
  await page.goto(`/desk/${first?.id}`);
  await expectRecognised(page, "4 of 4 invoices at hand are recognised");
  const acts = await countActs(page);
  // From word to word: the status stands under the due date.
  const words = page.getByRole("group", { name: "Words of page 1" });
  await words.getByRole("button", { name: "#1790" }).focus();
  await page.keyboard.press("ArrowDown");
  await expect(
    words.getByRole("button", { name: /^(Date:|01\.07\.2026)$/ }).and(page.locator(":focus")),
  ).toBeVisible();
  await words.getByRole("button", { name: "Due", exact: true }).last().focus();
  await page.keyboard.press("Enter");
  const panel = page.getByRole("region", { name: "What is this?" });
  // What was pointed at is asked about at once.
  await expect(panel.getByLabel("“Due” is the")).toBeFocused();
  await page.keyboard.type("another");
  await page.keyboard.press("Tab");
  await panel.getByLabel("Its name").fill("paymentState");
  const way = panel.getByRole("button", { name: /^beside “Status”/ }).first();
  await expect(way).toContainText("fits on 3 of 3 others");
  await way.focus();
  await page.keyboard.press("Enter");
  await expect(page.locator('[data-value="paymentState"]')).toContainText("Due");
  for (const name of ["Rehearse", "Publish version 1"]) {
    const act = page.getByRole("button", { name, exact: true });
    await expect(act).toBeEnabled();
    await act.focus();
    await page.keyboard.press("Enter");
  }
  await expect(page).toHaveURL(new RegExp(`/batches/${batch}$`));
  console.log(`A value pointed at by the keyboard and saved took ${await acts()} acts.`);
  const saved = await (await request.get("/api/v1/templates/wendmark-druck-display")).json();
  expect(saved.document.fields.paymentState.where.beside).toBe("Status");
});

test("work on the desk is kept, steps back undo, and a faulty template says where its fault is and cannot be rehearsed", async ({
  page,
  request,
}) => {
  const batch = await batchOf(request, "Hollin, new", "../tests/corpus/hollin-latex", /inv-[1-2]/);
  const id = (await invoicesOf(request, batch))[0]?.id;
  await page.goto(`/desk/${id}`);
  await expectRecognised(page, "2 of 2 invoices at hand are recognised");
  await page.getByLabel("Template for the vendor").fill("Hollin and Wray");
  await expect(page.locator('[data-value="vendorName"]')).toContainText("Hollin and Wray");
  await page.reload();
  await expect(page.getByLabel("Template for the vendor")).toHaveValue("Hollin and Wray");
  await page.getByRole("tab", { name: "As text" }).click();
  const whole = await textOf(page);
  await typeText(page, whole.replace('"iban"', '"ibann"'));
  const faults = page.getByRole("list", { name: "What is wrong with the template" });
  await expect(faults).toContainText("“iban” is");
  await expect(page.getByRole("button", { name: "Rehearse", exact: true })).toBeDisabled();
  await faults.getByRole("button").first().click();
  await expect(editorOf(page)).toBeFocused();
  expect(await page.evaluate(() => window.getSelection()?.toString())).toContain("ibann");
  // The fault is marked in the text, too.
  await expect(page.locator(".cm-lintRange-error")).toHaveText('"ibann"');
  await page.getByRole("button", { name: "Step back" }).click();
  await expectText(page, whole);
  // Keys and values are offered as the schema allows them, at the place where one types.
  await typeText(page, '{ "reads": { "dates": "" } }');
  for (let step = 0; step < 5; step++) {
    await page.keyboard.press("ArrowLeft");
  }
  await page.keyboard.press("Control+Space");
  const offered = page.getByRole("listbox").getByRole("option");
  await expect(offered).toHaveText(['"day-first"', '"month-first"', '"year-first"']);
  await offered.first().click();
  await expectText(page, '{ "reads": { "dates": "day-first" } }');
  await page.keyboard.press("Control+End");
  for (let step = 0; step < 4; step++) {
    await page.keyboard.press("ArrowLeft");
  }
  await page.keyboard.insertText(", ");
  await page.keyboard.press("Control+Space");
  await expect(offered).toHaveText(['"currency"', '"decimal"', '"grouping"', '"tax"']);
  await page.keyboard.press("Escape");
  await typeText(page, whole);
  await expect(page.getByRole("button", { name: "Rehearse", exact: true })).toBeEnabled();
  expect(
    (await (await request.get("/api/v1/templates")).json()).map((one: { vendor: string }) => one.vendor),
  ).not.toContain("Hollin and Wray");
});

test("an edge is moved on the second page of an invoice, and stays where it was on the first", async ({
  page,
  request,
}) => {
  const batch = await batchOf(
    request,
    "Castellan, on two pages",
    "../tests/families/castellan-prawn",
    /inv-[58]/,
  );
  const id = (await invoicesOf(request, batch)).find((one) => one.file === "inv-5.pdf")?.id;
  await page.goto(`/desk/${id}`);
  await expectRecognised(page, "2 of 2 invoices at hand are recognised");
  await page.getByRole("tab", { name: "As text" }).click();
  const blocks = async () => JSON.parse(await textOf(page)).blocks;
  const drafted = await blocks();

  await page.getByRole("button", { name: "Show the columns' edges" }).click();
  const edges = page.getByRole("slider", { name: "Between description and quantity" });
  await expect(edges).toHaveCount(2);
  const [first, second] = [edges.first(), edges.last()];
  const before = await first.getAttribute("aria-valuetext");
  const at = Number(await second.getAttribute("aria-valuenow"));
  await page.getByLabel("An edge that is moved holds").selectOption("on its page and those after it");
  await second.focus();
  await page.keyboard.press("ArrowLeft");
  await expect(second).toHaveAttribute(
    "aria-valuetext",
    `${at - 1} points from the left, said by the template`,
  );
  await expect(first).toHaveAttribute("aria-valuetext", before ?? "");
  expect((await blocks())[0].edgesOn[0].pages).toEqual([2, "last"]);
  expect((await blocks())[0].edgesOn[0].columns.quantity[0]).toBe(at - 1);
  expect((await blocks())[0].columns).toEqual(drafted[0].columns);
  await expectRecognised(page, "2 of 2 invoices at hand are recognised");

  // What is taken back there, or said of all pages, is said of none apart.
  await second.focus();
  await page.keyboard.press("Delete");
  await expect.poll(blocks).toEqual(drafted);
  await page.getByRole("button", { name: "Step back" }).click();
  await page.getByLabel("An edge that is moved holds").selectOption("on all pages");
  await first.focus();
  await page.keyboard.press("ArrowLeft");
  await expect.poll(async () => (await blocks())[0].edgesOn).toBeUndefined();
  expect((await blocks())[0].columns.quantity.edges).toHaveLength(2);
});

test("rows are said by pointing: headings found anew, a column named, its edge moved", async ({
  page,
  request,
}) => {
  const batch = await batchOf(request, "Skerryvane, new", "../tests/families/skerryvane-fop", /inv-[1-3]/);
  const id = (await invoicesOf(request, batch)).find((one) => one.file === "inv-1.pdf")?.id;
  await page.goto(`/desk/${id}`);
  await expectRecognised(page, "3 of 3 invoices at hand are recognised");
  await page.getByRole("tab", { name: "As text" }).click();
  const template = async () => JSON.parse(await textOf(page));
  const columnsOf = async () => (await template()).blocks[0].columns as Record<string, { edges?: number[] }>;
  const drafted = await columnsOf();

  // A colleague has spoilt the rows: the clerk points at a heading, and they are there again.
  const spoilt = await template();
  spoilt.blocks[0] = {
    name: "goods",
    columns: { amount: { heading: "Sum total" } },
    row: { begins: { filled: "amount" } },
  };
  await typeText(page, JSON.stringify(spoilt));
  await expectRecognised(page, "0 come out clear");
  const words = page.getByRole("group", { name: "Words of page 1" });
  const panel = page.getByRole("region", { name: "What is this?" });
  await words.getByRole("button", { name: "Description", exact: true }).click();
  await panel.getByLabel("“Description” is the").selectOption("headings");
  const ways = panel.getByRole("list", { name: "Ways to take the rows" });
  await expect(ways).toContainText("5 rows here; 2 of 3 invoices clear");
  await ways.getByRole("button").first().click();
  expect(Object.keys(await columnsOf())).toEqual(Object.keys(drafted));

  await words.getByRole("button", { name: "Unit", exact: true }).first().click();
  await panel.getByLabel("“Unit” is the").selectOption("column");
  await panel.getByLabel("Of the column").selectOption("another value …");
  await panel.getByLabel("Its name").fill("packing");
  await ways.getByRole("button").first().click();
  expect(Object.keys(await columnsOf())).toContain("packing");
  await page.getByRole("button", { name: "Step back" }).click();

  await page.getByRole("button", { name: "Show the columns' edges" }).click();
  const edge = page.getByRole("slider", { name: "Between description and quantity" });
  const before = Number(await edge.getAttribute("aria-valuenow"));
  await edge.focus();
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(edge).toHaveAttribute(
    "aria-valuetext",
    `${before - 10} points from the left, said by the template`,
  );
  expect((await columnsOf()).description?.edges?.[1]).toBe(before - 10);
  expect((await columnsOf()).quantity?.edges?.[0]).toBe(before - 10);
  // To read the text is to go to it.
  await edge.press("Delete");
  await expect.poll(async () => (await columnsOf()).quantity?.edges).toBeUndefined();
  const box = await edge.boundingBox();
  if (box) {
    await page.mouse.move(box.x + 4, box.y + 20);
    await page.mouse.down();
    await page.mouse.move(box.x - 16, box.y + 20, { steps: 4 });
    await page.mouse.up();
  }
  await expect.poll(async () => (await columnsOf()).quantity?.edges?.[0]).toBeLessThan(before);
  await page.getByRole("button", { name: "Step back" }).click();

  await page.getByRole("button", { name: "Other ways to take the rows" }).click();
  const others = page.getByRole("region", { name: "Other ways to take the rows" });
  await expect(others.getByRole("button").nth(1)).toContainText("as it is5 rows here; 2 of 3 invoices clear");
});

test("invoices at hand as files lead to the desk, where each word that is not taken is marked", async ({
  page,
}) => {
  const begin = async (files: string[]) => {
    await page.goto("/templates");
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "Begin from invoices" }).click();
    await (await chooser).setFiles(files);
  };
  await begin(["e2e/desk.spec.ts"]);
  // What is no invoice is told where a batch tells it.
  await expect(page).toHaveURL(/\/batches\/\d+$/);
  await expect(page.getByRole("main")).toContainText("This is not a PDF");

  await begin([1, 2].map((at) => `../tests/families/ormsvik-tcpdf/inv-${at}.pdf`));
  await expect(page).toHaveURL(/\/desk\/\d+$/);
  await expectRecognised(page, "2 of 2 invoices at hand are recognised");
  await page.getByRole("button", { name: "Show what was not taken" }).click();
  const said = page.getByRole("status", { name: "What became of the printed words" });
  await expect(said).toContainText(/[1-9]\d* printed words in captured values/);
  const notTaken = page.locator('[data-page="1"] [data-fate="not-taken"]');
  const before = await notTaken.count();
  expect(before).toBeGreaterThan(0);
  // A value that is not captured any more is seen among what was not taken.
  const total = page.locator('[data-value="total"]');
  await total.click();
  await page.getByRole("button", { name: "Leave the total out of the template" }).click();
  await expect(total).not.toContainText(/\d/);
  await expect.poll(() => notTaken.count()).toBeGreaterThan(before);
  await page.getByRole("button", { name: "Step back" }).click();
  await expect.poll(() => notTaken.count()).toBe(before);
  await page.getByRole("button", { name: "Hide what was not taken" }).click();
  await expect(notTaken).toHaveCount(0);
});

test("a held invoice leads to its own template, and a document of which nothing can be drafted says so", async ({
  page,
  request,
}) => {
  await page.goto("/batches/1");
  await page.getByRole("row").nth(1).getByRole("link").first().click();
  await page.getByRole("link", { name: "Mend the template" }).click();
  await expect(page.getByLabel("Template for the vendor")).not.toHaveValue("");
  await expectRecognised(page, "6 of 6 invoices at hand are recognised");

  const opened = await (await request.post("/api/v1/batches", { data: { name: "A letter" } })).json();
  await request.post(`/api/v1/batches/${opened.id}/documents`, {
    multipart: { files: { name: "letter.pdf", mimeType: "application/pdf", buffer: letter() } },
  });
  await (await request.get(`/api/v1/batches/${opened.id}/events`)).text();
  await page.goto(`/desk/${(await invoicesOf(request, opened.id))[0]?.id}`);
  await expect(page.getByRole("alert")).toContainText("Nothing on the samples looks like an invoice");
});

for (const colorScheme of ["light", "dark"] as const) {
  test.describe(colorScheme, () => {
    test.use({ colorScheme });

    test("the desk violates no rule of accessibility", async ({ page, request }) => {
      const batch = await batchOf(request, `Café, ${colorScheme}`, "../tests/corpus/cafe-tcpdf", /inv-[1-2]/);
      await page.goto(`/desk/${(await invoicesOf(request, batch))[0]?.id}`);
      await expectRecognised(page, "2 of 2");
      await page.getByRole("img", { name: "Page 1" }).waitFor();
      await page.getByRole("button", { name: "51616", exact: true }).first().click();
      for (const tab of ["Captured", "All 2 invoices", "How sure", "Aloud", "As text"]) {
        await page.getByRole("tab", { name: tab }).click();
        if (tab === "As text") {
          // The editor is loaded when it is first opened.
          await page.getByLabel("The template as text").waitFor();
        }
        // The page beside the tabs stays as it is.
        await expectNoViolation(page, tab, tab === "Captured" ? undefined : "[role=tabpanel]");
      }
    });
  });
}

/** A PDF of one page that is no invoice. */
function letter(): Buffer {
  const content = "BT /F1 10 Tf 50 700 Td (Dear all, thank you for the day out.) Tj ET";
  const parts = [
    "<< /Type /Catalog /Pages 2 0 R >>",
    "<< /Type /Pages /Kids [4 0 R] /Count 1 /MediaBox [0 0 595 842] >>",
    "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>",
    "<< /Type /Page /Parent 2 0 R /Resources << /Font << /F1 3 0 R >> >> /Contents 5 0 R >>",
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
  ];
  let pdf = "%PDF-1.4\n";
  const places = parts.map((part, index) => {
    const at = pdf.length;
    pdf += `${index + 1} 0 obj\n${part}\nendobj\n`;
    return at;
  });
  const start = pdf.length;
  pdf += `xref\n0 6\n0000000000 65535 f \n${places.map((at) => `${String(at).padStart(10, "0")} 00000 n \n`).join("")}trailer\n<< /Root 1 0 R /Size 6 >>\nstartxref\n${start}\n%%EOF\n`;
  return Buffer.from(pdf, "latin1");
}
