// How long each act at the desk keeps the browser's main thread from answering, on an invoice of more than 100 pages.
// The yardstick of the same run is the same act on an invoice of one page.
//   node bench/desk.mjs URL ROWS      the service that answers at URL is given two made invoices
import { chromium } from "@playwright/test";

const [url = "http://localhost:7396", rows = "4000"] = process.argv.slice(2);

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu"],
});

/** An invoice of a made-up vendor whose sums come out. */
async function madeInvoice(count) {
  const figures = Array.from({ length: count }, (_, at) => ({
    quantity: 1 + (at % 9),
    cents: 105 + ((at * 37) % 900),
  }));
  const shown = (cents) => (cents / 100).toLocaleString("en-GB", { minimumFractionDigits: 2 });
  const sum = figures.reduce((all, { quantity, cents }) => all + quantity * cents, 0);
  const tax = Math.round(sum * 0.2);
  const page = await browser.newPage();
  await page.setContent(`<style>body{font:10px sans-serif}td,th{padding:2px 8px;text-align:left;white-space:nowrap;font-size:9px}.n{text-align:right}</style>
    <h2>Skerry Ropeworks</h2><p>Invoice number: SR-${count}</p><p>Invoice date: 3 March 2026</p>
    <table><thead><tr><th>Item<th>Description<th class=n>Quantity<th class=n>Unit price<th class=n>Amount</tr></thead>
    ${figures
      .map(
        ({ quantity, cents }, at) =>
          `<tr><td>R-${1000 + at}<td>Mooring line, ${8 + (at % 20)} mm, coil ${at + 1}<td class=n>${quantity}<td class=n>${shown(cents)}<td class=n>${shown(quantity * cents)}</tr>`,
      )
      .join("")}</table>
    <p>Subtotal: EUR ${shown(sum)}</p><p>VAT 20 %: EUR ${shown(tax)}</p><p>Total: EUR ${shown(sum + tax)}</p>`);
  const pdf = await page.pdf({ format: "A5" });
  await page.close();
  return pdf;
}

/** Takes an invoice in and answers its number, once it has been captured or set down as one that nothing recognises. */
async function takenIn(name, pdf) {
  const begun = await fetch(`${url}/api/v1/batches`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name }),
  });
  const batch = (await begun.json()).id;
  const files = new FormData();
  files.set("files", new Blob([pdf], { type: "application/pdf" }), `${name}.pdf`);
  await fetch(`${url}/api/v1/batches/${batch}/documents`, { method: "POST", body: files });
  for (let look = 0; look < 240; look++) {
    const invoices = await (await fetch(`${url}/api/v1/batches/${batch}/invoices`)).json();
    if (invoices.length > 0) {
      return invoices[0].id;
    }
    await new Promise((done) => setTimeout(done, 500));
  }
  throw new Error(`${name} was not captured within two minutes.`);
}

/** What each act blocked: its longest task, in milliseconds. */
async function blocked(invoice) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.setDefaultTimeout(60_000);
  await page.addInitScript(() => {
    window.longest = 0;
    new PerformanceObserver((seen) => {
      for (const task of seen.getEntries()) {
        window.longest = Math.max(window.longest, task.duration);
      }
    }).observe({ entryTypes: ["longtask"] });
  });
  const found = [];
  const act = async (name, doing) => {
    await page.evaluate(() => {
      window.longest = 0;
    });
    await doing();
    // Until nothing has been fetched or drawn for a while.
    await page.waitForLoadState("networkidle");
    await page.waitForTimeout(700);
    found.push([name, await page.evaluate(() => window.longest)]);
  };
  await page.goto(url);
  await act("open the desk", async () => {
    await page.goto(`${url}/desk/${invoice}`);
    await page.getByRole("button", { name: "Step back" }).waitFor();
    await page.getByText("invoices at hand are recognised").waitFor({ timeout: 300_000 });
  });
  const word = () => page.locator('.word[aria-label="Skerry"]').first();
  const leave = () => page.getByRole("button", { name: "Leave it" }).click();
  await act("point at a word", () => word().click());
  await act("leave it", leave);
  await act("choose a value", () => page.locator("[data-value=total]").click());
  await act("scroll the rows", () =>
    page.locator(".captured").evaluate((pane) => pane.scrollTo(0, pane.scrollHeight / 2)),
  );
  await act("choose a row's amount", () => page.locator('[data-value$=".amount"]').nth(5).click());
  await act("scroll the pages", () =>
    page.locator(".leaves").evaluate((pane) => pane.scrollTo(0, pane.scrollHeight / 2)),
  );
  await act("search the pages", () => page.getByRole("searchbox").pressSequentially("coil 39"));
  await act("larger", () => page.getByRole("button", { name: "Larger" }).click());
  await act("show the edges", () => page.getByRole("button", { name: "Show the columns' edges" }).click());
  await act("rename the vendor", () =>
    page.getByLabel("Template for the vendor").pressSequentially(" Ltd", { delay: 60 }),
  );
  await act("step back", () => page.getByRole("button", { name: "Step back" }).click());
  await act("all invoices at hand", () => page.getByRole("tab", { name: /^All/ }).click());
  await act("back to what is captured", () => page.getByRole("tab", { name: "Captured" }).click());
  await act("as text", () => page.getByRole("tab", { name: /^As text/ }).click());
  await page.close();
  return found;
}

const short = await blocked(await takenIn("One page", await madeInvoice(12)));
const long = await blocked(await takenIn("Many pages", await madeInvoice(Number(rows))));
console.log(
  `The main thread's longest task in each act, in ms (0: none of 50 ms), with 12 and with ${rows} rows`,
);
for (const [at, [name, ms]] of long.entries()) {
  console.log(`${name.padEnd(28)}${String(short[at][1]).padStart(6)}${String(ms).padStart(6)}`);
}
await browser.close();
