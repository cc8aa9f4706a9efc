import { expect, it, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
vi.stubGlobal("document", { cookie: "" });
const { answer, default: client, Refusal } = await import("./client");
const { lineCutOffSince } = await import("./line");

const answered = (body: BodyInit) => {
  const headers = { "Content-Type": "application/json" };
  vi.stubGlobal("fetch", async () => new Response(body, { headers }));
  return answer(client.GET("/api/today", { baseUrl: "http://here.invalid" }));
};

it("is an answer where it is whole", async () => {
  expect(await answered('{"practice": "british"}')).toEqual({ practice: "british" });
  expect(lineCutOffSince()).toBeNull();
});

it("is none where it was cut off half-way, and is asked for again like one that never came", async () => {
  const broken = new ReadableStream({ pull: (to) => to.error(new TypeError("network error")) });
  for (const body of ['{"practice": "bri', broken]) {
    const refusal = await answered(body).catch((refused: unknown) => refused);
    expect(refusal).toBeInstanceOf(Refusal);
    expect(refusal).toMatchObject({ status: 0 });
    expect(lineCutOffSince()).not.toBeNull();
  }
});
