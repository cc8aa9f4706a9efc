import { beforeEach, describe, expect, it } from "vitest";
import { fetchedOnce, forgetAnswers } from "./fetchedOnce";

const asked: (string | null)[] = [];

/** A server whose answer has one tag for as long as it says the same. */
const server =
  (says: () => string, tagged = true) =>
  async (request: Request) => {
    const tag = `"${says()}"`;
    asked.push(request.headers.get("If-None-Match"));
    if (request.headers.get("If-None-Match") === tag) return new Response(null, { status: 304 });
    return new Response(says(), { headers: tagged ? { ETag: tag } : {} });
  };
const get = (path = "/today") => new Request(`http://here${path}`);

describe("an answer that is as it was", () => {
  beforeEach(() => {
    forgetAnswers();
    asked.length = 0;
  });

  it("is asked for with its tag and given again", async () => {
    const same = server(() => "one");
    for (let times = 0; times < 3; times++) {
      const answer = await fetchedOnce(get(), same);
      expect([answer.status, await answer.text()]).toEqual([200, "one"]);
    }
    expect(asked).toEqual([null, '"one"', '"one"']);
  });

  it("is the new one where there is one", async () => {
    let now = "one";
    const changing = server(() => now);
    await fetchedOnce(get(), changing);
    now = "two";
    expect(await (await fetchedOnce(get(), changing)).text()).toBe("two");
    expect(await (await fetchedOnce(get(), changing)).text()).toBe("two");
  });

  it("is kept for its own address alone, and for nobody after it was forgotten", async () => {
    const same = server(() => "one");
    await fetchedOnce(get(), same);
    await fetchedOnce(get("/sites"), same);
    forgetAnswers();
    await fetchedOnce(get(), same);
    expect(asked).toEqual([null, null, null]);
  });

  it("is not kept where the server gives no tag, nor of what is written", async () => {
    const untagged = server(() => "one", false);
    await fetchedOnce(get(), untagged);
    await fetchedOnce(get(), untagged);
    await fetchedOnce(
      new Request("http://here/today", { method: "PUT", body: "{}" }),
      server(() => "one"),
    );
    await fetchedOnce(get(), untagged);
    expect(asked).toEqual([null, null, null, null]);
  });

  it("is not given in place of a refusal", async () => {
    await fetchedOnce(
      get(),
      server(() => "one"),
    );
    const refused = await fetchedOnce(get(), async () => new Response("no", { status: 403 }));
    expect(refused.status).toBe(403);
  });

  it("keeps a few dozen", async () => {
    const same = server(() => "one");
    for (let site = 0; site < 60; site++) await fetchedOnce(get(`/sites/${site}`), same);
    await fetchedOnce(get("/sites/0"), same);
    await fetchedOnce(get("/sites/59"), same);
    expect(asked.slice(-2)).toEqual([null, '"one"']);
  });
});
