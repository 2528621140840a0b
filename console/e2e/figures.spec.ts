import { expect, test } from "@playwright/test";
import { expectNoViolation } from "./axe";

test("control totals are stated, compared in figures, and taken back", async ({ page, request }) => {
  await page.goto("/batches/1");
  await page.getByRole("link", { name: "Sheet and control totals" }).click();
  const totals = page.getByRole("form", { name: "Control totals" });
  const before = await (await request.get("/api/v1/batches/1/sheet")).json();
  const euro = before.controlTotals.find((total: { currency: string }) => total.currency === "EUR");
  await totals.getByRole("button", { name: "State them …" }).click();
  await totals.getByLabel("Invoices stated in EUR").fill(String(euro.invoices + 1));
  await totals.getByLabel("Sum stated in EUR").fill(euro.sum);
  await totals.getByLabel("Sum stated in GBP").fill("1.00");
  await page.keyboard.press("Enter");
  await expect(totals).toContainText(
    `${euro.invoices + 1} invoices in EUR were stated, ${euro.invoices} captured (1 less).`,
  );
  await expect(totals).toContainText("1.00 GBP were stated, the invoices come to");
  await expectNoViolation(page);

  const printed = await (await request.get("/api/v1/batches/1/sheet/printable")).text();
  expect(printed).toContain(`▲ ${euro.invoices + 1} invoices in EUR were stated`);

  await totals.getByRole("button", { name: "State them …" }).click();
  for (const field of await totals.getByRole("textbox", { name: /stated in/ }).all()) {
    await field.fill("");
  }
  await totals.getByRole("button", { name: "Keep" }).click();
  await expect(totals.getByText("nothing stated")).toHaveCount(before.controlTotals.length);
});

for (const colorScheme of ["light", "dark"] as const) {
  test.describe(colorScheme, () => {
    test.use({ colorScheme });

    test("the figures stand in charts and in tables, and violate no rule of accessibility", async ({
      page,
      request,
    }) => {
      const figures = await (await request.get("/api/v1/figures")).json();
      await page.goto("/figures");
      await expect(
        page.getByRole("img", { name: "Held invoices by reason, the most frequent first" }),
      ).toBeVisible();
      for (const reason of figures.reasons) {
        await expect(page.getByRole("row", { name: `${reason.says} ${reason.invoices}` })).toBeVisible();
      }
      await expect(page.getByRole("img", { name: "Sums in GBP by month and vendor" })).toBeVisible();
      await expectNoViolation(page);
      await page.getByLabel("Received from").fill("2200-01-01");
      await expect(page.getByText("No invoice was received in that time.")).toBeVisible();
    });
  });
}

test("whoever keeps the service running sees how it is, and what is wrong as soon as it is", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: "Operation" }).click();
  const services = page.getByRole("region", { name: "Services" });
  await expect(services.getByRole("row")).toHaveCount(2);
  await expect(services).toContainText("● runs");
  await expect(page.getByRole("status").first()).toContainText("● All is well.");
  await expect(page.getByRole("region", { name: "Storage" })).toContainText("./daxlin backup FOLDER");
  await expect(page.getByRole("region", { name: "What waits" }).getByRole("row").first()).toContainText(
    "Documents to be captured",
  );
  await expectNoViolation(page);
  // What another service of the database says of itself, and that one is away.
  await page.route("**/api/v1/operation", async (route) => {
    const shown = await (await route.fetch()).json();
    const [own] = shown.nodes;
    const trouble = "The disk of the data folder is full.";
    shown.nodes = [
      { ...own, name: "ap-1" },
      { ...own, name: "ap-2", isThis: false, trouble },
      { ...own, name: "ap-3", isThis: false, isAway: true },
    ];
    shown.troubles = [trouble, "The service “ap-3” has not told of itself."];
    await route.fulfill({ json: shown });
  });
  await expect(page.getByRole("status").first()).toHaveText(
    /▲ The disk of the data folder is full\. The service “ap-3” has not told of itself\./,
  );
  await services.getByRole("button", { name: "Strike out" }).click();
  await expect(services.getByRole("alert")).toHaveText("▲ There is no service “ap-3” on this database.");
  await expectNoViolation(page);
});
