import { type APIRequestContext, expect, test } from "@playwright/test";
import { openEmpty } from "./steps";

/** A project with two small tables that are linked, made over the interface; gives its id. */
async function smallProject(request: APIRequestContext): Promise<string> {
  const { project } = await (await request.post("/api/projects", { data: { name: "Small" } })).json();
  const bring = async (name: string, body: string) => {
    const lines = (
      await (
        await request.post(`/api/projects/${project.id}/tables?name=${name}`, {
          data: Buffer.from(body),
          headers: { "content-type": "application/octet-stream" },
        })
      ).text()
    )
      .trim()
      .split("\n");
    return JSON.parse(lines.at(-1) as string);
  };
  const trips = await bring(
    "trips.csv",
    "stop,day,riders\nNorth,2026-01-05,10\nEast,2026-02-06,20\nNorth,2026-02-07,5\nLost,2026-03-01,3\n",
  );
  const stops = await bring("stops.ndjson", '{"stop":"North","zone":"A"}\n{"stop":"East","zone":"B"}\n');
  const { project: saved } = await (await request.get(`/api/projects/${project.id}`)).json();
  const document = {
    ...saved.document,
    tables: [{ ...trips.table, derived: [{ name: "busy", formula: "riders >= 10" }] }, stops.table],
    links: [{ id: "l", table: "trips", column: "stop", to: "stops", key: "stop" }],
  };
  const answer = await request.put(`/api/projects/${project.id}`, {
    data: { revision: saved.revision, document },
  });
  expect(answer.status()).toBe(200);
  return project.id;
}

test.describe("tables over HTTP", () => {
  let id = "";
  test.beforeAll(async ({ request }) => {
    id = await smallProject(request);
  });
  const results = async (request: APIRequestContext, ...queries: object[]) =>
    (await (await request.post(`/api/projects/${id}/results`, { data: { queries } })).json()).results;
  const riders = { table: "trips", measures: [{ formula: "sum(riders)", as: "r" }] };

  test("are split and filtered through links and by derived columns, with rows that match nothing counted", async ({
    request,
  }) => {
    const [byZone, busy, crossed] = await results(
      request,
      { ...riders, splits: [{ column: "stops.zone" }] },
      { ...riders, filters: [{ column: "busy", in: [true] }] },
      { ...riders, splits: [{ column: "zone" }, { column: "day", by: "month" }] },
    );
    expect(byZone.columns.map((c: { values: unknown[] }) => c.values)).toEqual([
      ["A", "B", null],
      [15, 20, 3],
    ]);
    expect(byZone.noMatch).toEqual({ row: 2, rows: 1 });
    expect(busy.totals.r).toBe(30);
    expect(crossed.rows).toBe(4);
    expect(crossed.crossed.splits[1].totals.r).toEqual([10, 25, 3]);
  });

  test("say what is wrong with a query, and never a 5xx", async ({ request }) => {
    const answers = await results(
      request,
      { ...riders, splits: [{ column: "nowhere" }] },
      { ...riders, splits: [{ column: "riders", by: "month" }] },
      { ...riders, splits: [{ column: "stop" }, { column: "day" }, { column: "riders" }] },
      { ...riders, filters: [{ column: "riders", contains: "1" }] },
      { ...riders, filters: [{ column: "day", relative: { unit: "decade", from: 0, to: 0 } }] },
      { ...riders, filters: [{ column: "day", from: "2026-02-30" }] },
      { ...riders, sort: { by: "nobody" }, splits: [{ column: "stop" }] },
      { ...riders, keep: { first: 0 } },
      { measures: [{ formula: "1", as: "one" }], splits: [{ column: "stop" }] },
    );
    expect(answers.map((a: { error?: { code: string } }) => a.error?.code)).toEqual([
      "unknown_column",
      "bad_split",
      "bad_query",
      "bad_filter",
      "bad_query",
      "bad_filter",
      "bad_sort",
      "bad_query",
      "no_table",
    ]);
  });

  test("show their rows by filter, order and page", async ({ request }) => {
    const rows = async (query: string) =>
      (await (await request.get(`/api/projects/${id}/tables/trips/rows?${query}`)).json()).page;
    const filters = encodeURIComponent(JSON.stringify([{ column: "busy", in: [true] }]));
    const page = await rows(`filters=${filters}&sort=riders&order=desc`);
    expect(page.columns).toEqual(["stop", "day", "riders", "busy"]);
    expect(page.rows.map((r: { cells: string[] }) => r.cells)).toEqual([
      ["East", "2026-02-06", "20", "true"],
      ["North", "2026-01-05", "10", "true"],
    ]);
    expect((await rows("offset=3&limit=5")).rows.map((r: { number: number }) => r.number)).toEqual([4]);
    expect((await request.get(`/api/projects/${id}/tables/trips/rows?filters=nonsense`)).status()).toBe(400);
  });

  test("come out in every format, with their derived columns", async ({ request }) => {
    const out = async (format: string) =>
      request.get(`/api/projects/${id}/tables/trips/export?format=${format}`);
    expect((await (await out("csv")).text()).split("\r\n").slice(0, 2)).toEqual([
      "stop,day,riders,busy",
      "North,2026-01-05,10,true",
    ]);
    expect(JSON.parse(await (await out("json")).text())[3]).toEqual({
      stop: "Lost",
      day: "2026-03-01",
      riders: 3,
      busy: false,
    });
    expect((await (await out("ndjson")).text()).trim().split("\n")).toHaveLength(4);
    const xlsx = await out("xlsx");
    expect(xlsx.headers()["content-disposition"]).toContain("trips.xlsx");
    expect((await xlsx.body()).subarray(0, 2).toString()).toBe("PK");
    expect((await out("gif")).status()).toBe(400);
  });

  test("say how a link holds, what another reading could not read, and refuse rows of other columns", async ({
    request,
  }) => {
    const link = { table: "trips", column: "stop", to: "stops", key: "stop" };
    const { links } = await (
      await request.post(`/api/projects/${id}/links`, {
        data: { links: [link, { ...link, column: "gone" }] },
      })
    ).json();
    expect(links.links[0]).toMatchObject({ filled: 4, matched: 3, missing: ["Lost"], problem: null });
    expect(links.links[1].problem).toContain("no column “gone”");
    const unread = await request.post(`/api/projects/${id}/tables/trips/unread`, {
      data: { column: "stop", reading: { type: "number" } },
    });
    expect(await unread.json()).toMatchObject({ unread: 4 });
    expect(
      (
        await request.post(`/api/projects/${id}/tables/trips/unread`, {
          data: { column: "busy", reading: { type: "number" } },
        })
      ).status(),
    ).toBe(404);
    const appended = await (
      await request.post(`/api/projects/${id}/tables/trips/append?name=more.csv`, {
        data: Buffer.from("stop,day\nNorth,2026-01-01\n"),
        headers: { "content-type": "application/octet-stream" },
      })
    ).text();
    expect(JSON.parse(appended.trim().split("\n").at(-1) as string).error.message).toContain(
      "it lacks riders",
    );
  });

  test("refuse broken files of every format and stay as they were", async ({ request }) => {
    const bring = async (name: string, body: Buffer) => {
      const text = await (
        await request.post(`/api/projects/${id}/tables?name=${name}`, {
          data: body,
          headers: { "content-type": "application/octet-stream" },
        })
      ).text();
      return JSON.parse(text.trim().split("\n").at(-1) as string).error?.message as string | undefined;
    };
    expect(await bring("a.json", Buffer.from('[{"a":1},'))).toContain("cut short");
    expect(await bring("a.xlsx", Buffer.from("PK\u0003\u0004 nothing of the kind"))).toContain(
      "cannot be unpacked",
    );
    expect(await bring("a.parquet", Buffer.from("PAR1 and no more"))).toContain(
      "Parquet file cannot be read",
    );
    expect(await bring("a.csv", Buffer.from('a,b\n"1,2\n'))).toContain("never closed");
    const { project } = await (await request.get(`/api/projects/${id}`)).json();
    expect(project.document.tables.map((t: { name: string; rows: number }) => [t.name, t.rows])).toEqual([
      ["trips", 4],
      ["stops", 2],
    ]);
  });
});

test("a table is brought in by one request, and two at once have names of their own", async ({ page }) => {
  const id = await openEmpty(page);
  const send = async (name: string, text: string) => {
    const sent = await page.request.post(`/api/projects/${id}/tables?add=1&name=${name}`, {
      data: Buffer.from(text),
      headers: { "content-type": "application/octet-stream" },
    });
    const lines = (await sent.text()).trim().split("\n");
    return JSON.parse(lines[lines.length - 1]);
  };
  const [one, two] = await Promise.all([
    send("tides.csv", "port,height\nNorth Quay,3.5\nOld Pier,4\n"),
    send("tides.csv", "port,height\nMarl Point,1\n"),
  ]);
  expect([one.table.name, two.table.name].toSorted()).toEqual(["tides", "tides_2"]);
  expect(Math.max(one.revision, two.revision)).toBe(3);
  // The window that stands open has both by itself.
  await expect(page.getByText("tides_2").first()).toBeVisible();
  const query = { table: one.table.name, measures: [{ formula: "sum(height)", as: "sum" }] };
  const answer = await page.request.post(`/api/projects/${id}/results`, { data: { queries: [query] } });
  expect((await answer.json()).results[0].totals.sum).toBe(7.5);
  expect(await send("nothing.csv", "")).toMatchObject({ error: { code: expect.any(String) } });
  const { project } = await (await page.request.get(`/api/projects/${id}`)).json();
  expect(project.document.tables).toHaveLength(2);
});

test("other programs read what the interface is, and so do people", async ({ page }) => {
  const { openapi, paths } = await (await page.request.get("/api/openapi.json")).json();
  expect(openapi).toBe("3.1.0");
  expect(Object.keys(paths)).toContain("/api/projects/{id}/results");
  const schema = await (await page.request.get("/api/project.schema.json")).json();
  expect(schema.properties.version.const).toBe(6);
  await page.goto("/guide/interface");
  await expect(
    page.getByRole("heading", { name: "GET /api/projects/{id}/tables/{name}/rows" }),
  ).toBeVisible();
  await expect(
    page.getByText("number, 1 to 500; else 100").or(page.getByText("integer, 1 to 500; else 100")),
  ).toBeVisible();
});

test("columns are turned into rows over HTTP, whatever stands in names and cells", async ({ request }) => {
  const { project } = await (await request.post("/api/projects", { data: { name: "Turned" } })).json();
  const at = `/api/projects/${project.id}/tables`;
  const post = async (address: string, data: Buffer | object) => {
    const headers = Buffer.isBuffer(data) ? { "content-type": "application/octet-stream" } : undefined;
    const answer = await request.post(at + address, { data, ...(headers ? { headers } : {}) });
    return {
      status: answer.status(),
      last: JSON.parse((await answer.text()).trim().split("\n").at(-1) ?? ""),
    };
  };
  const names = ["=SUM(A1)", 'a "quoted", name', "constructor", "1", "ключ"];
  const cells = [
    ["007", "two\nlines", 'say "hi", you', "'x'", "'y'", ""],
    ["008", "true", "null", "-5", " spaced ", "日本"],
  ];
  const quoted = (row: string[]) => row.map((cell) => `"${cell.replaceAll('"', '""')}"`).join(",");
  const csv = [["id", ...names], ...cells].map(quoted).join("\n");
  await post("?name=odd.csv&add=1&header=true", Buffer.from(csv));
  const turn = { columns: names, names: "what", values: "how much" };
  const { status, last } = await post("/odd/turn", turn);
  expect(status).toBe(200);
  expect(last.table).toMatchObject({ name: "odd_in_rows", rows: 10 });
  expect(last.table.columns.map((c: { name: string }) => c.name)).toEqual(["id", "what", "how much"]);
  const saved = await (await request.get(`/api/projects/${project.id}`)).json();
  const document = { ...saved.project.document, tables: [...saved.project.document.tables, last.table] };
  const put = { data: { revision: saved.project.revision, document } };
  expect((await request.put(`/api/projects/${project.id}`, put)).status()).toBe(200);
  const rowsOf = async (table: string): Promise<(string | null)[][]> => {
    const { page } = await (await request.get(`${at}/${table}/rows?limit=50`)).json();
    return page.rows.map((row: { cells: (string | null)[] }) => row.cells);
  };
  const before = await rowsOf("odd");
  expect(before[1]).toEqual(["008", "true", null, "-5", " spaced ", "日本"]);
  expect(await rowsOf("odd_in_rows")).toEqual(
    before.flatMap(([id, ...own]) => own.map((cell, k) => [id, names[k], cell])),
  );
  for (const [wrong, code, words] of [
    [{ ...turn, columns: ["nothing"] }, "bad_turn", "no column “nothing”"],
    [{ ...turn, names: "ID" }, "bad_turn", "“ID” already"],
    [{ ...turn, values: "What" }, "bad_turn", "both are called “what”"],
    [{ ...turn, columns: ["1", "1"] }, "bad_turn", "once only"],
  ] as const) {
    const { last: answer } = await post("/odd/turn", wrong);
    expect(answer.error).toMatchObject({ code, message: expect.stringContaining(words) });
  }
  expect((await post("/odd/turn", { ...turn, columns: [] })).status).toBe(400);
  expect((await post("/nothing/turn", turn)).status).toBe(404);
});
