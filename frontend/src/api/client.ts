import createClient, { type Middleware } from "openapi-fetch";
import { begin, end } from "./jobs";
import type { paths, Problem } from "./schema";

/** What the server said, or that it did not answer (`status` 0). */
export class ApiError extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.title);
    this.problem = problem;
  }

  get unreachable(): boolean {
    return this.problem.status === 0 || this.problem.status >= 502;
  }
}

const NO_ANSWER: Problem = {
  code: "no-answer",
  status: 0,
  title: "The server does not answer. What you type is kept here and saved when it is back.",
  faults: [],
  revision: null,
};

// A busy server may take long to say who is signed in; without the token it refuses everything.
const WAIT_FOR_TOKEN_MS = 20_000;

let csrf = "";
let tokenKnown: () => void = () => undefined;
const known = new Promise<void>((resolve) => {
  tokenKnown = resolve;
});

/** The token of this session, as the server gave it with “who am I”. */
export function setCsrf(token: string): void {
  csrf = token;
  tokenKnown();
}

/** The token; a quick hand can ask for it before the answer to “who am I” is here. */
async function token(): Promise<string> {
  if (csrf === "") {
    await Promise.race([known, new Promise((resolve) => setTimeout(resolve, WAIT_FOR_TOKEN_MS))]);
  }
  return csrf;
}

/** Testers' pages have no session: their link is their key. */
function needsToken(request: Request): boolean {
  return request.method !== "GET" && !new URL(request.url).pathname.startsWith("/api/t/");
}

const withToken: Middleware = {
  async onRequest({ request }) {
    if (needsToken(request)) request.headers.set("X-CSRF-Token", await token());
    return request;
  },
};

/** What is posted may take long, so it can be followed. */
function canBeLong(request: Request): boolean {
  return request.method === "POST" && needsToken(request);
}

const followed: Middleware = {
  onRequest({ request }) {
    if (canBeLong(request)) begin(request.headers, request.signal, stop);
    return request;
  },
  onResponse({ request }) {
    end(request.headers);
  },
  onError({ request }) {
    end(request.headers);
  },
};

export const client = createClient<paths>({ baseUrl: window.location.origin });
client.use(withToken, followed);

/** Stops long work on the server that nobody waits for any more; it is of no matter if it is done by now. */
function stop(name: string): void {
  void client.DELETE("/api/jobs/{name}", { params: { path: { name } } }).catch(() => undefined);
}

// With the pause between two tries this is half a minute: about the longest that other work keeps a place.
const MOST_TRIES = 20;

/** Whether a request is tried again by itself: only where the server had no room for it just then. */
export function whileBusy(failed: number, error: Error): boolean {
  return error instanceof ApiError && error.problem.status === 429 && failed < MOST_TRIES;
}

function problemOf(value: unknown, status: number): Problem {
  if (typeof value === "object" && value !== null && "title" in value) return value as Problem;
  if (status >= 502) return { ...NO_ANSWER, status };
  return { ...NO_ANSWER, code: "error", status, title: "Something went wrong on the server. Try again." };
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer; throws ApiError for everything else. */
export async function unwrap<T>(pending: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await pending;
  } catch {
    throw new ApiError(NO_ANSWER);
  }
  if (!answer.response.ok) throw new ApiError(problemOf(answer.error, answer.response.status));
  return answer.data as T;
}

/** Post a document and offer the answer as a file; throws ApiError. */
export async function download(path: string, body: unknown): Promise<void> {
  const headers = new Headers({ "Content-Type": "application/json", "X-CSRF-Token": await token() });
  begin(headers, null, stop);
  let response: Response;
  try {
    response = await fetch(path, { method: "POST", headers, body: JSON.stringify(body) });
  } catch {
    throw new ApiError(NO_ANSWER);
  } finally {
    end(headers);
  }
  if (!response.ok) throw new ApiError(problemOf(await response.json().catch(() => null), response.status));
  const name =
    /filename="([^"]+)"/.exec(response.headers.get("Content-Disposition") ?? "")?.[1] ?? "rillstep";
  const url = URL.createObjectURL(await response.blob());
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** Send a file's text as it is; throws ApiError. */
export async function upload<T>(path: string, content: string): Promise<T> {
  const response = await fetch(path, {
    method: "POST",
    headers: { "Content-Type": "application/json", "X-CSRF-Token": await token() },
    body: content,
  }).catch(() => {
    throw new ApiError(NO_ANSWER);
  });
  const answer: unknown = await response.json().catch(() => null);
  if (!response.ok) throw new ApiError(problemOf(answer, response.status));
  return answer as T;
}
