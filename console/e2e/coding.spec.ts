import { readdirSync, readFileSync } from "node:fs";
import { expect, request as requests, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { batchOf, invoicesOf } from "./batches";
import { typeText } from "./document-text";
import { emptyService } from "./empty-service";

const PORT = 7395;
const FOLDER = "../samples/port-ellery-galley";

const RULES = `{
  "needs": ["account"],
  "rules": [{ "of": "the first row", "when": "line = 1", "account": "6400", "shares": [{ "part": 60, "costCentre": "410" }, { "part": 40, "costCentre": "420" }] }]
}`;

test("rules are written beside what they make of invoices, a held one is coded by hand, and the next as it was", async ({
  page,
}) => {
  const service = await emptyService(PORT);
  const origin = `http://localhost:${PORT}`;
  const request = await requests.newContext({ baseURL: origin });
  try {
    const template = readdirSync(FOLDER).find((file) => file.endsWith(".template.json"));
    await request.post("/api/v1/templates", {
      data: JSON.parse(readFileSync(`${FOLDER}/${template}`, "utf8")),
    });
    const batch = await batchOf(request, "Coded", FOLDER, /-0[123]\.pdf$/);
    const ids = (await invoicesOf(request, batch))
      .filter((one) => one.state === "clear")
      .map((one) => one.id);
    const [first, next] = ids;

    await page.goto(`${origin}/posting`);
    await page.getByRole("link", { name: "Write the first" }).click();
    const preview = page.getByRole("region", { name: "What they make of invoices" });
    const text = page.getByRole("textbox", { name: "The rules as text" });
    await typeText(page, RULES.replace('"account": "6400"', '"acount": "6400"'), text);
    await expect(page.getByRole("list", { name: "What is wrong with the rules" })).toContainText(
      "“account” is meant, perhaps",
    );
    await typeText(page, RULES, text);
    await expect(preview.getByRole("table", { name: "Rules" })).toContainText("the first row");
    await expect(preview.getByText(/have no account/).first()).toBeVisible();
    await expectNoViolation(page);
    await page.getByRole("button", { name: "Save as version 1" }).click();
    await expect(page.getByText("Open invoices are coded by these rules.")).toBeVisible();

    // Each row gets its code by the keyboard; the finding goes when the last has one.
    await page.goto(`${origin}/invoices/${first}`);
    await expect(page.getByText(/have no account/)).toBeVisible();
    const coding = page.getByRole("region", { name: "Coding" });
    await expect(coding.getByRole("row").nth(1)).toContainText("6400");
    await expect(coding.getByRole("row").nth(2)).toContainText("420");
    const lines = (await (await request.get(`/api/v1/invoices/${first}`)).json()).lines.length;
    for (let row = 2; row <= lines; row++) {
      const cell = coding.getByRole("textbox", { name: `Account of row ${row}` });
      await cell.fill(`65${row}0`);
      await cell.press("Enter");
      await expect(cell).toHaveAccessibleName(`Account of row ${row}`);
    }
    await expect(page.getByText(/have no account/)).toHaveCount(0);
    await coding.getByRole("button", { name: "Part row 2" }).click();
    const dialog = page.getByRole("dialog");
    await dialog.getByRole("textbox", { name: "Part of share 1" }).fill("2");
    await dialog.getByRole("textbox", { name: "Part of share 2" }).fill("1");
    await dialog.getByRole("textbox", { name: "Cost centre of share 2" }).fill("430");
    await dialog.getByRole("button", { name: "Part it so" }).click();
    await expect(coding.getByRole("button", { name: "Shares of row 2" })).toBeVisible();
    const coded = await (await request.get(`/api/v1/invoices/${first}`)).json();
    expect(coded.state).toBe("clear");
    const ofSecond = coded.coding[1].parts as { amount: string; codes: Record<string, { value: string }> }[];
    expect(ofSecond.map((part) => part.codes.costCentre?.value)).toEqual([undefined, "430"]);
    const cents = ofSecond.reduce((sum, part) => sum + Math.round(Number(part.amount) * 100), 0);
    expect(cents).toBe(Math.round(Number(coded.lines[1].cells.amount.value) * 100));
    await expectNoViolation(page);
    await page.getByRole("button", { name: "Approve" }).click();
    await expect(page.getByText("approved", { exact: false }).first()).toBeVisible();

    // What was done once is proposed for the same file, taken in another time.
    const again = await request.post("/api/v1/batches", { data: { name: "Again" } });
    const bytes = Buffer.concat([
      readFileSync(`${FOLDER}/port-ellery-galley-01.pdf`),
      Buffer.from("\n%again\n"),
    ]);
    const id = (await again.json()).id;
    await request.post(`/api/v1/batches/${id}/documents`, {
      multipart: { files: { name: "again.pdf", mimeType: "application/pdf", buffer: bytes } },
    });
    await (await request.get(`/api/v1/batches/${id}/events`)).text();
    const [same] = await invoicesOf(request, id);
    await page.goto(`${origin}/invoices/${same?.id}`);
    await expect(coding.getByText(/on 1 of 1 line like it/).first()).toBeVisible();
    await coding.getByRole("button", { name: /Take all \d+ proposals/ }).click();
    await expect(page.getByText(/have no account/)).toHaveCount(0);
    await expect(coding.getByRole("button", { name: /Take all/ })).toHaveCount(0);
    expect(next).toBeDefined();
  } finally {
    await request.dispose();
    service.kill("SIGTERM");
  }
});
