import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { standing, stepAgain } from "./standing";

/** The shapes of the contract, by name. */
export type Schemas = components["schemas"];

/** Talks to the server; every path and shape is checked against the contract. */
export const api = createClient<paths>({ baseUrl: "/" });

// Whatever changes something carries a key, so that sent twice it is done once; an act that may be tried again brings its own.
api.use({
  onRequest({ request }) {
    if (request.method !== "GET" && !request.headers.has("Idempotency-Key"))
      request.headers.set("Idempotency-Key", newKey());
    return request;
  },
});

// A copy of each request on its way: one that found no session goes once more when somebody signed in again.
const copies = new Map<string, Request>();
const isAway = (status: number) => status >= 502 && status <= 504;

api.use({
  onRequest({ request, id }) {
    copies.set(id, request.clone());
  },
  async onResponse({ response, schemaPath, id, options }) {
    const copy = copies.get(id);
    copies.delete(id);
    if (isAway(response.status)) standing.serverAway();
    else standing.serverAnswered();
    if (response.status === 403 && copy && (await codeOf(response)) === "step-again") {
      // Refused before anything was done: the same request goes once more when the step was shown.
      if (!(await stepAgain())) return response;
      const send = options.fetch;
      return send(copy);
    }
    if (response.status !== 401 || schemaPath === "/api/sign-in" || standing.person === null || !copy)
      return response;
    await standing.renewal();
    // Called as a method of the options, a browser's own would refuse.
    const send = options.fetch;
    return send(copy);
  },
  onError({ id }) {
    copies.delete(id);
    standing.serverAway();
  },
});

const codeOf = async (response: Response) => {
  try {
    return ((await response.clone().json()) as { code?: string }).code;
  } catch {
    return undefined;
  }
};

/** An error that the server explained: what is wrong, what to do, and about which field. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly what: string,
    readonly mend: string,
    readonly field?: string,
  ) {
    super(`${what} ${mend}`);
  }
}

interface ProblemBody {
  title?: string;
  detail?: string;
  code?: string;
  field?: string;
}

/** Reads an explained error out of any answer. */
export function problemOf(status: number, body: unknown): ProblemError {
  const p = (typeof body === "object" && body !== null ? body : {}) as ProblemBody;
  return new ProblemError(
    status,
    p.code ?? "fault",
    p.title ?? "Spring Loft did not answer as it should.",
    p.detail ?? "Try again in a moment.",
    p.field,
  );
}

/** Waits for an answer and gives its data, or throws what the server explained. */
export async function take<T>(asked: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer;
  try {
    answer = await asked;
  } catch {
    throw new ProblemError(
      0,
      "offline",
      "Spring Loft can't be reached.",
      "Check the connection; nothing was lost. Then try again.",
    );
  }
  if (!answer.response.ok) throw problemOf(answer.response.status, answer.error);
  return answer.data as T;
}

/** A key for one intention: sent twice, it is done once. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, "0")).join(
    "",
  );
}

/** Was the answer lost on the way, so that nobody knows whether it was done? Then it is asked again with the same key. */
export const isLost = (status: number) => status === 0 || isAway(status);

// A file that did not arrive is sent again under the key it had.
const keysOfFiles = new WeakMap<File, Map<string, string>>();

function keyOf(file: File, path: string): string {
  const keys = keysOfFiles.get(file) ?? new Map<string, string>();
  keysOfFiles.set(file, keys);
  const key = keys.get(path) ?? newKey();
  keys.set(path, key);
  return key;
}

/** Sends a file as the bare body of a request and tells how far it is, 0 to 1. */
export function sendFile<T>(path: string, file: File, onProgress: (part: number) => void): Promise<T> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `${path}${path.includes("?") ? "&" : "?"}name=${encodeURIComponent(file.name)}`);
    request.setRequestHeader("Content-Type", "application/octet-stream");
    request.setRequestHeader("Idempotency-Key", keyOf(file, path));
    request.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total);
    request.onerror = () => {
      standing.serverAway();
      reject(
        new ProblemError(
          0,
          "offline",
          `“${file.name}” did not arrive.`,
          "Check the connection and add it again.",
        ),
      );
    };
    request.onload = () => {
      if (isAway(request.status)) standing.serverAway();
      else standing.serverAnswered();
      if (request.status === 401 && standing.person !== null) {
        void standing.renewal().then(() => sendFile<T>(path, file, onProgress).then(resolve, reject));
        return;
      }
      // Answered, it is settled: the same file put in once more is another act.
      if (!isLost(request.status)) keysOfFiles.get(file)?.delete(path);
      let body: unknown;
      try {
        body = JSON.parse(request.responseText);
      } catch {
        body = undefined;
      }
      if (request.status < 300) resolve(body as T);
      else reject(problemOf(request.status, body));
    };
    request.send(file);
  });
}
