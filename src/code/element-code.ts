import type { Value } from "@/core/base/value";
import type { Board, Project, TableInfo, Visual } from "@/core/project/schema";
import { codeOf, keyOf } from "./json-code";

/** What a piece of code is of: a board or visuals, with the name of the snapshot's file. */
export interface ElementCode {
  board: Board | null;
  visuals: Visual[];
  /** The document as it travels: its tables say which columns rows of a page have. */
  project: Pick<Project, "tables" | "inputs">;
  file: string;
  theme: "light" | "night" | "auto";
  /** Filters that stand on the elements, by the names that the page gives them. */
  filters: Record<string, Value[]>;
  /** A filter that could be asked for, told in a comment. */
  example?: Record<string, Value[]>;
}

const ENTITIES: Record<string, string> = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "'": "&#39;",
};
/** A text as an attribute of HTML holds it. */
const attribute = (text: string): string => text.toWellFormed().replace(/[&<>"']/g, (sign) => ENTITIES[sign]);
/** JSON in an attribute that stands in single quotes, so that it is read as it is. */
const jsonAttribute = (value: unknown): string =>
  JSON.stringify(value)
    .toWellFormed()
    .replace(/[&<>']/g, (sign) => ENTITIES[sign]);

const tagOf = ({ board }: Pick<ElementCode, "board">) => (board ? "cavlo-board" : "cavlo-visual");
const moduleOf = ({ board }: Pick<ElementCode, "board">) => (board ? "cavlo-board.js" : "cavlo.js");

/** The attributes of each element: one a visual, or the board's. */
function elementsOf(code: ElementCode): string[] {
  const { board, visuals, file, theme, filters } = code;
  const shared = [
    ...(Object.keys(filters).length > 0 ? [`filters='${jsonAttribute(filters)}'`] : []),
    `theme="${theme}"`,
  ];
  const src = `src="${attribute(encodeURI(file))}"`;
  const all = board
    ? [[src, ...shared]]
    : visuals.map((v) => [src, `visual="${attribute(v.id)}"`, ...shared]);
  const tag = tagOf(code);
  return all.map((lines) => `<${tag}\n${lines.map((line) => `  ${line}`).join("\n")}>\n</${tag}>`);
}

const exampleCode = ({ example = {} }: ElementCode): string =>
  Object.keys(example).length > 0 ? `\n  // shown.filters = ${codeOf(example)};` : "";

/** A page that shows what was taken out: the module, the elements, and what is done with a pick. */
export function plainPageCode(code: ElementCode): string {
  const tag = tagOf(code);
  return `<script type="module" src="${moduleOf(code)}"></script>
${elementsOf(code).join("\n")}

<script type="module">
  const shown = document.querySelector("${tag}");
  shown.addEventListener("pick", (event) => {
    console.log(event.detail.category);
  });${exampleCode(code)}
</script>
`;
}

/** The same as a whole page, which can be opened from a server of files. */
export function examplePage(code: ElementCode, title: string, firsts: string[]): string {
  const elements = elementsOf(code).map((element, i) =>
    element.replace(/>\n<\//, () => `>${firsts[i] ?? ""}</`),
  );
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${attribute(title)}</title>
<script type="module" src="${moduleOf(code)}"></script>
</head>
<body>
${elements.join("\n")}
</body>
</html>
`;
}

const text = (value: string) => JSON.stringify(value);

/** A component of React that shows what was taken out. */
export function reactCode(code: ElementCode): string {
  const { board, visuals, file, theme, filters } = code;
  const component = board ? "CavloBoard" : "CavloVisual";
  const props = (visual: Visual | null) =>
    [
      `src=${text(encodeURI(file))}`,
      ...(visual ? [`visual=${text(visual.id)}`] : []),
      ...(Object.keys(filters).length > 0 ? [`filters={${JSON.stringify(filters)}}`] : []),
      `theme=${text(theme)}`,
      `onPick={({ category }) => console.log(category)}`,
    ]
      .map((line) => `      ${line}`)
      .join("\n");
  const all = (board ? [null] : visuals).map((v) => `<${component}\n${props(v)}\n    />`);
  const body =
    all.length === 1 ? `(\n    ${all[0]}\n  )` : `(\n    <>\n    ${all.join("\n    ")}\n    </>\n  )`;
  return `import { ${component} } from "./cavlo-react.js";

export function Shown() {
  return ${body};
}
`;
}

const EXAMPLES: Record<string, string> = {
  number: "1",
  text: '"…"',
  boolean: "true",
  date: '"2026-01-31"',
  timestamp: "new Date()",
};

/** A row of a table, with a value of each column's type. */
const rowCode = ({ columns }: Pick<TableInfo, "columns">): string =>
  `{ ${columns.map((c) => `${keyOf(c.name)}: ${EXAMPLES[c.reading.type]}`).join(", ")} }`;

/** A page that gives its own rows: the same measures are computed over them, in the page. */
export function ownRowsCode(code: ElementCode): string {
  const tables = code.project.tables.map((t) => `    ${keyOf(t.name)}: [${rowCode(t)}],`).join("\n");
  return `<script type="module" src="${moduleOf(code)}"></script>
${elementsOf({ ...code, filters: {} }).join("\n")}

<script type="module">
  // One set of rows a table, as objects or as columns. Setting it again computes anew.
  const rows = {
${tables}
  };
  for (const shown of document.querySelectorAll("${tagOf(code)}")) {
    shown.addEventListener("error", (event) => console.warn(event.detail.message));
    shown.rows = rows;
  }
</script>
`;
}
