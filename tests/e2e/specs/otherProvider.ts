import { createServer, type IncomingMessage, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
// A certified provider of OpenID Connect that is not ours, from the registry: what we take from the standard is held against what others do.
import Provider from "oidc-provider";

export type OtherProvider = { issuer: string; serve: (program: string) => void; end: () => Promise<void> };

/** Starts it on a port of its own; it knows the program once that has an address. */
export async function startOther(): Promise<OtherProvider> {
  let answer: (request: IncomingMessage, response: ServerResponse) => void = (_, response) => response.writeHead(503).end();
  const server = createServer((request, response) => answer(request, response));
  await new Promise<void>((go) => server.listen(0, "127.0.0.1", go));
  const issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    issuer,
    serve: (program) => {
      const provider = new Provider(issuer, {
        clients: [
          {
            client_id: "loft",
            client_secret: "a-secret-of-the-test",
            redirect_uris: [`${program}/api/single-sign-on/back`],
            post_logout_redirect_uris: [`${program}/api/single-sign-on/out-there`],
            backchannel_logout_uri: `${program}/api/single-sign-on/other/ended`,
            backchannel_logout_session_required: true,
          },
        ],
        claims: { openid: ["sub"], profile: ["preferred_username"] },
        conformIdTokenClaims: false,
        cookies: { keys: ["a-key-of-the-test"] },
        features: { backchannelLogout: { enabled: true } },
        // On its own it asks nobody on this machine; here all of them are.
        fetch: (url: URL, { method, body, headers }: RequestInit) => fetch(url, { method, body, headers }),
        findAccount: (_: unknown, id: string) => ({ accountId: id, claims: () => ({ sub: id, preferred_username: id.replace("account-of-", "") }) }),
      });
      answer = provider.callback();
    },
    end: () => new Promise((go) => { server.closeAllConnections(); server.close(() => go()); }),
  };
}
