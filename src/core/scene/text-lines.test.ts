import { describe, expect, it } from "vitest";
import { wrap } from "./text";

const lines = (text: string, width: number, most = 3) => wrap(text, width, 12, 400, most);

describe("lines of a text", () => {
  it("never begin with the sign or the unit of what stands before", () => {
    for (let width = 20; width < 200; width += 3)
      for (const text of ["Average of Margin % by Region", "Left 26.2 % of all", "Carried 100 kg in 10 h"])
        for (const line of lines(text, width)) expect(line, `${width}`).not.toMatch(/^([%€]|kg|h)(\s|$)/);
  });

  it("end before what has no room: the end of a name does not stand for it", () => {
    expect(lines("100’246.302 kg", 24)).toEqual([]);
    expect(lines("Ferrow Isle", 44)).toEqual(["Ferrow", "Isle"]);
    expect(lines("Ferrow 100’246.302 kg", 46)).toEqual(["Ferrow"]);
  });

  it("are none where none are asked for", () => {
    expect(lines("Ferrow Isle", 400, 0)).toEqual([]);
    expect(lines("Ferrow Isle", 400, 1)).toEqual(["Ferrow Isle"]);
  });
});
