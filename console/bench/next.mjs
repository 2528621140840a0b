// How long it takes from the key to the next invoice on the screen, its values and its page drawn, for a clerk who looks at
// each for a second. The yardstick of the same run is an invoice that is opened with nothing fetched or drawn ahead.
//   node bench/next.mjs URL      the service that answers at URL has the demo's invoices
import { chromium } from "@playwright/test";

const [url = "http://localhost:7396"] = process.argv.slice(2);
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu"],
});
const invoices = await (await fetch(`${url}/api/v1/batches/1/invoices`)).json();

/** Milliseconds until another invoice than the one shown is there: its address, its values, and its page drawn. */
async function untilNext(page, act) {
  await page.evaluate(() => {
    const before = location.pathname;
    const name = document.querySelector("h1")?.textContent;
    for (const leaf of document.querySelectorAll(".leaf")) {
      leaf.removeAttribute("data-drawn");
    }
    window.shown = new Promise((done) => {
      const look = () => {
        const leaf = document.querySelector(".leaf[data-drawn]");
        const isOther = location.pathname !== before && document.querySelector("h1")?.textContent !== name;
        if (isOther && leaf && document.querySelector("[data-value]")) {
          done(performance.now());
        } else {
          requestAnimationFrame(look);
        }
      };
      look();
    });
    window.addEventListener("keydown", () => (window.pressed = performance.now()), {
      capture: true,
      once: true,
    });
  });
  await act();
  return page.evaluate(async () => (await window.shown) - window.pressed);
}

const median = (times) => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)];
const told = (times) => `${median(times).toFixed(0)} ms, at most ${Math.max(...times).toFixed(0)} ms`;

const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const ahead = [];
await page.goto(`${url}/invoices/${invoices[0].id}`);
await page.locator(".leaf[data-drawn]").first().waitFor();
for (let at = 1; at < invoices.length; at++) {
  await page.waitForTimeout(1000);
  ahead.push(await untilNext(page, () => page.keyboard.press("Alt+PageDown")));
}
const cold = [];
for (const { id } of invoices.slice(0, 10)) {
  const begun = performance.now();
  await page.goto(`${url}/invoices/${id}`);
  await page.locator(".leaf[data-drawn]").first().waitFor();
  cold.push(performance.now() - begun);
}
console.log(`next invoice by its key, ${ahead.length} of them: ${told(ahead)}`);
console.log(`opened with nothing ahead, ${cold.length} of them: ${told(cold)}`);
await browser.close();
