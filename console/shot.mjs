import { chromium } from "@playwright/test";

const [, , path, out, ...steps] = process.argv;
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const p = await browser.newPage({
  viewport: { width: 1280, height: 800 },
  colorScheme: process.env.DARK ? "dark" : "light",
});
await p.goto("http://localhost:7391" + path);
await p.waitForTimeout(1500);
for (const step of steps) {
  await eval(`(async () => { ${step} })()`);
  await p.waitForTimeout(500);
}
await p.screenshot({ path: out });
await browser.close();
