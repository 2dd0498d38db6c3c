import { expect, it } from "vitest";
import { newVisual } from "./defaults";
import { edited } from "./edits";
import { categoryOfFile } from "./picture-names";
import { emptyProject } from "./schema";

it("a picture belongs to the category that its file is named after", () => {
  const categories = ["North Quay", "Ferrow Isle", "São Roque", "constructor", "A-1", "a 1", "数"];
  const of = (name: string) => categoryOfFile(name, categories);
  expect(of("north_quay.svg")).toBe("North Quay");
  expect(of("Ferrow-Isle.PNG")).toBe("Ferrow Isle");
  expect(of("sao roque.svg")).toBe("São Roque");
  expect(of("constructor.png")).toBe("constructor");
  expect(of("数.svg")).toBe("数");
  // Two categories have this name, and some files none.
  expect([of("a_1.svg"), of("elsewhere.svg"), of("__.svg"), of(".svg")]).toEqual([null, null, null, null]);
});

it("pictures come in with their categories, in one edit", () => {
  const visual = newVisual({ id: "v", name: "v", kind: "lollipop", pictures: { Old: "icon:ship" } });
  const project = { ...emptyProject("p"), visuals: [visual] };
  const picture = (id: string) => ({ id, name: `${id}.svg`, href: "data:image/svg+xml;base64,AA==" });
  const after = edited(project, {
    type: "bring pictures",
    visual: "v",
    pictures: [picture("a"), picture("b")],
    of: { a: "constructor" },
  });
  expect(after.pictures.map((p) => p.id)).toEqual(["a", "b"]);
  expect(Object.entries(after.visuals[0].pictures)).toEqual([
    ["Old", "icon:ship"],
    ["constructor", "a"],
  ]);
});
