import createClient from "openapi-fetch";
import type { paths } from "./schema";
import type { Problem } from "./types";

/** An answer of the server that is no success, with its problems by JSON pointer. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: Problem[] = [],
    readonly body: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

export function csrf(): string {
  return document.cookie.match(/csrftoken=([^;]+)/)?.[1] ?? "";
}

async function refused(response: Response): Promise<Refused> {
  const body = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  const title = typeof body.title === "string" ? body.title : `the server answered ${response.status}`;
  return new Refused(response.status, title, (body.problems as Problem[] | undefined) ?? [], body);
}

let tape = "mm";

/** How texts of the server tell their quantities from now on; what was fetched before has to be fetched again. */
export function readTapeAs(style: string): void {
  tape = style;
}

export const api = createClient<paths>({ baseUrl: "" });
api.use({
  onRequest({ request }) {
    request.headers.set("X-CSRFToken", csrf());
    request.headers.set("X-Tape", tape);
    return request;
  },
  async onResponse({ response }) {
    if (!response.ok) throw await refused(response);
    return response;
  },
  onError({ error }) {
    return error instanceof Refused ? error : unreached();
  },
});

const unreached = () => new Refused(0, "the server cannot be reached; your work is kept here");

type Posts = "/api/evaluate" | "/api/travel";
type Question<P extends Posts> = paths[P]["post"]["requestBody"]["content"]["application/json"];
type Answer<P extends Posts> = paths[P]["post"]["responses"][200]["content"]["application/json"];

/** Ask while a hand moves: the request leaves within this call, not after promises that a drawing may hold up. */
export function askedAtOnce<P extends Posts>(path: P, body: Question<P>): Promise<Answer<P>> {
  return answered(fetch(path, posted(body)));
}

async function answered<T>(sent: Promise<Response>): Promise<T> {
  const response = await sent.catch(() => {
    throw unreached();
  });
  if (!response.ok) throw await refused(response);
  // a line that breaks in the middle of an answer gave none
  return await response.json().catch(() => {
    throw unreached();
  });
}

/** The data of an answer; an empty one is an error. */
export async function got<T>(call: Promise<{ data?: T }>): Promise<T> {
  const { data } = await call;
  if (data === undefined) throw new Refused(0, "the server gave no answer");
  return data;
}

/** Send raw text (a job file) and get JSON back. */
export async function postText<T>(path: string, text: Blob): Promise<T> {
  const response = await fetch(path, {
    method: "POST",
    body: text,
    headers: { "X-CSRFToken": csrf(), "X-Tape": tape },
  });
  if (!response.ok) throw await refused(response);
  return (await response.json()) as T;
}

/** Post JSON and read the answer line by line; abort the signal to cancel. */
export async function postLines<T>(path: string, body: unknown, signal: AbortSignal, each: (line: T) => void) {
  const response = await fetch(path, { ...posted(body), signal });
  if (!response.ok || !response.body) throw await refused(response);
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    rest += value ?? "";
    const lines = rest.split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) each(JSON.parse(line) as T);
    if (done) return;
  }
}

function posted(body: unknown): RequestInit {
  const headers = { "X-CSRFToken": csrf(), "X-Tape": tape, "Content-Type": "application/json" };
  return { method: "POST", body: JSON.stringify(body), headers };
}

/** Fetch a file and hand it to the browser to save; a refusal is thrown, so that the page stays where it is. */
export async function save(href: string, body?: object): Promise<void> {
  const response = await (body ? fetch(href, posted(body)) : fetch(href));
  if (!response.ok) throw await refused(response);
  const name = response.headers.get("Content-Disposition")?.match(/filename="([^"]+)"/)?.[1] ?? "file";
  handOver(await response.blob(), name);
}

/** Hand what the page made itself to the browser to save. */
export function handOver(blob: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
