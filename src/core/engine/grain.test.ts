import { describe, expect, it } from "vitest";
import { madeTable } from "../../testing/made-table";
import { parseIsoDate } from "../base/calendar";
import { coarserThan } from "./grain";

const column = (...days: (string | null)[]) =>
  madeTable("t", { on: ["date", days.map((d) => (d === null ? null : parseIsoDate(d)))] }).columns[0].data;

describe("the grain of dates", () => {
  const months = column("2026-01-01", "2026-02-01", null, "2026-05-01");
  it("is the stretch that all of them begin, where a split is finer than that", () => {
    expect(coarserThan(months, "week")).toBe("month");
    expect(coarserThan(months, "day")).toBe("month");
    expect(coarserThan(months, "month")).toBeNull();
    expect(coarserThan(months, "year")).toBeNull();
    expect(coarserThan(months, undefined)).toBeNull();
    expect(coarserThan(column("2024-01-01", "2025-01-01", "2026-01-01"), "month")).toBe("year");
    expect(coarserThan(column("2025-10-01", "2026-01-01", "2026-04-01"), "month")).toBe("quarter");
    expect(coarserThan(column("2026-01-05", "2026-01-12", "2026-01-26"), "day")).toBe("week");
  });

  it("is the day where they begin nothing, or are too few to tell", () => {
    expect(coarserThan(column("2026-01-01", "2026-02-02", "2026-03-01"), "week")).toBeNull();
    expect(coarserThan(column("2026-01-01", "2026-02-01"), "week")).toBeNull();
    expect(coarserThan(column(null), "week")).toBeNull();
  });
});
