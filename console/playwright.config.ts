import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { defineConfig } from "@playwright/test";

const port = 7391;

/** Tests with a service of their own; all others share the demo's, with one set of data, and take turns. */
const OWN_SERVICE =
  /(approvals|coding|delivery|electronic|first-start|people|provider|scans|sources)\.spec\.ts$/;

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/until-captured.ts",
  workers: 2,
  projects: [
    { name: "shared", testIgnore: OWN_SERVICE, workers: 1 },
    { name: "own", testMatch: OWN_SERVICE, workers: 1 },
  ],
  // Limits for what hangs, not for what is slow: two tests and what they start share two cores.
  timeout: 240_000,
  expect: { timeout: 45_000 },
  reporter: [["list"], ["json", { outputFile: "test-results/report.json" }]],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: `../daxlin demo --port ${port} --data ${mkdtempSync(join(tmpdir(), "daxlin-e2e-"))}`,
    url: `http://localhost:${port}/api/v1/invoices/24`,
    timeout: 180_000,
    gracefulShutdown: { signal: "SIGTERM", timeout: 10_000 },
  },
});
