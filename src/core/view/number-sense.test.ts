import { describe, expect, it } from "vitest";
import { type NumberFacts, numberSense } from "./number-sense";

const sense = (columns: string[]) => columns.map((c) => numberSense(c, null));
const facts = (values: number[]): NumberFacts => ({
  known: values.length,
  distinct: new Set(values).size,
  min: Math.min(...values),
  max: Math.max(...values),
  whole: values.every(Number.isInteger),
});

describe("what the numbers of a column are", () => {
  it("levels by their names: temperatures, prices a unit, coordinates, scores, shares", () => {
    const levels = [
      ...[
        "temperature",
        "Temp (°C)",
        "maxTemp",
        "water_temp_c",
        "unit price",
        "price_per_kg",
        "cost per unit",
      ],
      ...[
        "km/h",
        "Density (mg/l)",
        "lat",
        "Longitude",
        "geo_lat",
        "Satisfaction score",
        "age",
        "load_rate",
        "share %",
      ],
    ];
    expect(levels.filter((_, i) => sense(levels)[i] !== "level")).toEqual([]);
  });

  it("names by their names: ids, codes, years, ranks", () => {
    const names = [
      ...["id", "trip_id", "customerId", "ZIP code", "Postcode", "House no", "year", "fiscal_year", "rank"],
      ...["World ranking", "code", "EAN", "month", "customer number", "sort order"],
    ];
    expect(names.filter((_, i) => sense(names)[i] !== "name")).toEqual([]);
  });

  it("amounts else, whatever letters their names share with others", () => {
    const amounts = [
      ...[
        "passengers",
        "fare_revenue",
        "energy_kwh",
        "Orders",
        "corporate",
        "stage",
        "rainfall",
        "idle_minutes",
      ],
      ...[
        "years_served_total",
        "encoded",
        "placement fees",
        "Deaths",
        "Number of guests",
        "percussion",
        "costs",
      ],
    ];
    expect(amounts.filter((_, i) => sense(amounts)[i] !== "amount")).toEqual([]);
  });

  it("names where they run through the rows, or are years", () => {
    const run = Array.from({ length: 40 }, (_, i) => i + 1);
    expect(numberSense("line", facts(run))).toBe("name");
    expect(numberSense("season", facts([...run, ...run].map((i) => 1990 + (i % 20))))).toBe("name");
    // Amounts that happen to be whole, different, or of that size.
    expect(numberSense("people", facts([12, 19, 44, 7, 31, 28, 95, 60, 52]))).toBe("amount");
    expect(numberSense("people", facts([1, 2, 3, 4]))).toBe("amount");
    expect(numberSense("people", facts([1900, 1950, 2010, 1978, 1999, 2040, 2003, 1911]))).toBe("amount");
    expect(numberSense("people", facts(run.map((i) => i + 0.5)))).toBe("amount");
    expect(numberSense("people", facts([5, 5, 5, 5, 5, 5, 5, 5, 5]))).toBe("amount");
  });
});
