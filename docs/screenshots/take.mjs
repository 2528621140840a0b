// Called by docs/screenshots/make: pictures of the console's pages, and of what commands print.
import { copyFileSync, mkdirSync, readFileSync, readdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { chromium } from "../../console/node_modules/@playwright/test/index.mjs";

const [, , scratch, held] = process.argv;
const here = dirname(fileURLToPath(import.meta.url));
const address = process.env.DAXLIN_SERVER;
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });

async function take(name, path, ready) {
  await page.goto(address + path);
  await page.locator(ready).first().waitFor();
  return () => page.screenshot({ path: join(here, `${name}.png`) });
}

await (await take("batch", "/batches/1", "table"))();
await (await take("to-look-at", "/review", "table"))();
await (await take("operation", "/operation", "table"))();
const invoice = await take("invoice", `/invoices/${held}`, "[data-mark=total]");
await page.keyboard.press("n");
await page.locator(".connector path").waitFor();
await page.locator(".proposals li").first().waitFor();
await invoice();

const unplaced = await (await fetch(`${address}/api/v1/batches/${process.env.DESK_BATCH}/invoices`)).json();
const desk = await take("desk", `/desk/${unplaced[0].id}`, "[data-mark=total]");
await page.getByText(/invoices at hand are recognised/).waitFor();
await desk();
await page.getByRole("button", { name: "SK-3107", exact: true }).first().click();
await page.getByLabel(/is the/).selectOption("invoiceNumber");
await page.locator(".ways li").first().waitFor();
await page.screenshot({ path: join(here, "desk-pointing.png") });

await page.getByRole("button", { name: "Leave it" }).click();
await page.getByRole("button", { name: "Show the columns' edges" }).click();
await page.getByRole("button", { name: "Item", exact: true }).click();
await page.getByLabel(/is the/).selectOption("headings");
await page.locator(".ways li").first().waitFor();
await page.screenshot({ path: join(here, "desk-rows.png") });
await page.getByRole("button", { name: "Leave it" }).click();
await page.getByRole("button", { name: "Rehearse", exact: true }).click();
await page.getByText("better: captured, or clear").waitFor();
await page.screenshot({ path: join(here, "rehearsal.png") });

// A vendor that prints another form after ten invoices, for the signs of a changed layout.
const json = { "Content-Type": "application/json" };
const slipway = {
  name: "slipway-paints",
  vendor: "Slipway Paints",
  reads: { currency: "EUR", dates: "day-first", decimal: ".", grouping: "," },
  recognise: { must: ["Slipway Paints"] },
  fields: {
    invoiceNumber: { where: { beside: "Invoice" } },
    invoiceDate: { where: { beside: "Date" } },
    total: { where: { beside: "Total" } },
  },
  blocks: [],
};
const save = (document, note) =>
  fetch(`${address}/api/v1/templates?note=${encodeURIComponent(note)}`, { method: "POST", headers: json, body: JSON.stringify(document) });
await save(slipway, "");
slipway.fields.dueDate = { where: { beside: "Pay by" } };
await save(slipway, "With the due date");
const paint = await browser.newPage();
const form = new FormData();
for (let number = 1; number <= 13; number++) {
  const due = number <= 10 ? "Pay by 01.12.2026" : "Payable within 14 days";
  await paint.setContent(
    ["Slipway Paints", `Invoice SP-${100 + number}`, "Date 01.11.2026", due, "Total 96.00 EUR"].map((line) => `<p>${line}</p>`).join(""),
  );
  form.append("files", new Blob([await paint.pdf()]), `slipway-${100 + number}.pdf`);
}
const opened = await (await fetch(`${address}/api/v1/batches`, { method: "POST", headers: json, body: '{"name":"Paints"}' })).json();
await fetch(`${address}/api/v1/batches/${opened.id}/documents`, { method: "POST", body: form });
await (await fetch(`${address}/api/v1/batches/${opened.id}/events`)).text();
await (await take("template", "/templates/slipway-paints", "section"))();

// A vendor's record kept by two persons, and a cover sheet's totals, of which one does not agree.
const act = (method, path, body, person, revision) =>
  fetch(`${address}/api/v1/${path}`, {
    method,
    headers: { ...json, "Daxlin-Person": person, ...(revision && { "If-Match": `"${revision}"` }) },
    body: JSON.stringify(body),
  }).then((answer) => answer.json());
const account = { iban: "DE10 0000 0000 0041 8226 00" };
let vendor = await (await fetch(`${address}/api/v1/vendors/1`)).json();
vendor = await act("PUT", "vendors/1", { name: vendor.name, otherNames: ["Brinewood Ship Stores"], currency: "EUR", terms: { days: 14, fromMonthEnd: false }, ledgerAccount: "6300", taxCode: "V19" }, "Mira", vendor.revision);
vendor = await act("POST", "vendors/1/accounts", { ...account, reason: "On the contract of 2024" }, "Mira", vendor.revision);
vendor = await act("POST", "vendors/1/accounts/confirmation", { ...account, reason: "Asked by telephone" }, "Jon", vendor.revision);
await act("POST", "vendors/1/accounts", { iban: "GB15 PEGS 0000 0033 1752 00", reason: "A letter of the vendor" }, "Mira", vendor.revision);
await (await take("vendor", "/vendors/1", "text=confirmed the bank account that Mira added"))();
const sheet = await (await fetch(`${address}/api/v1/batches/1/sheet`)).json();
const totals = sheet.controlTotals.map(({ currency, invoices, sum }) => ({ currency, invoices, sum: currency === "EUR" ? sum : (Number(sum) + 36).toFixed(2) }));
await act("PUT", "batches/1/control-totals", { totals }, "Mira", sheet.revision);
await (await take("sheet", "/batches/1/sheet", ".recharts-bar"))();
// An electronic invoice that came alone.
const electronic = await (await fetch(`${address}/api/v1/batches/${process.env.ELECTRONIC_BATCH}/invoices`)).json();
const plain = await take("electronic", `/invoices/${electronic.find((one) => one.file.endsWith(".xml")).id}`, "[data-mark=total]");
await page.locator("[data-value=total]").first().click();
await page.locator(".connector path").waitFor();
await plain();
// What is clear is coded and approved, and a run asked for by a layout.
const rules = `{
  "rules": [
    { "of": "stores, shared by two ships", "when": "itemCode is one of ('1007', '1088')", "account": "6400",
      "shares": [{ "part": 60, "costCentre": "410" }, { "part": 40, "costCentre": "420" }] },
    { "of": "crew mess", "when": "itemCode = '2230'", "account": "6410" },
    { "of": "tax codes", "taxCode": { "value": "'V' & taxRate" } }
  ]
}
`;
await fetch(`${address}/api/v1/coding-rules`, { method: "POST", headers: { ...json, "Daxlin-Person": "Mira" }, body: rules });
await (await fetch(`${address}/api/v1/coding-rules/events`)).text();
const invoices = await (await fetch(`${address}/api/v1/batches/1/invoices`)).json();
const [earlier, later] = invoices.filter((one) => one.vendor.startsWith("Port Ellery") && one.state === "clear");
const { lines } = await (await fetch(`${address}/api/v1/invoices/${earlier.id}`)).json();
for (const { number } of lines) {
  const { revision } = await (await fetch(`${address}/api/v1/invoices/${earlier.id}`)).json();
  await act("POST", `invoices/${earlier.id}/corrections`, { act: "code", of: `lines[${number}]`, cells: { account: "6420" } }, "Mira", revision);
}
for (const { id } of invoices.filter((one) => one.state === "clear" && one.id !== later.id)) {
  const { revision } = await (await fetch(`${address}/api/v1/invoices/${id}`)).json();
  await act("POST", `invoices/${id}/approval`, {}, "Mira", revision);
}
const coded = await take("coding", `/invoices/${later.id}`, "text=like it");
await page.getByRole("heading", { name: "Coding" }).evaluate((heading) => heading.scrollIntoView({ block: "start" }));
await page.mouse.move(900, 400);
await page.mouse.wheel(0, -60);
// The page's fonts come after its marks.
await page.waitForTimeout(1500);
await coded();
await fetch(`${address}/api/v1/translation-lists/accounts/file`, {
  method: "PUT",
  headers: { "Content-Type": "text/csv" },
  body: "word,meaning,from\nBrinewood Chandlery,4000,\nHalvard Marine Diesel Ltd,4100,\nHalvard Marine Diesel Ltd,4150,2026-07-01\n",
});
const layout = `{
  "name": "ledger-lines",
  "tables": [
    {
      "records": "lines",
      "columns": [
        { "heading": "Document", "value": "invoiceNumber" },
        { "heading": "Date", "value": "invoiceDate" },
        { "heading": "Account", "value": "list 'accounts' at vendor" },
        { "heading": "Text", "value": "description", "width": 28, "cut": true },
        { "heading": "Net", "value": "amount", "decimals": 2, "proves": "lines" },
        { "heading": "In", "value": "currency" }
      ]
    }
  ],
  "file": { "delimiter": ";", "decimal": ",", "dates": "DD.MM.YYYY" }
}
`;
await fetch(`${address}/api/v1/posting-layouts?note=For%20the%20ledger`, { method: "POST", headers: { ...json, "Daxlin-Person": "Mira" }, body: layout });
await (await take("layout", "/layouts/ledger-lines", "text=It comes to"))();
const asked = await take("posting", "/batches/1", "text=approved");
await page.getByRole("button", { name: /^Post \d+ approved$/ }).click();
await page.getByLabel("By the layout").selectOption({ label: "ledger-lines (csv)" });
await page.getByRole("dialog").getByText("ledger-lines-1.csv").waitFor();
await asked();
const sums = await take("sums", "/sums", ".recharts-bar");
await page.getByLabel("By", { exact: true }).selectOption("vendor");
await page.getByRole("cell", { name: "Brinewood Chandlery" }).first().waitFor();
await page.getByRole("table").getByRole("button").first().click();
await page.waitForTimeout(1500);
await sums();

// A folder that is watched, and what came from it.
const share = join(scratch, "ferry-office");
mkdirSync(share);
for (const file of readdirSync(join(here, "../../samples/arriving"))) {
  copyFileSync(join(here, "../../samples/arriving", file), join(share, file));
}
await page.request.post(`${address}/api/v1/sources`, {
  headers: { "Content-Type": "application/json" },
  data: JSON.stringify({ name: "ferry-office", batch: "Ferry office {day}", totals: { cover: ["cover*.csv"] }, folder: { path: share, settleSeconds: 2 } }, null, 2),
});
await page.goto(`${address}/sources/ferry-office`);
await page.getByText("sail-02.pdf").waitFor({ timeout: 30_000 });
await page.waitForTimeout(1500);
await page.screenshot({ path: join(here, "source.png") });

// A department whose people sign in: who they are, and what approvals ask for.
const office = process.env.PEOPLE_SERVER;
const password = "four gulls on a mast";
async function follow(link, name) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const browsed = await context.newPage();
  await browsed.goto(link);
  await browsed.getByRole("textbox", { name: "Password" }).waitFor();
  if (name) {
    await browsed.getByLabel("Your name").fill(name);
  }
  await browsed.getByRole("textbox", { name: "Password" }).fill(password);
  await browsed.getByRole("textbox", { name: "The same again" }).fill(password);
  await browsed.keyboard.press("Enter");
  await browsed.getByRole("navigation", { name: "Pages" }).waitFor();
  const { formToken } = await (await browsed.request.get(`${office}/api/v1/session`)).json();
  const send = async (method, path, body, revision) => {
    const answer = await browsed.request.fetch(`${office}/api/v1/${path}`, {
      method,
      ...body,
      headers: { "Daxlin-Form": formToken, ...(revision !== undefined && { "If-Match": `"${revision}"` }) },
    });
    return answer.json();
  };
  return { browsed, send };
}
const ada = await follow(`${office}/${process.env.PEOPLE_LINK}`, "Ada Wrenfield");
const added = async (name, role, groups = []) => (await ada.send("POST", "people", { data: { name, roles: [role], groups } })).link;
await added("Berta Quill", "clerk", ["Galley"]);
await added("Cato Fenn", "approver");
await added("Dora Marsh", "auditor");
await ada.send("PUT", "approval-rules", { data: { keepsCorrectors: true, twoAbove: { EUR: "10000" }, typedAbove: { EUR: "50000" } } }, 0);
const brinewood = join(here, "../../samples/brinewood-chandlery");
await ada.browsed.goto(`${office}/people`);
await ada.browsed.getByText("Two approvers above").waitFor();
await ada.browsed.screenshot({ path: join(here, "people.png") });

{
  const name = "invoice-sheet";
  const text = readFileSync(join(scratch, `${name}.txt`), "utf8").replace(/[&<]/g, (c) => (c === "&" ? "&amp;" : "&lt;"));
  await page.setContent(`<pre style="font: 14px/1.35 'DejaVu Sans Mono'; margin: 16px; display: inline-block">${text}</pre>`);
  await page.locator("pre").screenshot({ path: join(here, `${name}.png`) });
}
await browser.close();
