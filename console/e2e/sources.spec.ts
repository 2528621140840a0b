import { copyFileSync, mkdtempSync, readdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { expectNoViolation } from "./axe";
import { typeText } from "./document-text";
import { emptyService } from "./empty-service";

const PORT = 7402;
const ARRIVING = "../samples/arriving";

test("a watched folder is written, takes what comes, tells what was left out, and says when it is away", async ({
  page,
}) => {
  const service = await emptyService(PORT);
  const origin = `http://localhost:${PORT}`;
  const folder = mkdtempSync(join(tmpdir(), "daxlin-share-"));
  try {
    await page.goto(origin);
    await page.getByRole("link", { name: "Sources" }).click();
    await expect(page.getByText("There are no sources yet")).toBeVisible();
    await page.getByRole("button", { name: "New source" }).click();
    const text = page.getByRole("textbox", { name: "The source as text" });
    const means = page.getByRole("region", { name: "What it means" });
    await typeText(
      page,
      `{ "name": "share", "batch": "Share {week}", "folder": { "path": "${folder}" } }`,
      text,
    );
    await expect(page.getByRole("list", { name: "What is wrong with the source" })).toContainText(
      "“{week}” is not known here; there are {day}, {month}, {folder}.",
    );
    await typeText(
      page,
      `{ "name": "share", "batch": "Share", "totals": { "cover": ["cover.csv"] }, "folder": { "path": "${folder}", "settleSeconds": 1 } }`,
      text,
    );
    await expect(means.getByText("What is taken in goes into the batch “Share”.")).toBeVisible();
    await page.getByRole("button", { name: "Save as version 1" }).click();
    await expect(page.getByText("Nothing has come from it yet.")).toBeVisible();

    for (const file of readdirSync(ARRIVING)) {
      copyFileSync(join(ARRIVING, file), join(folder, file));
    }
    const came = page.getByRole("region", { name: "What came" });
    await expect(came.getByRole("row", { name: /spring\.zip/ })).toContainText("■ skerrow/sail-02.pdf");
    await expect(came.getByRole("row", { name: /spring\.zip/ })).toContainText(
      "skerrow/cover.csv: It states 3 invoices over 173,073.52 EUR.",
    );
    await expect(came.getByRole("row", { name: /PE78710\.eml/ })).toContainText(
      "sign.png: It is a picture within the message's text.",
    );
    await expect(came.getByRole("row", { name: /moorings/ })).toContainText("no invoice that can be read");
    await expectNoViolation(page);
    await came.getByRole("link", { name: "Share" }).first().click();
    await expect(page.getByRole("heading", { name: "Share" })).toBeVisible();

    await expect(page.getByText("spring.zip: 3 invoices in EUR were stated, 0 captured")).toBeVisible();
    // No template is here, so nothing comes to anything: what was stated is told to be wanting.
    await page.getByRole("link", { name: "Sheet and control totals" }).click();
    await expect(page.getByRole("row", { name: /spring\.zip/ })).toContainText(
      "▲ 3 invoices in EUR were stated, 0 captured (3 less)",
    );
    await expectNoViolation(page);

    // Where a mailbox answers, what a vendor is told is sent from the dialog, and how that went is said.
    await page.request.post(`${origin}/api/v1/sources`, {
      data: {
        name: "post",
        batch: "Post",
        mailbox: {
          host: "127.0.0.1",
          port: 9,
          encryption: "none",
          user: "u",
          password: "post",
          answer: { host: "127.0.0.1", port: 9, encryption: "none", from: "invoices@kestrel-sound.example" },
        },
      },
    });
    const [batch] = await (await page.request.get(`${origin}/api/v1/batches`)).json();
    const [invoice] = await (await page.request.get(`${origin}/api/v1/batches/${batch.id}/invoices`)).json();
    await page.goto(`${origin}/invoices/${invoice.id}`);
    await page.getByRole("button", { name: "Return …" }).press("Enter");
    await page.getByLabel("Why it goes back").fill("It is of another company");
    await expect(page.getByText("sent once by the mailbox “post”")).toBeVisible();
    await expect(page.getByRole("button", { name: "Return it", exact: true })).toBeVisible();
    await page.getByLabel("Send it to").fill("billing@port-ellery.example");
    await expectNoViolation(page, "the dialog", "[role=dialog]");
    await page.getByRole("button", { name: "Return it and send the letter" }).press("Enter");
    await expect(page.getByText("with a letter to billing@port-ellery.example")).toBeVisible();
    await expect
      .poll(async () => {
        await page.reload();
        return page.getByText("◦ The letter to billing@port-ellery.example waits to be sent.").textContent();
      })
      .toContain("127.0.0.1:9 could not be reached");
    await page.request.post(`${origin}/api/v1/sources/post/retirement`, {
      data: {},
      headers: { "If-Match": '"1"' },
    });

    // A share that is away says so; pausing and going on by the keyboard.
    renameSync(folder, `${folder}-away`);
    await page.getByRole("link", { name: "Sources" }).click();
    await page.getByRole("button", { name: "Try now" }).press("Enter");
    await expect(page.getByRole("row", { name: /share/ })).toContainText(`▲ cannot be looked at`);
    await expect(page.getByText(`The folder ${folder} is not there.`).first()).toBeVisible();
    renameSync(`${folder}-away`, folder);
    writeFileSync(join(folder, "later.pdf"), "Not one either.");
    await page.getByRole("button", { name: "Pause" }).press("Enter");
    await expect(page.getByRole("row", { name: /share/ })).toContainText("◦ paused");
    await page.getByRole("button", { name: "Go on" }).press("Enter");
    await expect(page.getByRole("row", { name: /share/ })).toContainText("● watched");
    await expect(page.getByRole("row", { name: /share/ })).toContainText("4");
    await expectNoViolation(page);
  } finally {
    service.kill("SIGTERM");
    rmSync(folder, { recursive: true, force: true });
  }
});
