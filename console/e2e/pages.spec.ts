import { expect, test } from "@playwright/test";
import { expectNoViolation } from "./axe";

test("a word is found on the pages, on and backwards, with its capitals and as a whole", async ({ page }) => {
  await page.goto("/invoices/6");
  const tools = page.getByRole("toolbar", { name: "The printed pages" });
  await expect(tools).toBeVisible();
  await page.keyboard.press("Control+f");
  const field = page.getByLabel("Search the pages");
  await expect(field).toBeFocused();
  await page.keyboard.type("shackle");
  await expect(tools.getByRole("status")).toHaveText("1 of 5 places");
  await expect(page.locator("[data-found]")).toBeInViewport();
  const first = await page.locator("[data-found]").boundingBox();
  await page.keyboard.press("Enter");
  await expect(tools.getByRole("status")).toHaveText("2 of 5 places");
  await expect(page.locator("[data-found]")).toBeInViewport();
  expect(await page.locator("[data-found]").boundingBox()).not.toEqual(first);
  await page.keyboard.press("Shift+Enter");
  await page.keyboard.press("Shift+Enter");
  await expect(tools.getByRole("status")).toHaveText("5 of 5 places");
  await tools.getByLabel("Capitals").check();
  await expect(tools.getByRole("status")).toHaveText("nowhere");
  await tools.getByLabel("Capitals").uncheck();
  await field.fill("shack");
  await expect(tools.getByRole("status")).toHaveText(/of 5 places/);
  await tools.getByLabel("Words").check();
  await expect(tools.getByRole("status")).toHaveText("nowhere");
  // Over several words, as they stand on the line.
  await field.fill("bow type, galvanised");
  await expect(tools.getByRole("status")).toHaveText(/of 5 places/);
  await field.press("Escape");
  await expect(page.locator("[data-found]")).toHaveCount(0);
});

test("pages are drawn as they come into view, in any size", async ({ page }) => {
  await page.goto("/invoices/6");
  await expect(page.getByRole("img", { name: "Page 1" })).toBeVisible();
  await expect(page.getByRole("img", { name: "Page 3" })).toHaveCount(0);
  const tools = page.getByRole("toolbar", { name: "The printed pages" });
  await tools.getByLabel("Page", { exact: true }).selectOption("3");
  await expect(page.getByRole("img", { name: "Page 3" })).toBeInViewport();
  await expect(page.getByRole("img", { name: "Page 1" })).toHaveCount(0);
  const before = await page.locator('[data-page="3"]').boundingBox();
  await tools.getByLabel("Larger").click();
  const after = await page.locator('[data-page="3"]').boundingBox();
  expect((after?.width ?? 0) / (before?.width ?? 1)).toBeCloseTo(1.25, 1);
});

test("the help stands in the console, its links lead from page to page, and its pictures are there", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: "Help" }).click();
  await expect(page.getByRole("heading", { name: "The first template", level: 1 })).toBeVisible();
  const pictures = page.locator("article img");
  expect(await pictures.count()).toBeGreaterThanOrEqual(3);
  for (const picture of await pictures.all()) {
    expect(
      await picture.evaluate((image: HTMLImageElement) => image.decode().then(() => image.naturalWidth)),
    ).toBeGreaterThan(0);
  }
  await page.getByRole("link", { name: "the reference" }).first().click();
  await expect(page).toHaveURL(/\/help\/TEMPLATES/);
  await page.getByRole("link", { name: "header fields" }).first().click();
  await expect(page).toHaveURL(/\/help\/templates\/fields/);
  await expect(page.locator("article pre").first()).toBeVisible();
  const links = await page
    .locator('article a[href^="/help/"]')
    .evaluateAll((all) => all.map((one) => one.getAttribute("href")));
  for (const link of new Set(links)) {
    await page.goto(`${link}`);
    await expect(page.locator("article h1"), `${link}`).toBeVisible();
  }
  await expectNoViolation(page);
});
