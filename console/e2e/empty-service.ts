import { spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** A service with nothing in it, started as a newcomer would; for what would disturb the invoices of other tests. */
export async function emptyService(port: number) {
  const service = spawn("../daxlin", [
    "serve",
    "--without-sign-in",
    "--port",
    `${port}`,
    "--data",
    mkdtempSync(join(tmpdir(), "daxlin-first-")),
  ]);
  await new Promise<void>((resolve, reject) => {
    service.stdout.on("data", (said) => `${said}`.includes("http") && resolve());
    service.on("exit", () => reject(new Error("The service did not start.")));
  });
  return service;
}
