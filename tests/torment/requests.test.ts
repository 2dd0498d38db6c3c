import { afterAll, beforeAll, expect, it } from "vitest";
import { endAllServers, json, lastLine, OwnServer } from "../own-server";
import { figure, LONG, randomFrom, SEED, times } from "./extent";

const REQUESTS = times(200, 20_000);
const CLIENTS = LONG ? 100 : 10;
/** The longest that an answer may take while a query may take 3 s. */
const SLOWEST = 5000;
/** So many megabytes memory may rise besides: a short run ends before it is level. */
const SLACK = LONG ? 100 : 400;
/** Memory is looked at every so many requests. */
const SAMPLE = Math.ceil(REQUESTS / 20);
const server = new OwnServer();
const random = randomFrom(SEED);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
const int = (most: number) => Math.floor(random() * most);

let project = "";
let saved: {
  revision: number;
  document: Record<string, unknown> & {
    tables: Record<string, unknown>[];
    measures: Record<string, unknown>[];
  };
};

beforeAll(async () => {
  await server.start({ CAVLO_QUERY_SECONDS: "3", CAVLO_MEMORY_MB: "300" });
  project = (await (await fetch(`${server.base}/api/projects`, json("POST", { demo: true }))).json()).project
    .id;
  saved = (await (await fetch(`${server.base}/api/projects/${project}`)).json()).project;
});
afterAll(endAllServers);

const ODD = [
  null,
  true,
  false,
  0,
  -1,
  1e308,
  -1e308,
  1e21,
  0.1,
  "",
  " ",
  "constructor",
  "__proto__",
  "toString",
  "\u0000",
  "a".repeat(5000),
  "=1+1",
  "'; drop table projects; --",
  "../../etc/passwd",
  "%00",
  "日本",
  "😀",
  [],
  {},
  [[]],
  { a: { b: {} } },
  "2026-02-30",
  "{{{{",
  ":goal",
  "null",
];

/**
 * Changes something somewhere in a value: takes it away, puts something odd in its place, repeats it, or
 * moves it.
 */
function mutated(value: unknown, chance: number): unknown {
  if (random() < chance) return pick(ODD);
  if (Array.isArray(value)) {
    const items = value.map((v) => mutated(v, chance));
    if (random() < chance) return [...items, ...items.slice(0, 3)];
    return random() < chance ? items.slice(int(items.length + 1)) : items;
  }
  if (typeof value === "object" && value !== null)
    return Object.fromEntries(
      Object.entries(value).flatMap(([key, inner]) =>
        random() < chance / 3
          ? []
          : [[random() < chance / 3 ? String(pick(ODD)) : key, mutated(inner, chance)]],
      ),
    );
  if (typeof value === "string" && random() < chance)
    return value.slice(int(value.length + 1)) + value.slice(0, int(value.length + 1));
  return value;
}

/** Formulas that are hard on whoever checks or computes them. */
function hardFormula(): string {
  const deep = (n: number, open: string, close: string) => `${open.repeat(n)}passengers${close.repeat(n)}`;
  return pick([
    () => `sum(${deep(150, "abs(", ")")})`,
    () => `sum(${Array(400).fill("passengers").join("*")})`,
    () => `count(distinct route || ${Array(100).fill("vessel").join(" || ")})`,
    () => `max(${"replace(".repeat(40)}route${", 'e', 'ee')".repeat(40)})`,
    () =>
      `sum(case ${Array.from({ length: 200 }, (_, i) => `when passengers > ${i} then ${i}`).join(" ")} end)`,
    () => `count(*) filter (where route like '${"%a".repeat(60)}')`,
    () => `percentile_cont(0.5) within group (order by passengers * ${int(1000)})`,
    () => `count(*) filter (where route in (${Array.from({ length: 300 }, (_, i) => `'r${i}'`).join(", ")}))`,
    () => "(".repeat(300),
    () => `${"-".repeat(2000)}1`,
    () => `sum(passengers)${" + sum(passengers)".repeat(400)}`,
    () => `power(${"power(".repeat(30)}sum(passengers)${", 3)".repeat(30)}, 9)`,
    () => `substring(max(route) from ${int(1e9)} for ${int(1e9)})`,
  ])();
}

/** A chain of measures that each use the one before twice, or a circle of them. */
function manyMeasures(): Record<string, unknown>[] {
  const [model] = saved.document.measures;
  const size = 5 + int(400);
  const circle = random() < 0.3;
  return Array.from({ length: size }, (_, i) => ({
    ...model,
    id: `x${i}`,
    name: `x${i}`,
    label: `x${i}`,
    table: "sailings",
    formula:
      i === 0
        ? circle
          ? `x${size - 1} + x${size - 1}`
          : pick(["count(*)", "max(route)", hardFormula()])
        : `${pick(["x", "X"])}${i - 1} ${pick(["+", "||", "/", "-"])} x${i - 1}`,
    proofs: [],
  }));
}

const queryOf = () => ({
  table: pick(["sailings", "routes", "season_plan", "nothing", undefined]),
  measures: [
    {
      formula:
        random() < 0.5
          ? hardFormula()
          : pick(["sum(passengers)", "count(*)", "count(distinct vessel)", "median(delay_minutes)"]),
      as: "m",
    },
    ...(random() < 0.3 ? [{ id: pick(["carried", "x0", "x5", "on_time_rate", "constructor"]) }] : []),
  ],
  splits: pick([
    [],
    [{ column: "route" }],
    [{ column: "date", by: "day" }],
    [{ column: "passengers" }, { column: "delay_minutes" }],
    [{ column: "fare_revenue" }],
  ]),
  filters: pick([
    [],
    [{ column: "date", by: "year", in: [2025] }],
    [{ column: "route", contains: "e" }],
    [{ column: "passengers", from: 3 }],
    [{ column: "date", relative: { unit: "month", from: -3, to: 0 } }],
  ]),
});

type Attack = () => { path: string; init: RequestInit };
const at = (rest: string) =>
  `/api/projects/${random() < 0.95 ? project : pick(["nobody", "..%2f..", "%00", "constructor", "a".repeat(3000)])}${rest}`;
const results = (body: unknown) => ({ path: at("/results"), init: json("POST", body) });
const draftOf = (measures: Record<string, unknown>[]) => ({
  tables: saved.document.tables,
  links: saved.document.links,
  measures,
  inputs: saved.document.inputs,
});

const ATTACKS: Attack[] = [
  () => results({ queries: Array.from({ length: 1 + int(6) }, queryOf) }),
  () => results(mutated({ queries: [queryOf(), queryOf()] }, 0.15)),
  () => {
    const measures = manyMeasures();
    return results({
      queries: [{ measures: [{ id: `x${measures.length - 1}` }], splits: pick([[], [{ column: "route" }]]) }],
      draft: draftOf(measures),
    });
  },
  () => results({ queries: [queryOf()], draft: mutated(draftOf(saved.document.measures), 0.03) }),
  // Rows that are not stored.
  () =>
    results({
      queries: [queryOf()],
      draft: {
        ...draftOf(saved.document.measures),
        tables: saved.document.tables.map((t) => ({
          ...t,
          rows: pick([0, 1, 1e6, 1e9, Number(t.rows) + 1]),
        })),
      },
    }),
  () => ({
    path: at(""),
    init: json("PUT", mutated({ revision: saved.revision, document: saved.document }, 0.02)),
  }),
  () => ({
    path: at(""),
    init: json("PUT", { revision: pick([0, -1, 1e9, "1", null]), document: saved.document }),
  }),
  () => ({
    path: at("/tables?name=a.csv"),
    init: {
      method: "POST",
      body: pick([
        "",
        "a,b\n1,2\n",
        "a\n\u0000",
        `a,b\n"${"x".repeat(int(50_000))}`,
        "{",
        "[{]",
        Buffer.from([0x50, 0x4b, 3, 4, 9, 9]),
        "PAR1PAR1",
      ]),
    },
  }),
  () => ({
    path: at(
      `/tables/${encodeURIComponent(String(pick(["sailings", "routes", "nothing", "__proto__", "../x"])))}/rows?${new URLSearchParams({ offset: String(pick([0, 5, -1, 1e12, "x"])), limit: String(pick([1, 100, 501, 0, "x"])), sort: String(pick(["route", "nothing", "", "passengers"])), find: String(pick(["", "e", "(", "%", "a".repeat(300)])), filters: String(pick(["[]", "{", '[{"column":"route","in":["x"]}]', '[{"column":"date","from":"x"}]'])) })}`,
    ),
    init: {},
  }),
  () => ({ path: at(`/tables/${pick(["sailings", "vessels", "nothing"])}`), init: {} }),
  () => ({
    path: at("/tables/sailings/unread"),
    init: json(
      "POST",
      mutated(
        { column: "route", reading: { type: "date", pattern: pick(["yyyy", "[", "y".repeat(60), "'"]) } },
        0.1,
      ),
    ),
  }),
  () => ({
    path: at("/tables/routes/reread"),
    init: json("POST", mutated({ separator: ";", header: true }, 0.2)),
  }),
  () => ({
    path: at("/tables/routes/append?name=x.csv"),
    init: { method: "POST", body: pick(["", "route\nx\n", "a\n1\n"]) },
  }),
  () => ({
    path: at(`/tables/routes/export?format=${pick(["csv", "json", "ndjson", "xlsx", "exe", ""])}`),
    init: {},
  }),
  () => ({
    path: at("/links"),
    init: json(
      "POST",
      mutated({ links: [{ table: "sailings", column: "route", to: "routes", key: "route" }] }, 0.2),
    ),
  }),
  () => ({
    path: at(
      `/visuals/${pick(((saved.document.visuals as { id: string }[]) ?? []).map((v) => v.id))}.${pick(["svg", "png", "json", "csv", "ndjson", "xlsx", "exe"])}?${new URLSearchParams({ width: String(pick([400, 96, 1600, 5, "x"])), scale: String(pick([1, 4, 9])), [`filter.${pick(["route", "date", "nothing", "__proto__"])}`]: String(pick(["2025", "x", ""])), [`input.${pick(["goal", "constructor"])}`]: String(pick([1, "x"])) })}`,
    ),
    init: {},
  }),
  () => ({ path: "/api/projects", init: json("POST", mutated({ name: "x" }, 0.3)) }),
  () => ({
    path: "/api/projects",
    init: {
      method: "POST",
      body: pick([
        "{",
        '{"document":{}}',
        '{"document":{"format":"cavlo-project","version":99}}',
        "[".repeat(100_000),
        '{"name":"\\ud800"}',
      ]),
    },
  }),
  () => ({
    path: at(pick(["/undelete", "/purge", "/restore"])),
    init: json("POST", pick([{}, { revision: 1e9 }, { revision: -1 }, null, []])),
  }),
  () => ({
    path: "/api/unclaimed",
    init: json("POST", mutated({ project: "nobody", action: "bring back" }, 0.3)),
  }),
  () => ({
    path: pick([
      "/",
      "/p/nobody/data",
      `/p/${project}/boards`,
      "/nothing",
      "/api/health",
      "/api/nothing",
      "/p/%E0%A4%A",
      "/_next/../../etc/passwd",
    ]),
    init: {},
  }),
  () => ({ path: at(""), init: { method: pick(["PATCH", "OPTIONS", "HEAD"]) } }),
  () => ({
    path: at("/results"),
    init: {
      method: "POST",
      headers: {
        "content-type": "text/plain",
        origin: pick(["http://evil.example", "null", server.base]),
        "sec-fetch-site": pick(["cross-site", "same-origin", "none"]),
      },
      body: pick(["", "x", "{}", `{"queries":${"[".repeat(5000)}`]),
    },
  }),
];

it(`${REQUESTS} mutated requests over all routes are answered within ${SLOWEST} ms, and never by a fault of Cavlo's own`, async () => {
  const statuses = new Map<number, number>();
  const wrong: string[] = [];
  let slowest = 0;
  const memory: number[] = [];
  let done = 0;
  const one = async () => {
    const { path, init } = pick(ATTACKS)();
    const began = performance.now();
    const response = await fetch(server.base + path, init).catch((error) => error as Error);
    if (response instanceof Error) {
      wrong.push(`${init.method ?? "GET"} ${path.slice(0, 120)}: no answer (${response.message})`);
      return;
    }
    const body = await response.text();
    const took = performance.now() - began;
    slowest = Math.max(slowest, took);
    statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
    const told = `${init.method ?? "GET"} ${path.slice(0, 120)} ${String(init.body).slice(0, 300)}: ${response.status} in ${Math.round(took)} ms: ${body.slice(0, 300)}`;
    if (took > SLOWEST) wrong.push(told);
    if (response.status >= 500 && response.status !== 503 && response.status !== 507) wrong.push(told);
    if (
      response.status >= 400 &&
      path.startsWith("/api/") &&
      init.method !== "HEAD" &&
      !body.includes('"message"') &&
      response.status !== 404 &&
      response.status !== 405
    )
      wrong.push(`no sentence: ${told}`);
    if (/"code":"internal"|Something went wrong/.test(body)) wrong.push(told);
    if (++done % SAMPLE === 0) memory.push(server.memory);
  };
  const clients = Array.from({ length: 4 }, async () => {
    while (done < REQUESTS && wrong.length < 20) await one();
  });
  await Promise.all(clients);
  expect(wrong).toEqual([]);
  // What one attack did, no other hears of: the project is there and answers right.
  const answer = await (
    await fetch(
      `${server.base}/api/projects/${project}/results`,
      json("POST", { queries: [{ table: "sailings", measures: [{ formula: "count(*)", as: "n" }] }] }),
    )
  ).json();
  expect(answer.results[0].totals.n).toBe(114_424);
  const level = Math.max(...memory.slice(0, Math.ceil(memory.length / 2)));
  const end = memory.at(-1) ?? 0;
  figure(
    `requests: ${REQUESTS}, statuses ${JSON.stringify(Object.fromEntries([...statuses].sort()))}, slowest ${Math.round(slowest)} ms, memory ${Math.round(memory[0])} MB first, ${Math.round(level)} MB at most in the first half, ${Math.round(end)} MB at the end`,
  );
  expect(end).toBeLessThan(level * 1.3 + SLACK);
});

it(`${CLIENTS} clients at once are all answered, and right`, async () => {
  const { results: expected } = await (
    await fetch(
      `${server.base}/api/projects/${project}/results`,
      json("POST", {
        queries: [
          {
            table: "sailings",
            measures: [{ formula: "sum(passengers)", as: "n" }],
            splits: [{ column: "route" }],
          },
        ],
      }),
    )
  ).json();
  const began = performance.now();
  const taken = await Promise.all(
    Array.from({ length: CLIENTS }, async (_, i) => {
      const { project: own } = await (
        await fetch(`${server.base}/api/projects`, json("POST", { name: `Client ${i}` }))
      ).json();
      const imported = await lastLine(
        await fetch(`${server.base}/api/projects/${own.id}/tables?name=t.csv`, {
          method: "POST",
          body: `n\n${Array.from({ length: 50 }, (_, k) => k * i).join("\n")}\n`,
        }),
      );
      const { project: now } = await (await fetch(`${server.base}/api/projects/${own.id}`)).json();
      const put = await fetch(
        `${server.base}/api/projects/${own.id}`,
        json("PUT", { revision: now.revision, document: { ...now.document, tables: [imported.table] } }),
      );
      const mine = await (
        await fetch(
          `${server.base}/api/projects/${own.id}/results`,
          json("POST", { queries: [{ table: "t", measures: [{ formula: "sum(n)", as: "n" }] }] }),
        )
      ).json();
      const shared = await (
        await fetch(
          `${server.base}/api/projects/${project}/results`,
          json("POST", {
            queries: [
              {
                table: "sailings",
                measures: [{ formula: "sum(passengers)", as: "n" }],
                splits: [{ column: "route" }],
              },
            ],
          }),
        )
      ).json();
      return {
        put: put.status,
        mine: mine.results[0].totals.n,
        wanted: i * 1225,
        shared: shared.results[0].columns,
      };
    }),
  );
  for (const t of taken)
    expect(t).toEqual({ put: 200, mine: t.wanted, wanted: t.wanted, shared: expected[0].columns });
  figure(
    `${CLIENTS} clients at once, each with a project, an import, a save and two queries: ${Math.round(performance.now() - began)} ms in all`,
  );
});
