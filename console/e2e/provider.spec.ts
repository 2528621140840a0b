import type { ChildProcess } from "node:child_process";
import type { Server } from "node:http";
import { expect, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { signedInService } from "./empty-service";
import { identityProvider } from "./identity-provider";

const PORT = 7393;
const ORIGIN = `http://localhost:${PORT}`;

let service: ChildProcess;
let provider: Server;

test.beforeAll(async () => {
  const made = await identityProvider(7392, { name: "Berta Quill", groups: ["AP clerks"] });
  provider = made.provider;
  ({ service } = await signedInService(PORT, "--identity-provider", made.file));
});

test.afterAll(() => {
  service.kill("SIGTERM");
  provider.close();
});

test("who has an account with the provider comes in by it, and goes on where the sign-in ended", async ({
  page,
}) => {
  await page.goto(`${ORIGIN}/vendors`);
  await expectNoViolation(page);
  await page.getByRole("link", { name: "Sign in by Kestrel accounts" }).click();
  await expect(page.getByText("Sign in to Daxlin as Berta Quill?")).toBeVisible();
  await page.getByRole("link", { name: "Go on" }).click();
  // From the provider's pages one comes back signed in, to the page that one wanted.
  await expect(page).toHaveURL(`${ORIGIN}/vendors`);
  await expect(page.getByRole("link", { name: "Berta Quill" })).toBeVisible();
  await page.getByRole("link", { name: "Berta Quill" }).click();
  await expect(page.getByRole("region", { name: "Where you are signed in" })).toContainText("● this browser");
  // Password and second factor are the provider's matter.
  await expect(page.getByText("You come by Kestrel accounts")).toBeVisible();
  await expect(page.getByRole("form", { name: "Change the password" })).toHaveCount(0);
  await expectNoViolation(page);

  // The sign-in ends at another browser while something is typed; by another tab one is in again, and it stands there still.
  await page.goto(ORIGIN);
  await page.getByLabel("Name of the new batch").fill("November");
  const own = await (await page.request.get(`${ORIGIN}/api/v1/session`)).json();
  await page.request.delete(`${ORIGIN}/api/v1/session`, { headers: { "Daxlin-Form": own.formToken } });
  await page.keyboard.press("Enter");
  const dialog = page.getByRole("dialog", { name: "Your sign-in has ended" });
  const opened = page.context().waitForEvent("page");
  await dialog.getByRole("link", { name: "Sign in by Kestrel accounts" }).click();
  const tab = await opened;
  await tab.getByRole("link", { name: "Go on" }).click();
  await expect(tab.getByRole("link", { name: "Berta Quill" })).toBeVisible();
  await tab.close();
  await page.bringToFront();
  await page.evaluate(() => window.dispatchEvent(new Event("focus")));
  await expect(dialog).toHaveCount(0);
  await expect(page.getByLabel("Name of the new batch")).toHaveValue("November");
});
