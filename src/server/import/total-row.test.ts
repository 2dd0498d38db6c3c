import { describe, expect, it } from "vitest";
import { readingFolder } from "../../testing/reading-folder";

const { read } = readingFolder();
const notes = async (text: string) => (await read(text)).notes.filter((n) => n.startsWith("The last row"));
const rows = "quay,n\nNorth,10\nEast,5\n";

describe("a last row that may be the total of the others", () => {
  it("is a row, and is said", async () => {
    for (const word of ["Total", "SUMME:", "  grand total", "合計"]) {
      const table = await read(`${rows}${word},15\n`);
      expect(table.rows).toBe(3);
      expect(table.notes).toContain(
        `The last row is called “${word.trim()}” and counts like any other. Where it is the total of the others, filter it out.`,
      );
    }
    expect(await notes("quay,port,n\nNorth,A,10\nEast,B,5\n,Total,15\n")).toHaveLength(1);
  });

  it("is nothing that only sounds like it", async () => {
    expect(await notes(`${rows}Totally new,15\n`)).toEqual([]);
    expect(await notes(`${rows}Total,\n`)).toEqual([]);
    expect(await notes("quay,n\nTotal,10\nEast,5\nWest,4\n")).toEqual([]);
    expect(await notes("what,n\nTotal,10\n")).toEqual([]);
    expect(await notes("quay,n\nNorth,10\nEast,5\nNorth total,constructor\n")).toEqual([]);
  });
});
