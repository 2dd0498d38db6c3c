import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { QueryInput } from "@/core/plan/query";
import { type Answer, type AnswerSource, Answers } from "./answers";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

const query = (name: string): QueryInput => ({ measures: [{ id: name }] });
const answerTo = (name: string): Answer => ({ error: `answer to ${name}` });

/** A source whose answers are given by hand, and what it was asked. */
function source() {
  const asked: {
    names: string[];
    signal: AbortSignal;
    answer: () => Promise<void>;
    fail: () => Promise<void>;
  }[] = [];
  const ask: AnswerSource = (queries, signal) =>
    new Promise((resolve, reject) => {
      const names = queries.flatMap(({ measures = [] }) =>
        measures.map((m) => ("id" in m ? m.id : m.formula)),
      );
      // What waits for an answer goes on before the next line of a test.
      const then = async (settle: () => void) => {
        settle();
        await vi.advanceTimersByTimeAsync(0);
      };
      asked.push({
        names,
        signal,
        answer: () => then(() => resolve(names.map(answerTo))),
        fail: () => then(() => reject(new Error("away"))),
      });
    });
  return { ask, asked };
}

describe("answers to queries", () => {
  it("are asked for together, once each, and never again", async () => {
    const { ask, asked } = source();
    const answers = new Answers(ask, [[query("given"), answerTo("given")]]);
    const arrived = vi.fn();
    answers.ask([query("a"), query("given"), query("b"), query("a")], arrived);
    expect(asked.map((a) => a.names)).toEqual([["a", "b"]]);
    expect(answers.of(query("a"))).toBeNull();
    await asked[0].answer();
    expect(arrived).toHaveBeenCalledTimes(1);
    expect([query("a"), query("b"), query("given")].map((q) => answers.of(q))).toEqual(
      ["a", "b", "given"].map(answerTo),
    );
    answers.ask([query("b"), query("a")], arrived);
    expect(asked).toHaveLength(1);
    expect(arrived).toHaveBeenCalledTimes(1);
  });

  it("are no longer waited for once others are asked, and what comes late changes nothing", async () => {
    const { ask, asked } = source();
    const answers = new Answers(ask);
    const [early, later] = [vi.fn(), vi.fn()];
    answers.ask([query("a")], early);
    answers.ask([query("b")], later);
    expect(asked[0].signal.aborted).toBe(true);
    await asked[0].answer();
    expect(answers.of(query("a"))).toBeNull();
    await asked[1].answer();
    expect(early).not.toHaveBeenCalled();
    expect(later).toHaveBeenCalledTimes(1);
  });

  it("are asked for again and again while the source is away, with growing rests, until they come", async () => {
    const { ask, asked } = source();
    const answers = new Answers(ask);
    const arrived = vi.fn();
    answers.ask([query("a")], arrived);
    for (const rest of [500, 1000, 2000, 4000, 4000]) {
      const before = asked.length;
      await asked[before - 1].fail();
      await vi.advanceTimersByTimeAsync(rest - 1);
      expect(asked).toHaveLength(before);
      await vi.advanceTimersByTimeAsync(1);
      expect(asked).toHaveLength(before + 1);
    }
    await asked[5].answer();
    expect(arrived).toHaveBeenCalledTimes(1);
    // Who was reached again is asked again soon the next time.
    answers.ask([query("b")], arrived);
    await asked[6].fail();
    await vi.advanceTimersByTimeAsync(500);
    expect(asked[7].names).toEqual(["b"]);
  });

  it("are asked for no more once that is stopped, also while a source is away", async () => {
    const { ask, asked } = source();
    const answers = new Answers(ask);
    const arrived = vi.fn();
    answers.ask([query("a")], arrived);
    await asked[0].fail();
    answers.stop();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(asked).toHaveLength(1);
    answers.ask([query("a")], arrived);
    answers.stop();
    await asked[1].fail();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(asked).toHaveLength(2);
    expect(arrived).not.toHaveBeenCalled();
  });

  it("are remembered up to a thousand, the latest", async () => {
    const { ask, asked } = source();
    const answers = new Answers(ask);
    const names = Array.from({ length: 1010 }, (_, i) => `m${i}`);
    answers.ask(names.map(query), () => {});
    await asked[0].answer();
    expect(names.filter((n) => answers.of(query(n)) !== null)).toEqual(names.slice(10));
  });
});
