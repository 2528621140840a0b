import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, request as requests, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { batchOf, invoicesOf } from "./batches";
import { typeText } from "./document-text";
import { emptyService } from "./empty-service";

const PORT = 7396;
const FOLDER = "../samples/port-ellery-galley";

test("a receiver is written, gets a run by itself, and one that fails is settled by what a person knows", async ({
  page,
}) => {
  const service = await emptyService(PORT);
  const origin = `http://localhost:${PORT}`;
  const request = await requests.newContext({ baseURL: origin });
  const inbox = mkdtempSync(join(tmpdir(), "daxlin-ledger-"));
  try {
    const template = readdirSync(FOLDER).find((file) => file.endsWith(".template.json"));
    await request.post("/api/v1/templates", {
      data: JSON.parse(readFileSync(`${FOLDER}/${template}`, "utf8")),
    });
    const batch = await batchOf(request, "Delivered", FOLDER, /-0[12]\.pdf$/);
    for (const { id, state } of await invoicesOf(request, batch)) {
      const { revision } = await (await request.get(`/api/v1/invoices/${id}`)).json();
      if (state === "clear") {
        await request.post(`/api/v1/invoices/${id}/approval`, {
          data: {},
          headers: { "If-Match": `"${revision}"` },
        });
      }
    }

    await page.goto(`${origin}/posting`);
    await page.getByRole("button", { name: "New receiver" }).click();
    const text = page.getByRole("textbox", { name: "The receiver as text" });
    const means = page.getByRole("region", { name: "What it means" });
    await typeText(page, `{ "name": "ledger-inbox", "atOnce": true, "folder": { "pth": "${inbox}" } }`, text);
    await expect(page.getByRole("list", { name: "What is wrong with the receiver" })).toContainText(
      "“path” is meant, perhaps",
    );
    await typeText(
      page,
      `{ "name": "ledger-inbox", "atOnce": true, "folder": { "path": "${inbox}" } }`,
      text,
    );
    await expect(means.getByText(`Its files are put into ${inbox}`)).toBeVisible();
    await page.getByRole("button", { name: "Save as version 1" }).click();
    await means.getByRole("button", { name: "Ask, and hand nothing over" }).click();
    await expect(means.getByText("is there, and can be written to.")).toBeVisible();
    await expectNoViolation(page);
    await request.post("/api/v1/receivers", {
      data: {
        name: "ledger-hook",
        webhook: { url: `http://localhost:${PORT}/no-such-page`, secret: "ledger-hook" },
      },
    });

    // A run reaches the folder by itself, and the page says so without being asked again.
    await page.goto(`${origin}/batches/${batch}`);
    await page.getByRole("button", { name: /^Post/ }).click();
    await page.getByRole("dialog").getByRole("button", { name: /^Post/ }).click();
    await expect.poll(() => existsSync(join(inbox, "posting-run-1.csv"))).toBe(true);
    await page.goto(`${origin}/posting/1`);
    const deliveries = page.getByRole("region", { name: "Deliveries" });
    await expect(deliveries.getByRole("row", { name: /ledger-inbox/ })).toContainText("■ delivered");

    // The other one wants a secret, and then is not there. A person looks, and says so.
    await deliveries.getByRole("button", { name: "Deliver", exact: true }).click();
    const hook = deliveries.getByRole("row", { name: /ledger-hook/ });
    await expect(hook).toContainText("The secret “ledger-hook” is not kept here yet");
    await hook.getByRole("link", { name: "ledger-hook" }).click();
    await page.getByLabel("The secret “ledger-hook” is not kept yet").fill("kittiwake");
    await page.getByRole("button", { name: "Keep it" }).click();
    await expect(page.getByText("■ kept")).toBeVisible();
    await page.goto(`${origin}/posting/1`);
    await expect(hook).toContainText("answered 405");
    await expectNoViolation(page);
    await hook.getByRole("button", { name: "Settle the delivery to ledger-hook" }).click();
    const dialog = page.getByRole("dialog");
    await dialog.getByLabel("How you know that it has the run").fill("handed over on a stick");
    await dialog.getByRole("button", { name: "Settle it" }).click();
    await expect(hook).toContainText("× settled");
    await expect(hook).toContainText("handed over on a stick");

    // Once more only for a reason.
    rmSync(join(inbox, "posting-run-1.csv"));
    await deliveries.getByLabel("Receiver", { exact: true }).selectOption("ledger-inbox");
    await deliveries.getByRole("button", { name: "Deliver once more" }).click();
    await dialog.getByLabel("Why it is delivered once more").fill("the ledger lost it");
    await dialog.getByRole("button", { name: "Deliver it" }).click();
    await expect.poll(() => existsSync(join(inbox, "posting-run-1.csv"))).toBe(true);
    await expect(deliveries.getByRole("row", { name: /ledger-inbox/ })).toHaveCount(2);
  } finally {
    await request.dispose();
    service.kill("SIGTERM");
    rmSync(inbox, { recursive: true });
  }
});
