import type { ChildProcess } from "node:child_process";
import { expect, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { signedInService } from "./empty-service";

const PORT = 7398;
const ORIGIN = `http://localhost:${PORT}`;
const PASSWORD = "four gulls on a mast";

let service: ChildProcess;
let link: string;

test.beforeAll(async () => {
  ({ service, link } = await signedInService(PORT));
});

test.afterAll(() => {
  service.kill("SIGTERM");
});

test("people come in by links, sign in by keyboard, and do what they may", async ({ page, browser }) => {
  const refusedByPolicy: string[] = [];
  page.on("console", (message) => {
    if (message.text().includes("Content Security Policy")) {
      refusedByPolicy.push(message.text());
    }
  });
  // Nobody sees a page before signing in.
  await page.goto(`${ORIGIN}/posting`);
  await expect(page.getByRole("form", { name: "Sign in" })).toBeVisible();
  await expect(page.getByRole("navigation", { name: "Pages" })).toHaveCount(0);

  // The printed link lets the first administrator begin, by keyboard alone.
  await page.goto(`${ORIGIN}/${link}`);
  await expect(page.getByLabel("Your name")).toBeFocused();
  await expectNoViolation(page);
  await page.keyboard.type("Ada Wrenfield");
  await page.keyboard.press("Tab");
  await page.keyboard.type(PASSWORD);
  await page.keyboard.press("Tab");
  await page.keyboard.type(PASSWORD);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("link", { name: "Ada Wrenfield" })).toBeVisible();
  // A link that was followed leads nowhere.
  const other = await browser.newContext();
  const late = await other.newPage();
  await late.goto(`${ORIGIN}/${link}`);
  await expect(late.getByRole("alert")).toContainText("The link was used already");

  await page.getByRole("link", { name: "Ada Wrenfield" }).click();
  await page.getByRole("button", { name: "Set one up" }).click();
  await expect(page.getByRole("img", { name: "The same secret, for a camera" })).toBeVisible();
  await expectNoViolation(page);
  await page.getByLabel("What a new key is for").fill("Nightly import");
  await page.getByRole("button", { name: "Make it" }).click();
  const shown = await page.getByRole("status").locator("code").textContent();
  expect(
    (
      await page.request.get(`${ORIGIN}/api/v1/batches`, { headers: { Authorization: `Bearer ${shown}` } })
    ).status(),
  ).toBe(200);
  await page.getByRole("button", { name: "Revoke" }).click();
  await expect(page.getByRole("cell", { name: "× revoked" })).toBeVisible();

  await page.getByRole("link", { name: "Look after people and their rights" }).click();
  await page.getByLabel("Name, in full").fill("Berta Quill");
  await page.getByRole("button", { name: "Add, and make a link" }).click();
  const bertas = await page.getByRole("status").locator("code").textContent();
  await expectNoViolation(page);

  // A clerk comes in by hers, and is refused what is not a clerk's with those named who can.
  await late.goto(bertas ?? "");
  await late.getByRole("textbox", { name: "Password" }).fill(PASSWORD);
  await late.getByRole("textbox", { name: "The same again" }).fill(PASSWORD);
  await late.keyboard.press("Enter");
  await expect(late.getByRole("link", { name: "Berta Quill" })).toBeVisible();
  await late.goto(`${ORIGIN}/people`);
  await expect(late.getByRole("cell", { name: "Berta Quill" })).toBeVisible();
  await expect(late.getByRole("button", { name: "Change …" })).toHaveCount(0);
  await late.goto(`${ORIGIN}/posting`);
  await late.getByRole("button", { name: "Close or open …" }).click();
  await late.getByLabel("Closed up to (empty: nothing)").fill("2026-01-31");
  await late.getByRole("button", { name: "Close", exact: true }).click();
  await expect(late.getByRole("alert")).toContainText(
    "Berta Quill may not look after people and settings; that is for administrators. Those who can: Ada Wrenfield.",
  );

  // Who is going to be away hands approvals over for a time, and takes them back.
  await page.goto(`${ORIGIN}/you`);
  const away = page.getByRole("region", { name: "While you are away" });
  await away.getByLabel("Who approves for you").selectOption("Berta Quill");
  const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
  await away.getByLabel("Up to and with").fill(tomorrow);
  await away.getByRole("button", { name: "Hand over" }).click();
  await expect(away).toContainText(`Berta Quill approves for Ada Wrenfield, up to and with ${tomorrow}.`);
  await expectNoViolation(page);
  expect((await (await late.request.get(`${ORIGIN}/api/v1/session`)).json()).standsInFor).toBe(
    "Ada Wrenfield",
  );
  await away.getByRole("button", { name: "End it" }).click();
  await expect(away.getByRole("button", { name: "Hand over" })).toBeVisible();
  await page.goto(`${ORIGIN}/people`);

  // Her sign-in ends while she types: she is asked for the password above what she typed, and goes on with it.
  await page.reload();
  await page
    .getByRole("row", { name: /Berta Quill/ })
    .getByRole("button", { name: "Change …" })
    .click();
  await page.getByRole("checkbox", { name: /^Disabled/ }).check();
  await page.getByRole("button", { name: "Keep it so" }).click();
  await expect(page.getByRole("cell", { name: "× disabled" })).toBeVisible();
  await late.getByRole("button", { name: "Close", exact: true }).click();
  await expect(late.getByRole("dialog", { name: "Your sign-in has ended" })).toBeVisible();
  await page
    .getByRole("row", { name: /Berta Quill/ })
    .getByRole("button", { name: "Change …" })
    .click();
  await page.getByRole("checkbox", { name: /^Disabled/ }).uncheck();
  await page.getByRole("button", { name: "Keep it so" }).click();
  await expect(page.getByRole("cell", { name: "× disabled" })).toHaveCount(0);
  await late.getByRole("textbox", { name: "Password" }).fill(PASSWORD);
  await late.keyboard.press("Enter");
  await expect(late.getByRole("dialog", { name: "Your sign-in has ended" })).toHaveCount(0);
  await expect(late.getByLabel("Closed up to (empty: nothing)")).toHaveValue("2026-01-31");

  // No script reads the cookie, and no page runs a script of its own.
  expect(await late.evaluate(() => document.cookie)).toBe("");
  await late.evaluate(() => {
    const script = document.createElement("script");
    script.textContent = "document.title = 'run'";
    document.body.append(script);
  });
  expect(await late.title()).not.toBe("run");

  await late.goto(`${ORIGIN}/you`);
  await late.getByRole("button", { name: "Sign out" }).click();
  await expect(late.getByRole("form", { name: "Sign in" })).toBeVisible();
  await expectNoViolation(late);
  await late.getByRole("textbox", { name: "Password" }).fill("three gulls on a mast");
  await late.keyboard.press("Enter");
  await expect(late.getByRole("alert")).toContainText("The name and the password do not fit each other");
  expect(refusedByPolicy).toEqual([]);
  await other.close();
});
