import { expect, test } from "@playwright/test";
import type { InvoiceSummary } from "../src/api/client";
import { countActs, MOST_ACTS } from "./acts";
import { expectNoViolation } from "./axe";
import { emptyService } from "./empty-service";
import { cellsUnlikeTruth } from "./truth";

const PORT = 7394;

/** So many made-up invoices lie in the samples' folder. */
const MADE_UP = 24;

test("an empty installation leads a newcomer to a first template", async ({ page, request }) => {
  const service = await emptyService(PORT);
  try {
    const origin = `http://localhost:${PORT}`;
    await page.goto(origin);
    const steps = page.getByRole("region", { name: "First steps" });
    await expect(steps.getByRole("button", { name: "Open a batch for my own" })).toBeVisible();
    await expectNoViolation(page);
    await steps.getByRole("button", { name: "Take the made-up invoices in" }).click();
    // Whoever begins while invoices still come in has at hand what is there. Before the first has come, none waits either.
    await expect
      .poll(
        async () => {
          const batch = await (await request.get(`${origin}/api/v1/batches/1`)).json();
          return [batch.documents, batch.waiting];
        },
        { timeout: 120_000 },
      )
      .toEqual([MADE_UP, 0]);
    const acts = await countActs(page);
    await page.getByRole("link", { name: "Make a template" }).first().click();
    await expect(page.getByText(/invoices at hand are recognised/)).toContainText("6 of 6");
    // Another vendor's template can be a beginning, too, under this vendor's own name.
    await page.getByRole("tab", { name: "As text" }).click();
    await page
      .getByLabel("Begin from", { exact: true })
      .selectOption({ label: "a copy of Brinewood Chandlery" });
    await expect(page.getByLabel("Template for the vendor")).toHaveValue("Skerrow Sail Loft");
    await expect(page.getByText(/invoices at hand are recognised/)).toContainText("0 come out clear");
    await page.getByRole("button", { name: "Step back" }).click();
    await expect(page.getByText(/invoices at hand are recognised/)).not.toContainText("0 come out clear");
    await page.getByRole("button", { name: "Rehearse", exact: true }).click();
    await page.getByRole("button", { name: "Publish version 1" }).click();
    await expect(page).toHaveURL(/batches\/\d+$/);
    await (await request.get(`${origin}/api/v1/batches/1/events`)).text();
    const batch = await (await request.get(`${origin}/api/v1/batches/1`)).json();
    expect(batch.invoices.unplaced).toBe(0);
    expect(batch.invoices.clear).toBeGreaterThanOrEqual(19);
    const invoices: InvoiceSummary[] = await (
      await request.get(`${origin}/api/v1/batches/1/invoices`)
    ).json();
    const made = invoices.filter((one) => one.vendor === "Skerrow Sail Loft");
    expect(made).toHaveLength(6);
    expect(await cellsUnlikeTruth(request, made, "../samples/skerrow-sail-loft", origin)).toEqual([]);
    const taken = await acts();
    console.log(`A template for a vendor of the demo took ${taken} acts.`);
    expect(taken).toBeLessThanOrEqual(MOST_ACTS);
  } finally {
    service.kill("SIGTERM");
  }
});
