import { createHash, generateKeyPairSync, sign } from "node:crypto";
import { mkdtempSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";

const encoded = (value: object) => Buffer.from(JSON.stringify(value)).toString("base64url");

/**
 * A small provider of identities after OpenID Connect Core 1.0, with a page of its own that asks whether to go on, as
 * true ones have. `file` tells Daxlin of it.
 */
export async function identityProvider(
  port: number,
  person: { name: string; groups: string[] },
): Promise<{ provider: Server; file: string }> {
  const issuer = `http://127.0.0.1:${port}`;
  const { publicKey, privateKey } = generateKeyPairSync("rsa", { modulusLength: 2048 });
  const asked = new Map<string, URLSearchParams>();
  const provider = createServer(async (request, response) => {
    const url = new URL(request.url ?? "/", issuer);
    const answer = (body: object) => {
      response.setHeader("Content-Type", "application/json");
      response.end(JSON.stringify(body));
    };
    if (url.pathname === "/.well-known/openid-configuration") {
      answer({
        issuer,
        authorization_endpoint: `${issuer}/authorize`,
        token_endpoint: `${issuer}/token`,
        jwks_uri: `${issuer}/keys`,
      });
    } else if (url.pathname === "/keys") {
      answer({ keys: [{ ...publicKey.export({ format: "jwk" }), use: "sig", alg: "RS256", kid: "one" }] });
    } else if (url.pathname === "/authorize") {
      const code = `code-${asked.size}`;
      asked.set(code, url.searchParams);
      const back = `${url.searchParams.get("redirect_uri")}?code=${code}&state=${encodeURIComponent(url.searchParams.get("state") ?? "")}`;
      response.setHeader("Content-Type", "text/html");
      response.end(
        `<p>Sign in to Daxlin as ${person.name}?</p><a href="${back.replaceAll("&", "&amp;")}">Go on</a>`,
      );
    } else if (url.pathname === "/token") {
      let body = "";
      for await (const part of request) {
        body += part;
      }
      const form = new URLSearchParams(body);
      const given = asked.get(form.get("code") ?? "");
      const challenge = createHash("sha256")
        .update(form.get("code_verifier") ?? "")
        .digest("base64url");
      if (given?.get("code_challenge") !== challenge) {
        response.statusCode = 400;
        answer({ error: "invalid_grant" });
        return;
      }
      const now = Math.floor(Date.now() / 1000);
      const claims = {
        iss: issuer,
        aud: "daxlin",
        sub: person.name,
        iat: now,
        exp: now + 600,
        nonce: given.get("nonce"),
        ...person,
      };
      const signed = `${encoded({ alg: "RS256", kid: "one" })}.${encoded(claims)}`;
      const signature = sign("sha256", Buffer.from(signed), privateKey).toString("base64url");
      answer({ id_token: `${signed}.${signature}`, access_token: "of no use here", token_type: "Bearer" });
    } else {
      response.statusCode = 404;
      response.end();
    }
  });
  await new Promise<void>((resolve) => provider.listen(port, "127.0.0.1", resolve));
  const file = join(mkdtempSync(join(tmpdir(), "daxlin-provider-")), "provider.json");
  writeFileSync(
    file,
    JSON.stringify({
      name: "Kestrel accounts",
      authority: issuer,
      clientId: "daxlin",
      roles: { "AP clerks": ["clerk"] },
    }),
  );
  return { provider, file };
}
