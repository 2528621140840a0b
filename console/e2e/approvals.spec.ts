import { expect, test } from "@playwright/test";
import type { InvoiceSummary } from "../src/api/client";
import { expectNoViolation } from "./axe";
import { emptyService } from "./empty-service";

const PORT = 7399;
const ORIGIN = `http://localhost:${PORT}`;

test("what is clear is approved at once with its sum typed, and four eyes keep who corrected", async ({
  page,
  request,
}) => {
  const service = await emptyService(PORT);
  try {
    await request.post(`${ORIGIN}/api/v1/demo`, { data: {} });
    await expect
      .poll(async () => (await (await request.get(`${ORIGIN}/api/v1/batches/1`)).json()).waiting, {
        timeout: 120_000,
      })
      .toBe(0);
    await page.addInitScript(() => localStorage.setItem("daxlin.person", "Cato Fenn"));

    // The rules are said on the page of people.
    await page.goto(`${ORIGIN}/people`);
    await page.getByRole("button", { name: "Ask for more or less …" }).click();
    await page.getByRole("checkbox", { name: "Who corrected an invoice does not approve it" }).check();
    await page.getByLabel("Two approvers above these amounts").fill("2,000.00 GBP");
    await page.getByLabel("The sum of many is typed above these amounts").fill("100.00 EUR");
    await page.getByRole("button", { name: "Ask for this" }).click();
    await expect(page.getByText("Two approvers above 2,000.00 GBP.")).toBeVisible();
    await expectNoViolation(page);

    // Who corrected one is told who else can approve it.
    const invoices: InvoiceSummary[] = await (
      await request.get(`${ORIGIN}/api/v1/batches/1/invoices`)
    ).json();
    const clear = invoices.filter((one) => one.state === "clear");
    const own = clear.find((one) => one.currency === "EUR");
    await request.post(`${ORIGIN}/api/v1/invoices/${own?.id}/corrections`, {
      headers: { "If-Match": `"${own?.revision}"`, "Daxlin-Person": "Cato%20Fenn" },
      data: { act: "enter", of: "invoiceNumber", text: `${own?.invoiceNumber}-A` },
    });
    await page.goto(`${ORIGIN}/invoices/${own?.id}`);
    await page.getByRole("button", { name: "Approve", exact: true }).click();
    await expect(page.getByRole("alert")).toContainText(
      `Invoice ${own?.id} was corrected by Cato Fenn, who therefore does not approve it as well. Another approver has to.`,
    );

    await page.goto(`${ORIGIN}/batches/1`);
    await page.getByRole("button", { name: `Approve the ${clear.length} clear …` }).click();
    const form = page.getByRole("form", { name: "Approve what is clear" });
    await expect(form.getByRole("button", { name: "Approve them" })).toBeDisabled();
    await form.getByLabel("The sum in EUR, typed").fill("1.00");
    await form.getByRole("button", { name: "Approve them" }).click();
    await expect(form.getByRole("alert")).toContainText("not to 1.00 EUR. Nothing was approved.");
    const sum = await form.locator("td.figure", { hasText: "EUR" }).textContent();
    await form.getByLabel("The sum in EUR, typed").fill(sum?.replace("EUR", "").trim() ?? "");
    await form.getByRole("button", { name: "Approve them" }).click();
    const done = page.getByRole("status").filter({ hasText: "approved" });
    await expect(done).toContainText("was corrected by Cato Fenn");
    await expect(done).toContainText("a second approver has to, too");
    await done.getByRole("button", { name: "Done" }).click();

    // Another person is the second; and an approval is taken back for a reason.
    const after: InvoiceSummary[] = await (await request.get(`${ORIGIN}/api/v1/batches/1/invoices`)).json();
    const first = after.find((one) => one.state === "clear" && one.currency === "GBP");
    await page.evaluate(() => localStorage.setItem("daxlin.person", "Ada Wrenfield"));
    await page.addInitScript(() => localStorage.setItem("daxlin.person", "Ada Wrenfield"));
    await page.goto(`${ORIGIN}/invoices/${first?.id}`);
    await expect(page.getByText("Approved by Cato Fenn; a second approver has to, too.")).toBeVisible();
    await page.getByRole("button", { name: "Approve as the second" }).click();
    await page.getByRole("button", { name: "Take the approval back …" }).click();
    await page.getByLabel("Why it is open again").fill("The vendor called about it.");
    await page.getByRole("button", { name: "Take it back" }).click();
    await expect(page.getByRole("button", { name: "Approve", exact: true })).toBeVisible();
  } finally {
    service.kill("SIGTERM");
  }
});
