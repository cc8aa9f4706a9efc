/**
 * An answer that is as it was is not sent again: the server says so by its tag, and what it gave then is given here. In
 * memory alone, for it is gone with the page.
 */

const MOST = 40;
const NOT_MODIFIED = 304;

type Given = { tag: string; text: string; headers: Headers };

const given = new Map<string, Given>();

/** Nothing was given yet, as to somebody else. */
export const forgetAnswers = () => given.clear();

export async function fetchedOnce(request: Request, send: (request: Request) => Promise<Response> = fetch) {
  if (request.method !== "GET") return send(request);
  const before = given.get(request.url);
  if (before) request.headers.set("If-None-Match", before.tag);
  const response = await send(request);
  if (response.status === NOT_MODIFIED && before) return again(before, response);
  given.delete(request.url);
  const tag = response.headers.get("ETag");
  if (!response.ok || !tag) return response;
  const text = await response.text();
  keep(request.url, { tag, text, headers: response.headers });
  return new Response(text, { status: response.status, headers: response.headers });
}

/** With the head of the answer that says it is the same: the server's clock is in it. */
function again({ text, headers }: Given, same: Response) {
  const head = new Headers(headers);
  const now = same.headers.get("Date");
  if (now) head.set("Date", now);
  return new Response(text, { status: 200, headers: head });
}

function keep(url: string, answer: Given) {
  given.set(url, answer);
  const [oldest] = given.keys();
  if (given.size > MOST && oldest !== undefined) given.delete(oldest);
}
