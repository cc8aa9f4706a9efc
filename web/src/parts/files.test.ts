import { expect, test, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
const { readFile, saveFile } = await import("./files");

const file = (text: string) => ({ text: async () => text }) as File;

test("a file brought in is what it holds", async () => {
  expect(await readFile(file('{"format": "even-probe/survey"}'))).toEqual({ format: "even-probe/survey" });
});

test("what is no JSON is refused in words, as the server would", async () => {
  await expect(readFile(file("{"))).rejects.toMatchObject({
    status: 422,
    message: expect.stringMatching("not JSON"),
  });
});

test("a file saved is named as the format it is in", () => {
  const link = { click: vi.fn() } as unknown as HTMLAnchorElement;
  vi.stubGlobal("document", { createElement: () => link });
  vi.stubGlobal("URL", { createObjectURL: () => "blob:1", revokeObjectURL: vi.fn() });
  saveFile({ format: "even-probe/survey" }, "Outlet 3");
  expect(link.download).toBe("Outlet 3.survey.json");
  saveFile({}, "Outlet 3");
  expect(link.download).toBe("Outlet 3.data.json");
  expect(link.click).toHaveBeenCalledTimes(2);
});
