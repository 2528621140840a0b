import { readdirSync, readFileSync } from "node:fs";
import { expect, request as requests, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { batchOf, invoicesOf } from "./batches";
import { typeText } from "./document-text";
import { emptyService } from "./empty-service";

const PORT = 7403;
const FOLDER = "../samples/port-ellery-galley";

test("a schedule is written by keyboard, posts what is approved, and says why it does not", async ({
  page,
}) => {
  const service = await emptyService(PORT);
  const origin = `http://localhost:${PORT}`;
  const request = await requests.newContext({ baseURL: origin });
  try {
    await page.goto(`${origin}/posting`);
    await expect(page.getByText("There are no schedules yet")).toBeVisible();
    await page.getByRole("button", { name: "New schedule" }).press("Enter");
    const text = page.getByRole("textbox", { name: "The schedule as text" });
    const means = page.getByRole("region", { name: "What it means" });
    await typeText(page, `{ "name": "evening", "at": "18:75", "posting": { "layout": "ledger" } }`, text);
    await expect(page.getByRole("list", { name: "What is wrong with the schedule" })).toContainText(
      "“18:75” is no time of a day; one is written as 06:30.",
    );
    await typeText(page, `{ "name": "evening", "at": "18:30", "posting": { "layout": "ledger" } }`, text);
    await expect(means.getByText("Each day at 18:30, by the clock of the service's machine:")).toBeVisible();
    const save = page.getByRole("button", { name: "Save as version 1" });
    await save.press("Enter");
    await expect(page.getByRole("alert")).toContainText("There is no layout “ledger”.");
    await typeText(page, `{ "name": "evening", "at": "18:30", "posting": {} }`, text);
    await expect(means.getByText(/are posted as a file of every value, in one run/)).toBeVisible();
    await save.press("Enter");
    await expect(page.getByText("It has done nothing yet.")).toBeVisible();

    const act = page.getByRole("button", { name: "Do it now: evening" });
    await act.press("Enter");
    await expect(page.getByRole("status").filter({ hasText: "There was nothing to post." })).toBeVisible();

    const template = readdirSync(FOLDER).find((file) => file.endsWith(".template.json"));
    await request.post("/api/v1/templates", {
      data: JSON.parse(readFileSync(`${FOLDER}/${template}`, "utf8")),
    });
    const batch = await batchOf(request, "Galley", FOLDER, /-0[12]\.pdf$/);
    for (const { id } of await invoicesOf(request, batch)) {
      const { revision } = await (await request.get(`/api/v1/invoices/${id}`)).json();
      await request.post(`/api/v1/invoices/${id}/approval`, {
        data: {},
        headers: { "If-Match": `"${revision}"` },
      });
    }
    await act.press("Enter");
    const did = page.getByRole("region", { name: "What it did" });
    await expect(did).toContainText("■ Posting run 1 was made, with 2 invoices.");
    await expect(page.getByText("● in use")).toBeVisible();
    await page.getByRole("button", { name: "Pause: evening" }).press("Enter");
    await expect(page.getByText("◦ paused")).toBeVisible();
    await expectNoViolation(page);
    await page.goto(`${origin}/posting`);
    const row = page.getByRole("region", { name: "Schedules" }).getByRole("row", { name: /evening/ });
    await expect(row).toContainText("Each day at 18:30");
    await expect(row).toContainText("◦ paused");
    await row.getByRole("button", { name: "Go on: evening" }).press("Enter");
    await expect(row).toContainText("● in use");
    await expect(row).toContainText(/\d{4}-\d\d-\d\d \d\d:\d\d/);
    await expectNoViolation(page);
  } finally {
    service.kill();
  }
});
