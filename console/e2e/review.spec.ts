import { type APIRequestContext, expect, type Page, test } from "@playwright/test";
import { expectNoViolation } from "./axe";

/** An invoice of the demo by its file. */
async function invoiceOf(request: APIRequestContext, file: string) {
  const invoices = await (await request.get("/api/v1/batches/1/invoices")).json();
  const { id } = invoices.find((invoice: { file: string }) => invoice.file === file);
  return await (await request.get(`/api/v1/invoices/${id}`)).json();
}

async function correct(request: APIRequestContext, id: number, data: object) {
  const { revision } = await (await request.get(`/api/v1/invoices/${id}`)).json();
  const answer = await request.post(`/api/v1/invoices/${id}/corrections`, {
    data,
    headers: { "If-Match": `"${revision}"` },
  });
  expect(answer.status()).toBe(200);
  return await answer.json();
}

/** Takes everything back, so that the next test finds the demo as it was. */
async function takeAllBack(request: APIRequestContext, id: number) {
  for (;;) {
    const { revision } = await (await request.get(`/api/v1/invoices/${id}`)).json();
    const answer = await request.post(`/api/v1/invoices/${id}/corrections`, {
      data: { act: "undo" },
      headers: { "If-Match": `"${revision}"` },
    });
    if (!answer.ok()) {
      return;
    }
  }
}

/** Counts the keys of a session that are not text. */
function keysOn(page: Page) {
  let count = 0;
  return {
    press: async (key: string) => {
      count++;
      await page.keyboard.press(key);
    },
    count: () => count,
  };
}

const stateOf = (page: Page) => page.locator(".captured .state").first();

test("by keyboard alone a proposal is taken, taken back, and made again", async ({ page, request }) => {
  const { id, fields } = await invoiceOf(request, "port-ellery-galley-02.pdf");
  const total: string = fields.total.value;
  // Two figures of the total, swapped as a clerk may type them.
  const at = [...total].findIndex(
    (figure, index) => /\d{2}/.test(total.slice(index, index + 2)) && figure !== total[index + 1],
  );
  const swapped = total.slice(0, at) + total[at + 1] + total[at] + total.slice(at + 2);
  await correct(request, id, { act: "enter", of: "total", text: swapped });
  await page.goto(`/invoices/${id}`);
  await expect(stateOf(page)).toContainText("held");
  await expect(page.getByRole("list", { name: "What would mend it" })).toContainText("two figures swapped");
  const keys = keysOn(page);
  await keys.press("n");
  await keys.press("1");
  await expect(stateOf(page)).toContainText("clear");
  console.log(`A finding was settled by ${keys.count()} keys.`);
  expect(keys.count()).toBeLessThanOrEqual(3);
  await expect(page.locator("[data-value=total]")).toContainText("✎");
  await page.keyboard.press("Control+z");
  await expect(stateOf(page)).toContainText("held");
  await page.keyboard.press("Control+y");
  await expect(stateOf(page)).toContainText("clear");
  await takeAllBack(request, id);
});

test("a value is corrected by typing, by pointing at the page, and what was captured stays in sight", async ({
  page,
  request,
}) => {
  const { id, fields } = await invoiceOf(request, "brinewood-chandlery-05.pdf");
  await page.goto(`/invoices/${id}`);
  await page.locator("[data-value=purchaseOrder]").focus();
  await page.keyboard.press("Enter");
  await expect(page.getByLabel(/^What the purchase order is/)).toBeFocused();
  await page.keyboard.type("KSF-1");
  await page.keyboard.press("Enter");
  await expect(page.locator("[data-value=purchaseOrder]")).toContainText("✎ KSF-1");
  await expect(page.locator(".trace")).toContainText(`captured was “${fields.purchaseOrder.value}”`);
  // Pointed at: what the page says, in the vendor's own way of writing.
  await page.locator('[data-value="lines[2].amount"]').click();
  await page.getByRole("button", { name: "Correct" }).click();
  await page.locator('.word[aria-label="62,51"]').click();
  await page.getByRole("button", { name: "Enter it" }).click();
  await expect(page.locator('[data-value="lines[2].amount"]')).toContainText("62.51");
  // What cannot be the value is refused in a sentence, and stays typed.
  await page.locator("[data-value=total]").click();
  await page.getByRole("button", { name: "Correct" }).click();
  await page.getByLabel(/^What the total is/).fill("26.22O,66");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert")).toContainText("“26.22O,66” is no amount, so it cannot be the total.");
  await expect(page.getByLabel(/^What the total is/)).toHaveValue("26.22O,66");
  await takeAllBack(request, id);
});

test("a row is none, a row is added, and figures that do not add up pass only with a reason", async ({
  page,
  request,
}) => {
  const { id } = await invoiceOf(request, "brinewood-chandlery-05.pdf");
  await page.goto(`/invoices/${id}`);
  await page.locator('[data-value="lines[3].amount"]').focus();
  await page.keyboard.press("Delete");
  await expect(page.getByText(/Row 3 of lines is none/)).toBeVisible();
  await expect(page.locator('[data-value="lines[3].amount"]')).toHaveCount(0);
  await page.locator('[data-value="lines[2].amount"]').focus();
  await page.keyboard.press("Insert");
  const form = page.getByRole("form", { name: "A row that was not captured" });
  for (const [column, text] of [
    ["description", "Drinking water"],
    ["quantity", "8"],
    ["unit price", "8,11"],
    ["tax rate", "7"],
    ["amount", "64,88"],
  ] as const) {
    await form.getByLabel(column, { exact: true }).fill(text);
  }
  await form.getByRole("button", { name: "Add the row" }).click();
  await expect(page.locator('[data-value="lines[10].amount"]')).toContainText("64.88");
  // Only what the vendor printed wrong is left.
  await expect(page.getByRole("list", { name: "What to look at" }).getByRole("listitem")).toHaveCount(1);
  await page.locator('[data-value="lines[2].amount"]').focus();
  await page.keyboard.press("p");
  await expect(page.getByLabel(/^Why it may pass/)).toBeFocused();
  await page.keyboard.type("Agreed with the chandlery");
  await page.keyboard.press("Enter");
  await expect(stateOf(page)).toContainText("clear");
  await expect(page.getByText(/Let pass by .* because: Agreed with the chandlery/)).toBeVisible();
  await takeAllBack(request, id);
});

test("another template is chosen and left again, and a row is divided, by keyboard alone", async ({
  page,
  request,
}) => {
  const list = await (await request.get("/api/v1/batches/1/invoices")).json();
  const { id } = list.find(
    (one: { state: string; vendor: string }) => one.state === "clear" && one.vendor === "Brinewood Chandlery",
  );
  const before = await (await request.get(`/api/v1/invoices/${id}`)).json();
  await page.goto(`/invoices/${id}`);
  await page.getByRole("button", { name: "Template …" }).press("Enter");
  const choice = page.getByLabel("The template that this invoice is for");
  await expect(choice).toBeFocused();
  await expect(page.getByRole("button", { name: "Capture it by this one" })).toBeDisabled();
  // As a clerk types on a list: other tests' vendors begin with the same letter.
  await choice.pressSequentially("Skerrow Sail Loft");
  await choice.press("Enter");
  await page.getByRole("button", { name: "Capture it by this one" }).press("Enter");
  await expect(page.getByText(/A person chose the template skerrow-standard; by its cues/)).toBeVisible();
  await expect(page.locator(".captured .state").first()).toContainText("held");
  await page.getByRole("button", { name: "Template …" }).press("Enter");
  await page.getByRole("button", { name: "As its cues say" }).press("Enter");
  await expect(page.locator(".captured .state").first()).toContainText("clear");

  const row = before.lines[0];
  const words = row.cells.description.value.split(" ");
  await page.locator(`[data-value="lines[${row.number}].description"]`).focus();
  await page.keyboard.press("d");
  const below = page.getByRole("form", { name: "What belongs to the row below" });
  await below.getByLabel("description").fill(words.at(-1));
  await below.getByLabel("description").press("Enter");
  await expect(page.locator(`[data-value="lines[${before.lines.length + 1}].description"]`)).toHaveText(
    `✎ ${words.at(-1)}`,
  );
  await expect(page.locator(`[data-value="lines[${row.number}].description"]`)).toHaveText(
    `✎ ${words.slice(0, -1).join(" ")}`,
  );
  await page.locator(`[data-value="lines[${row.number}].description"]`).focus();
  await page.keyboard.press("Control+z");
  await expect(page.locator(".captured .state").first()).toContainText("clear");
});

test("two reviewers in two browsers: the second sees what the first did, and nothing is overwritten", async ({
  browser,
  request,
}) => {
  const { id } = await invoiceOf(request, "brinewood-chandlery-05.pdf");
  const open = async (name: string) => {
    const context = await browser.newContext();
    await context.addInitScript((who) => localStorage.setItem("daxlin.person", who), name);
    const page = await context.newPage();
    await page.goto(`/invoices/${id}`);
    await page.locator("[data-value=purchaseOrder]").focus();
    await page.keyboard.press("Enter");
    await expect(page.getByLabel(/^What the purchase order is/)).toBeFocused();
    return page;
  };
  const [mira, jon] = [await open("Mira"), await open("Jon")];
  await mira.keyboard.type("KSF-OTHER");
  await mira.keyboard.press("Enter");
  await expect(mira.locator("[data-value=purchaseOrder]")).toContainText("KSF-OTHER");
  await jon.keyboard.type("KSF-MINE");
  await jon.keyboard.press("Enter");
  await expect(jon.getByRole("alert")).toContainText(/is not as it was shown: it is held by Mira/);
  await expect(jon.locator("[data-value=purchaseOrder]")).toContainText("KSF-OTHER");
  // What Jon typed still stands there, and goes onto the invoice as Mira left it.
  await expect(jon.getByLabel(/^What the purchase order is/)).toHaveValue("KSF-MINE");
  await jon.keyboard.press("Enter");
  await expect(jon.locator("[data-value=purchaseOrder]")).toContainText("KSF-MINE");
  const told = await (await request.get(`/api/v1/history?invoice=${id}`)).json();
  expect(told.slice(0, 2).map((entry: { by: string; after: string }) => [entry.by, entry.after])).toEqual([
    ["Jon", "KSF-MINE"],
    ["Mira", "KSF-OTHER"],
  ]);
  await takeAllBack(request, id);
  await mira.context().close();
  await jon.context().close();
});

test("the queue leads from one held invoice to the next in the order chosen", async ({ page, request }) => {
  const queue = await (await request.get("/api/v1/review?order=amount")).json();
  await page.goto("/review");
  await page.getByLabel("In the order of").selectOption("amount");
  await expect(page.getByRole("row")).toHaveCount(queue.length + 1);
  await expect(page.getByRole("row").nth(1)).toContainText(queue[0].invoiceNumber);
  await page.locator("body").press("Enter");
  await expect(page).toHaveURL(new RegExp(`/invoices/${queue[0].id}\\?`));
  await expect(page.getByText(`1 of ${queue.length}`)).toBeVisible();
  await page.keyboard.press("Alt+PageDown");
  await expect(page).toHaveURL(new RegExp(`/invoices/${queue[1].id}\\?`));
  await page.goto("/review?search=no-such-number");
  await expect(page.getByText("No invoice is like that.")).toBeVisible();
});

test("an invoice is returned with a text that says in figures what is wrong", async ({ page, request }) => {
  const [held] = await (await request.get("/api/v1/review?search=Skerrow")).json();
  await page.goto(`/invoices/${held.id}`);
  await page.getByRole("button", { name: "Hand over …" }).click();
  await page.getByLabel("To whom").fill("Mira");
  await page.getByRole("button", { name: "Hand it over" }).click();
  await expect(page.getByRole("button", { name: "With Mira …" })).toBeVisible();
  await page.getByRole("button", { name: "Return …" }).click();
  const letter = page.getByLabel("What the vendor is told");
  await expect(letter).toHaveValue(
    new RegExp(held.firstFinding.slice(0, 30).replace(/[.*+?^${}()|[\]\\]/g, "\\$&")),
  );
  await page.getByLabel("Why it goes back").fill("The tax is wrong");
  // What was typed stands there again after the page was closed.
  await page.reload();
  await page.getByRole("button", { name: "Return …" }).click();
  await expect(page.getByLabel("Why it goes back")).toHaveValue("The tax is wrong");
  await page.getByRole("button", { name: "Return it" }).click();
  await expect(stateOf(page)).toContainText("returned");
  await expect(page.locator(".letter")).toContainText("Please send a corrected invoice");
});

for (const scheme of ["light", "dark"] as const) {
  test.describe(scheme, () => {
    test.use({ colorScheme: scheme });

    test("an invoice under correction violates no rule of accessibility", async ({ page, request }) => {
      const { id } = await invoiceOf(request, "brinewood-chandlery-05.pdf");
      await page.goto(`/invoices/${id}`);
      await page.locator('[data-value="lines[2].amount"]').focus();
      await page.keyboard.press("Enter");
      await expect(page.locator(".word").first()).toBeVisible();
      await expectNoViolation(page);
      await page.goto("/review");
      await expect(page.getByRole("row").nth(1)).toBeVisible();
      await expectNoViolation(page);
    });
  });
}
