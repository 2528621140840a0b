import { type ChildProcess, execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { emptyService } from "./empty-service";

const PORT = 7390;
const at = (path: string) => `http://localhost:${PORT}${path}`;
const VENDOR = "../samples/port-ellery-galley";

let service: ChildProcess;

test.beforeAll(async () => {
  service = await emptyService(PORT);
});

test.afterAll(() => service.kill());

/** What a person cuts out of a screen: the first page of an invoice as a PNG. */
function pictureOf(file: string) {
  const folder = mkdtempSync(join(tmpdir(), "daxlin-pasted-"));
  execFileSync("pdftoppm", ["-png", "-r", "300", "-singlefile", `${VENDOR}/${file}`, join(folder, "page")]);
  return readFileSync(join(folder, "page.png")).toString("base64");
}

test("a picture is pasted, its print is shown enlarged, and a doubtful reading is settled by keyboard", async ({
  page,
  request,
}) => {
  const template = readFileSync(`${VENDOR}/port-ellery.template.json`, "utf8");
  expect((await request.post(at("/api/v1/templates"), { data: template })).ok()).toBe(true);
  const batch = await (await request.post(at("/api/v1/batches"), { data: { name: "Pasted" } })).json();
  await page.goto(at(`/batches/${batch.id}`));
  await expect(page.getByText("paste a picture")).toBeVisible();
  await page.evaluate((picture) => {
    const bytes = Uint8Array.from(atob(picture), (letter) => letter.charCodeAt(0));
    const pasted = new DataTransfer();
    pasted.items.add(new File([bytes], "image.png", { type: "image/png" }));
    window.dispatchEvent(new ClipboardEvent("paste", { clipboardData: pasted, cancelable: true }));
  }, pictureOf("port-ellery-galley-03.pdf"));
  await expect(page.getByRole("status").getByText("1 of 1 files taken in")).toBeVisible();
  const row = page.getByRole("row", { name: /PE71024/ });
  await expect(row).toContainText("held", { timeout: 60_000 });
  await row.getByRole("link").first().click();

  await expect(page.locator(".leaf[data-drawn] canvas").first()).toBeVisible();
  // The print is dark on white, not an empty canvas.
  expect(
    await page
      .locator(".leaf canvas")
      .first()
      .evaluate((canvas: HTMLCanvasElement) => {
        const dots = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
        return dots.filter((value, index) => index % 4 === 0 && value < 128).length;
      }),
  ).toBeGreaterThan(1000);
  const doubt = page.getByText(/read as “.*” and as “.*” on page 1/).first();
  await expect(doubt).toBeVisible();
  await expect(page.getByRole("list", { name: "What would mend it" })).toContainText(
    "other reading of the print",
  );
  await page.keyboard.press("n");
  await expect(page.getByRole("img", { name: "What is printed on page 1, enlarged" })).toBeVisible();
  await expectNoViolation(page);
  await page.keyboard.press("1");
  await expect(page.locator(".captured .state").first()).toContainText("clear");
  const documents = await (await request.get(at(`/api/v1/batches/${batch.id}/documents`))).json();
  expect(documents[0].file).toMatch(/^pasted \d{4}-\d\d-\d\d \d\d\.\d\d\.\d\d\.png$/);
});
