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
