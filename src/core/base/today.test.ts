import { afterEach, expect, it, vi } from "vitest";
import { todayIn } from "./today";

afterEach(() => vi.useRealTimers());

it("is the day of a time zone, which begins earlier in the east", () => {
  vi.useFakeTimers({ now: Date.UTC(2026, 0, 31, 23, 30) });
  expect(todayIn("UTC")).toBe("2026-01-31");
  expect(todayIn("Pacific/Kiritimati")).toBe("2026-02-01");
  vi.setSystemTime(Date.UTC(2026, 1, 1, 0, 30));
  expect(todayIn("UTC")).toBe("2026-02-01");
  expect(todayIn("America/Lima")).toBe("2026-01-31");
  expect(todayIn()).toMatch(/^2026-0\d-\d\d$/);
});
