import { readdirSync, readFileSync } from "node:fs";
import { expect, request as requests, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { invoicesOf } from "./batches";
import { emptyService } from "./empty-service";

const PORT = 7397;
const FOLDER = "../docs/electronic";

test("an electronic invoice alone is drawn, pointed at, corrected and approved; one beside a page holds what differs", async ({
  page,
}) => {
  const service = await emptyService(PORT);
  const origin = `http://localhost:${PORT}`;
  const request = await requests.newContext({ baseURL: origin });
  try {
    await request.post("/api/v1/templates", {
      data: JSON.parse(readFileSync("../samples/skerrow-sail-loft/skerrow.template.json", "utf8")),
    });
    await request.post("/api/v1/batches", { data: { name: "Electronic" } });
    await page.goto(`${origin}/batches/1`);
    await expect(page.getByText("PDF, scans and photos, or XML in UBL or CII")).toBeVisible();
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "Take files in" }).click();
    await (await chooser).setFiles(readdirSync(FOLDER).map((file) => `${FOLDER}/${file}`));
    await expect(page.getByRole("row", { name: /CRW-4404/ })).toContainText("clear");

    // The sheet is drawn: the words stand where the values are marked.
    await page.getByRole("link", { name: "CRW-4404" }).click();
    await expect(page.getByText("read as an electronic invoice")).toBeVisible();
    const leaf = page.locator(".leaf[data-page='1'][data-drawn]");
    await expect(leaf).toBeVisible();
    const ink = await leaf.locator("canvas").evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height) ?? {};
      return data?.filter((value, at) => at % 4 === 0 && value < 100).length ?? 0;
    });
    expect(ink).toBeGreaterThan(500);
    await page.locator("[data-mark=total]").click();
    await expect(page.locator(".connector path")).toBeVisible();
    await expect(page.getByText("LegalMonetaryTotal/TaxInclusiveAmount")).toBeVisible();
    await expect(page.getByRole("img", { name: /enlarged/ })).toBeVisible();
    // There is no template to be chosen or mended.
    await expect(page.getByRole("button", { name: "Template …" })).toHaveCount(0);
    await page.getByLabel("Search the pages").fill("Hawser");
    await expect(page.locator("[data-found]")).toBeVisible();
    await expectNoViolation(page);
    await page.locator("[data-value=total]").first().click();
    await page.keyboard.press("Control+Enter");
    await expect(page.locator(".captured .state").first()).toContainText("approved");

    const invoices = await invoicesOf(request, 1);
    await page.goto(`${origin}/invoices/${invoices.find((one) => one.state === "held")?.id}`);
    await expect(page.getByText(/states 27 of these figures, 8 of them otherwise/)).toBeVisible();
    await expect(
      page.getByText(/^▲ Row 2, quantity: the electronic invoice invoice.xml states 47; the page states 46/),
    ).toBeVisible();
    await page.goto(`${origin}/help/ELECTRONIC`);
    await expect(page.getByRole("heading", { name: "Inside a PDF: a witness" })).toBeVisible();
  } finally {
    await request.dispose();
    service.kill("SIGTERM");
  }
});
