import { type APIRequestContext, expect, test } from "@playwright/test";
import { expectNoViolation } from "./axe";

const OTHER_ACCOUNT = "GB83 HVMD 0000 0061 2084 10";

async function vendorOf(request: APIRequestContext, name: string) {
  const [found] = await (await request.get(`/api/v1/vendors?search=${encodeURIComponent(name)}`)).json();
  return await (await request.get(`/api/v1/vendors/${found.id}`)).json();
}

async function act(request: APIRequestContext, id: number, path: string, data: object, person: string) {
  const { revision } = await (await request.get(`/api/v1/vendors/${id}`)).json();
  const answer = await request.post(`/api/v1/vendors/${id}/${path}`, {
    data,
    headers: { "If-Match": `"${revision}"`, "Daxlin-Person": person },
  });
  expect(answer.status()).toBe(200);
}

test("an account that is not the vendor's stops an invoice until two persons have confirmed it", async ({
  page,
  request,
}) => {
  const vendor = await vendorOf(request, "Skerrow");
  const own = vendor.accountsSeen[0].iban;
  await act(request, vendor.id, "accounts", { iban: OTHER_ACCOUNT, reason: "By telephone" }, "Mira");
  await act(request, vendor.id, "accounts/confirmation", { iban: OTHER_ACCOUNT, reason: "By letter" }, "Jon");
  const invoices = await (await request.get("/api/v1/batches/1/invoices")).json();
  const { id } = invoices.find((one: { file: string }) => one.file === "skerrow-sail-loft-01.pdf");

  await page.goto(`/invoices/${id}`);
  const findings = page.getByRole("list", { name: "What to look at" });
  await expect(findings).toContainText(`The bank account ${own} is not that of Skerrow Sail Loft`);
  await expect(findings.getByRole("button", { name: "Let it pass" })).toHaveCount(0);
  await page.getByRole("link", { name: "The vendor's accounts" }).click();

  // Who added it cannot confirm it.
  await page.getByRole("button", { name: "not said" }).click();
  await page.getByLabel("Your name, for the history").fill("Mira");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Account (IBAN)")).toHaveValue(own);
  await page.getByLabel(/How you know that it is the vendor's/).fill("Asked on the number of the contract");
  await page.keyboard.press("Enter");
  await expect(page.getByText("waits for a second person")).toBeVisible();
  await page.getByRole("button", { name: "Confirm …" }).click();
  await page.getByLabel(/How you know, too/).fill("Asked again");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Mira added this account; another person must confirm it.")).toBeVisible();

  await page.getByRole("button", { name: "Mira", exact: true }).click();
  await page.getByLabel("Your name, for the history").fill("Jon");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Confirm", exact: true }).click();
  await expect(page.getByText("● confirmed")).toHaveCount(2);
  await expect(page.getByText(`confirmed the bank account that Mira added`).first()).toBeVisible();
  await page.goBack();
  await expect(page.locator(".captured .state").first()).toContainText("clear");

  // Leaves the record as it found it.
  await act(request, vendor.id, "accounts/end", { iban: OTHER_ACCOUNT, reason: "Only a test" }, "Jon");
});

test("what a record says is kept, and holds what says otherwise; two at once are told", async ({
  page,
  request,
}) => {
  const vendor = await vendorOf(request, "Halvard");
  await page.goto("/vendors");
  await page.getByRole("searchbox").fill("halv");
  await expect(page.getByRole("row")).toHaveCount(2);
  await page.getByRole("link", { name: "Halvard Marine Diesel Ltd" }).click();
  await page.getByLabel("Bills in").fill("sek");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText(/open invoices? held or clear now/)).toBeVisible();
  await expect(page.getByRole("link", { name: /▲ \d held/ })).toBeVisible();
  await expect(page.getByText("currency: SEK").first()).toBeVisible();
  await expectNoViolation(page);

  // Somebody else changes the record meanwhile: nothing is written over it.
  const { revision } = await (await request.get(`/api/v1/vendors/${vendor.id}`)).json();
  await page.getByLabel("Ledger account").fill("6120");
  const put = await request.put(`/api/v1/vendors/${vendor.id}`, {
    data: { name: vendor.name },
    headers: { "If-Match": `"${revision}"` },
  });
  expect(put.status()).toBe(200);
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText(/was changed since it was shown/)).toBeVisible();
  expect((await vendorOf(request, "Halvard")).ledgerAccount).toBe("");
  // What was typed is still there, and goes onto the record as it is now.
  await expect(page.getByLabel("Ledger account")).toHaveValue("6120");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText("ledger account: 6120").first()).toBeVisible();
});

test("the history is filtered, followed and verified", async ({ page }) => {
  await page.goto("/history");
  await page.getByLabel("What was done").selectOption("captured");
  await expect(page.getByRole("cell", { name: /captured by the template/ }).first()).toBeVisible();
  await expect(page.getByRole("cell", { name: /saved version/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Verify it" }).click();
  await expect(page.getByText(/● Whole: \d+ entries/)).toBeVisible();
  await expectNoViolation(page);
  await page
    .getByRole("link", { name: /invoice \d+/ })
    .first()
    .click();
  await expect(page).toHaveURL(/\/invoices\/\d+/);
});
