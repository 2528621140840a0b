import { type APIRequestContext, expect, type Page, test } from "@playwright/test";

interface Value {
  value: string;
}
interface Row {
  number: number;
  cells: Record<string, Value>;
}
interface Invoice {
  id: number;
  state: string;
  fields: Record<string, Value>;
  lines: Row[];
  taxes: Row[];
}

/** What was misread on an invoice, and what a clerk does about it. */
interface Fault {
  what: string;
  acts: (invoice: Invoice) => object[];
  /** The text of the proposal that is right, or the keys and words that mend it without one. */
  mend: (invoice: Invoice) => { proposal: string } | { keys: string[]; typed?: string };
}

const cell = (invoice: Invoice, row: number, column: string) =>
  invoice.lines[row - 1]?.cells[column]?.value ?? "";
const money = (amount: string) =>
  Number(amount).toLocaleString("en", { minimumFractionDigits: 2, maximumFractionDigits: 2 });
/** The first two neighbouring figures that differ, swapped. */
const swapped = (text: string) => text.replace(/(\d)(?!\1)(\d)/, "$2$1");
/** The last figure, another one. */
const slipped = (text: string) => text.replace(/\d$/, (figure) => String((Number(figure) + 3) % 10));

const entered = (of: string, text: string) => ({ act: "enter", of, text });

const FAULTS: Fault[] = [
  {
    what: "total, two figures swapped",
    acts: (one) => [entered("total", swapped(one.fields.total?.value ?? ""))],
    mend: (one) => ({ proposal: `Total: ${money(one.fields.total?.value ?? "")}` }),
  },
  {
    what: "amount of a row",
    acts: (one) => [entered("lines[2].amount", slipped(cell(one, 2, "amount")))],
    mend: (one) => ({ proposal: money(cell(one, 2, "amount")) }),
  },
  {
    what: "quantity of a row",
    acts: (one) => [entered("lines[1].quantity", `${cell(one, 1, "quantity")}0`)],
    mend: (one) => ({ proposal: cell(one, 1, "quantity") }),
  },
  {
    what: "unit price of a row",
    acts: (one) => [entered("lines[1].unitPrice", swapped(cell(one, 1, "unitPrice")))],
    mend: (one) => ({ proposal: money(cell(one, 1, "unitPrice")) }),
  },
  {
    what: "a row twice",
    acts: (one) => [
      {
        act: "add",
        after: "lines[1]",
        cells: Object.fromEntries(
          Object.entries(one.lines[0]?.cells ?? {}).map(([column, value]) => [column, value.value]),
        ),
      },
    ],
    mend: () => ({ proposal: "says the same" }),
  },
  {
    what: "a row struck out that is one",
    acts: () => [{ act: "strike", of: "lines[2]" }],
    mend: () => ({ keys: ["Control+z"] }),
  },
  {
    what: "amount of a tax",
    acts: (one) => [entered("taxes[1].amount", slipped(one.taxes[0]?.cells.amount?.value ?? ""))],
    mend: (one) => ({ proposal: money(one.taxes[0]?.cells.amount?.value ?? "") }),
  },
  {
    what: "rate of a tax",
    acts: (one) => [entered("taxes[1].rate", `${one.taxes[0]?.cells.rate?.value}5`)],
    mend: (one) => ({ proposal: `rate: ${one.taxes[0]?.cells.rate?.value} instead` }),
  },
  {
    what: "due before its date",
    acts: () => [entered("dueDate", "2020-01-31")],
    mend: (one) => ({ keys: ["n", "Enter"], typed: one.fields.dueDate?.value ?? "" }),
  },
  {
    what: "no invoice number",
    acts: () => [entered("invoiceNumber", "")],
    mend: (one) => ({ keys: ["n", "Enter"], typed: one.fields.invoiceNumber?.value ?? "" }),
  },
];

const MOST_KEYS = 3;

async function act(request: APIRequestContext, id: number, data: object) {
  const { revision } = await (await request.get(`/api/v1/invoices/${id}`)).json();
  const answer = await request.post(`/api/v1/invoices/${id}/corrections`, {
    data,
    headers: { "If-Match": `"${revision}"` },
  });
  return answer.ok();
}

const faults = new Map<number, { fault: Fault; invoice: Invoice }>();

test.afterEach(async ({ request }) => {
  for (const id of faults.keys()) {
    while (await act(request, id, { act: "undo" })) {
      // Until nothing is left to take back: the next test finds the demo as it was.
    }
  }
});

test("a session over ten findings, by keyboard alone", async ({ page, request }) => {
  test.setTimeout(180_000);
  const list = await (await request.get("/api/v1/batches/1/invoices")).json();
  const clear = list
    .filter((one: { state: string; lines: number }) => one.state === "clear" && one.lines >= 4)
    .slice(0, FAULTS.length);
  expect(clear).toHaveLength(FAULTS.length);
  for (const [index, { id }] of clear.entries()) {
    const fault = FAULTS[index] as Fault;
    const invoice = await (await request.get(`/api/v1/invoices/${id}`)).json();
    faults.set(id, { fault, invoice });
    for (const data of fault.acts(invoice)) {
      expect(await act(request, id, data), fault.what).toBe(true);
    }
  }

  await page.goto("/review");
  await page.locator("table.sheet tbody tr").first().waitFor();
  let [keys, walked] = [0, 0];
  await page.locator("body").press("Enter");
  const settled: string[] = [];
  while (settled.length < FAULTS.length) {
    expect(walked++).toBeLessThan(60);
    await expect(page).toHaveURL(/\/invoices\/\d+/);
    const id = Number(new URL(page.url()).pathname.split("/").at(-1));
    // What is pressed before the invoice is there goes nowhere.
    // It may be of another batch: the queue goes over all of them.
    const { file } = (await (await request.get(`/api/v1/invoices/${id}`)).json()).document;
    await expect(page).toHaveURL(new RegExp(`/invoices/${id}\\?`));
    await expect(page.locator(".captured .row.soft .row")).toContainText(/\d+ of \d+/);
    await expect(page.locator(".captured .row.soft").first()).toContainText(file);
    const known = faults.get(id);
    if (known && !settled.includes(known.fault.what)) {
      const pressed = await mend(page, known.fault, known.invoice);
      expect(pressed, known.fault.what).toBeLessThanOrEqual(MOST_KEYS);
      await expect(page.locator(".captured .state").first(), known.fault.what).toContainText("clear");
      keys += pressed;
      settled.push(known.fault.what);
    }
    if (settled.length < FAULTS.length) {
      await page.keyboard.press("Alt+PageDown");
      await expect(page).not.toHaveURL(new RegExp(`/invoices/${id}\\?`));
    }
  }
  console.log(
    `${FAULTS.length} findings were settled by ${keys} keys beside what was typed, and ${walked} to go on.`,
  );
});

/** Mends what is wrong, and counts the keys that are not text. */
async function mend(page: Page, fault: Fault, invoice: Invoice) {
  const way = fault.mend(invoice);
  if ("proposal" in way) {
    const proposals = page.getByRole("list", { name: "What would mend it" }).getByRole("listitem");
    await expect(proposals.filter({ hasText: way.proposal }).first(), fault.what).toBeVisible();
    const texts = await proposals.allInnerTexts();
    const at = texts.findIndex((text) => text.includes(way.proposal));
    await page.keyboard.press(String(at + 1));
    return 1;
  }
  await expect(page.locator(".captured .state").first(), fault.what).toContainText("held");
  for (const key of way.keys) {
    await page.keyboard.press(key);
  }
  if (way.typed === undefined) {
    return way.keys.length;
  }
  await expect(page.getByLabel(/^What the .* is/)).toBeFocused();
  await page.keyboard.press("Control+a");
  await page.keyboard.type(way.typed);
  await page.keyboard.press("Enter");
  return way.keys.length + 1;
}
