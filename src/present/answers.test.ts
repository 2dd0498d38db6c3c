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

  it("are found in the page where it has them, and the rest is asked for once", async () => {
    const { ask, asked } = source();
    const answers = new Answers(ask, [[query("known"), answerTo("known")]]);
    expect(answers.findInPage([query("a")])).toBe(false);
    const inPage: string[][] = [];
    answers.answerInPage((queries) => {
      const names = queries.map((q) => JSON.stringify(q.measures));
      inPage.push(names);
      return names.map((name) => (name.includes('"far"') ? null : answerTo(name)));
    });
    expect(answers.findInPage([query("known")])).toBe(false);
    expect(inPage).toEqual([]);
    expect(answers.findInPage([query("near"), query("far"), query("near"), query("known")])).toBe(true);
    expect(inPage).toEqual([['[{"id":"near"}]', '[{"id":"far"}]']]);
    expect([query("near"), query("far")].map((q) => answers.of(q))).toEqual([
      answerTo('[{"id":"near"}]'),
      null,
    ]);
    // What it does not tell it is not asked again.
    expect(answers.isBeyondPage).toBe(true);
    expect(answers.findInPage([query("far"), query("near")])).toBe(false);
    expect(inPage).toHaveLength(1);
    const arrived = vi.fn();
    answers.ask([query("near"), query("far")], arrived);
    expect(asked.map((a) => a.names)).toEqual([["far"]]);
    await asked[0].answer();
    expect(arrived).toHaveBeenCalledTimes(1);
    // Others may tell it; without any, all is asked for.
    answers.answerInPage((queries) => queries.map(() => answerTo("page")));
    expect(answers.isBeyondPage).toBe(false);
    expect(answers.findInPage([query("new")])).toBe(true);
    answers.answerInPage(null);
    expect(answers.findInPage([query("newer")])).toBe(false);
  });

  it("say whenever the source is away, and go on asking until it is back", async () => {
    const { ask, asked } = source();
    const [arrived, away] = [vi.fn(), vi.fn()];
    const answers = new Answers(ask);
    answers.ask([query("a")], arrived, away);
    await asked[0].fail();
    expect(away).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(500);
    await asked[1].fail();
    expect(away).toHaveBeenCalledTimes(2);
    await vi.advanceTimersByTimeAsync(1000);
    await asked[2].answer();
    expect([away.mock.calls.length, arrived.mock.calls.length]).toEqual([2, 1]);
  });
});
