import fc from "fast-check";
import { expect, test } from "vitest";
import { boardAfter, WALK_SECONDS, walkFrom, writeWalk } from "./walk";

const boards = ["a", "b", "constructor"].map((id) => ({ id }));
const read = (text: string) => walkFrom(new URLSearchParams(text), boards);

test("a walk goes through the boards that there are, each once, in bounds", () => {
  expect(read("walk=a&walk=gone&walk=constructor&walk=a&every=30")).toEqual({
    boards: ["a", "constructor"],
    seconds: 30,
  });
  expect(read("walk=a&every=30")).toBeNull();
  expect(read("every=30")).toBeNull();
  for (const [asked, seconds] of [
    ["0", WALK_SECONDS.usual],
    ["-3", WALK_SECONDS.usual],
    ["<script>", WALK_SECONDS.usual],
    ["1", WALK_SECONDS.least],
    ["1e9", WALK_SECONDS.most],
  ] as const)
    expect(read(`walk=a&walk=b&every=${encodeURIComponent(asked)}`)?.seconds).toBe(seconds);
});

test("a walk that is written into an address is read back from it, and nothing else of it changes", () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.constantFrom("a", "b", "constructor"), { minLength: 2 }),
      fc.integer({ min: 5, max: 3600 }),
      (ids, seconds) => {
        const address = new URLSearchParams("theme=night&walk=old&only.x=1");
        writeWalk(address, { boards: ids, seconds });
        expect(walkFrom(address, boards)).toEqual({ boards: ids, seconds });
        writeWalk(address, null);
        expect(address.toString()).toBe("theme=night&only.x=1");
      },
    ),
  );
});

test("the boards of a walk follow each other round", () => {
  const walk = { boards: ["a", "b", "c"], seconds: 5 };
  expect(["a", "b", "c", "other"].map((id) => boardAfter(walk, id))).toEqual(["b", "c", "a", "a"]);
});
