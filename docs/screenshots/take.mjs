// Called by docs/screenshots/make: pictures of the console's pages, and of what commands print.
import { readFileSync } from "node:fs";
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

await (await take("batches", "/", "table"))();
await (await take("batch", "/batches/1", "table"))();
const invoice = await take("invoice", `/invoices/${held}`, "[data-mark=total]");
await page.locator(".findings button").first().click();
await page.locator(".connector path").waitFor();
await invoice();

const unplaced = await (await fetch(`${address}/api/v1/batches/${process.env.DESK_BATCH}/invoices`)).json();
const desk = await take("desk", `/desk/${unplaced[0].id}`, "[data-mark=total]");
await page.getByText(/invoices at hand are recognised/).waitFor();
await desk();
await page.getByRole("button", { name: "SK-3107", exact: true }).first().click();
await page.getByLabel(/is the/).selectOption("invoiceNumber");
await page.locator(".ways li").first().waitFor();
await page.screenshot({ path: join(here, "desk-pointing.png") });

for (const name of ["batch-sheet", "invoice-sheet", "template-try", "document-words", "accuracy"]) {
  const text = readFileSync(join(scratch, `${name}.txt`), "utf8").replace(/[&<]/g, (c) => (c === "&" ? "&amp;" : "&lt;"));
  await page.setContent(`<pre style="font: 14px/1.35 'DejaVu Sans Mono'; margin: 16px; display: inline-block">${text}</pre>`);
  await page.locator("pre").screenshot({ path: join(here, `${name}.png`) });
}
await browser.close();
