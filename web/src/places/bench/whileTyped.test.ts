import { expect, test, vi } from "vitest";
import type { JudgedReading } from "../../api/client";
import type { ReadingBody } from "../../api/outbox/waiting";
import { WhileTyped } from "./whileTyped";

const reading = (value: number): ReadingBody => ({
  entry: { quantity: "voltage", from: "L", to: "N", value },
  tester: null,
  supersedes: null,
});
const HAZARD: JudgedReading = { verdict: "hazard", summary: "Treat as live." };
const POINT = {};

function server() {
  const asked: { body: ReadingBody; answer: (found: JudgedReading) => void; fail: () => void }[] = [];
  const whileTyped = new WhileTyped(
    (body) => new Promise((answer, fail) => asked.push({ body, answer, fail: () => fail(new Error("cut")) })),
  );
  const told = vi.fn();
  return { asked, whileTyped, told };
}
const settled = () => new Promise((done) => setTimeout(done));

test("what was answered while typing is told in the same moment as it is recorded", async () => {
  const { asked, whileTyped, told } = server();
  whileTyped.typed(reading(119), POINT);
  asked[0]?.answer(HAZARD);
  await settled();
  whileTyped.recorded(reading(119), POINT, told);
  expect(told).toHaveBeenCalledExactlyOnceWith(HAZARD);
});

test("recorded before the answer is there, it is told when it comes", async () => {
  const { asked, whileTyped, told } = server();
  whileTyped.typed(reading(119), POINT);
  whileTyped.recorded(reading(119), POINT, told);
  expect(told).not.toHaveBeenCalled();
  asked[0]?.answer(HAZARD);
  await settled();
  expect(told).toHaveBeenCalledExactlyOnceWith(HAZARD);
});

test("another number, another point or one read at again meanwhile is not told by it", async () => {
  const { asked, whileTyped, told } = server();
  whileTyped.typed(reading(119), POINT);
  asked[0]?.answer(HAZARD);
  await settled();
  whileTyped.recorded(reading(11), POINT, told);
  whileTyped.recorded(reading(119), { read: "again" }, told);
  whileTyped.recorded({ ...reading(119), supersedes: "r1" }, POINT, told);
  await settled();
  expect(told).not.toHaveBeenCalled();
});

test("one is asked at a time, then the newest, and the same not twice", async () => {
  const { asked, whileTyped } = server();
  for (const value of [1, 11, 119, 119]) whileTyped.typed(reading(value), POINT);
  expect(asked.map((one) => one.body.entry.value)).toEqual([1]);
  asked[0]?.answer(HAZARD);
  await settled();
  whileTyped.typed(reading(119), POINT);
  expect(asked.map((one) => one.body.entry.value)).toEqual([1, 119]);
});

test("an answer to what was typed before is not taken for that of what is recorded", async () => {
  const { asked, whileTyped, told } = server();
  whileTyped.typed(reading(11), POINT);
  whileTyped.typed(reading(119), POINT);
  whileTyped.recorded(reading(119), POINT, told);
  asked[0]?.answer(HAZARD);
  await settled();
  expect(asked).toHaveLength(1);
  expect(told).not.toHaveBeenCalled();
});

test("with the line cut nothing is told, and it is asked again", async () => {
  const { asked, whileTyped, told } = server();
  whileTyped.typed(reading(119), POINT);
  whileTyped.recorded(reading(119), POINT, told);
  asked[0]?.fail();
  await settled();
  expect(told).not.toHaveBeenCalled();
  whileTyped.typed(reading(119), POINT);
  expect(asked).toHaveLength(2);
});
