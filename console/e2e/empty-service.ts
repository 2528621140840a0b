import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** A service with nothing in it, as at one desk; for what would disturb the invoices of other tests. */
export async function emptyService(port: number) {
  return (await started(port, /http/, "--without-sign-in")).service;
}

/** A service that people sign in to, with the address of the link that it prints for its first administrator. */
export async function signedInService(port: number, ...more: string[]) {
  const { service, said } = await started(port, /welcome#\S+/, ...more);
  return { service, link: said };
}

async function started(
  port: number,
  wanted: RegExp,
  ...more: string[]
): Promise<{ service: ChildProcess; said: string }> {
  const data = mkdtempSync(join(tmpdir(), "daxlin-e2e-"));
  const service = spawn("../daxlin", ["serve", "--port", `${port}`, "--data", data, ...more]);
  let told = "";
  let complained = "";
  service.stderr.on("data", (part) => {
    complained += `${part}`;
  });
  const said = await new Promise<string>((resolve, reject) => {
    service.stdout.on("data", (part) => {
      told += `${part}`;
      const found = wanted.exec(told);
      if (found) {
        resolve(found[0]);
      }
    });
    service.on("exit", (code, signal) =>
      reject(new Error(`The service did not start (${code ?? signal}): ${told}${complained}`)),
    );
  });
  return { service, said };
}
