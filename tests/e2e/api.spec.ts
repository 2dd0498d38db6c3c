import { expect, test } from "@playwright/test";

test.describe("the HTTP interface", () => {
  let id = "";
  test.beforeAll(async ({ request }) => {
    const { projects } = await (await request.get("/api/projects")).json();
    id = projects.at(-1).id;
  });

  test("answers a batch in order, one bad query beside good ones", async ({ request }) => {
    const queries = [
      { measures: [{ id: "passengers_total" }], splits: [{ column: "date", by: "year" }] },
      { measures: [] },
      { measures: [{ formula: "sum(nope)", as: "x" }], table: "sailings" },
      { measures: [{ id: "punctuality_class" }], inputs: { punctuality_target: 0.5 } },
    ];
    const { results } = await (
      await request.post(`/api/projects/${id}/results`, { data: { queries } })
    ).json();
    expect(results[0].columns[0].values).toEqual(["2024-01-01", "2025-01-01", "2026-01-01"]);
    expect(results[1].error.code).toBe("bad_query");
    expect(results[2].error).toMatchObject({ code: "bad_formula", at: { start: 4, end: 8 } });
    expect(results[3].totals.punctuality_class).toBe("good");
  });

  test("answers whatever is malformed with a 4xx and a sentence", async ({ request }) => {
    const cases: [string, string, unknown?][] = [
      ["GET", "/api/projects/none"],
      ["GET", `/api/projects/${id}/tables/none`],
      ["GET", `/api/projects/${id}/tables/sailings/rows?limit=lots`],
      ["GET", `/api/projects/${id}/tables/sailings/rows?sort=none`],
      ["GET", `/api/projects/${id}/visuals/none.svg`],
      ["GET", `/api/projects/${id}/visuals/passengers-by-route.gif`],
      ["GET", `/api/projects/${id}/visuals/passengers-by-route.svg?width=9`],
      ["GET", `/api/projects/${id}/visuals/passengers-by-route.svg?input.none=1`],
      ["GET", `/api/projects/${id}/visuals/passengers-by-route.svg?filter.none=1`],
      ["GET", `/api/projects/${id}/visuals/passengers-by-route.svg?filter.date=someday`],
      ["POST", "/api/projects", { name: "" }],
      ["POST", "/api/projects", "not json"],
      ["POST", "/api/projects", { document: { format: "x" } }],
      ["POST", `/api/projects/${id}/results`, { queries: "all" }],
      ["POST", `/api/projects/${id}/tables`],
      ["PUT", `/api/projects/${id}`, { revision: 1 }],
      [
        "PUT",
        `/api/projects/${id}`,
        {
          revision: 1,
          document: {
            format: "cavlo-project",
            version: 1,
            name: "x",
            tables: [{ id: "../../etc", name: "t", rows: 1, columns: [], source: {} }],
          },
        },
      ],
      ["DELETE", "/api/projects/none"],
    ];
    for (const [method, path, data] of cases) {
      const response = await request.fetch(path, { method, data: data as never });
      expect(response.status(), `${method} ${path}`).toBeGreaterThanOrEqual(400);
      expect(response.status(), `${method} ${path}`).toBeLessThan(500);
      const { error } = await response.json();
      expect(error.message.length, path).toBeGreaterThan(10);
    }
  });

  test("turns away other hosts and other origins", async ({ request }) => {
    expect((await request.get("/api/projects", { headers: { host: "evil.example" } })).status()).toBe(403);
    expect(
      (
        await request.post("/api/projects", {
          headers: { origin: "http://evil.example" },
          data: { name: "x" },
        })
      ).status(),
    ).toBe(403);
  });

  test("draws a visual under an address's own filter, input and theme", async ({ request }) => {
    const address = `/api/projects/${id}/visuals/on-time-departures.svg`;
    const plain = await (await request.get(address)).text();
    const changed = await (
      await request.get(
        `${address}?filter.date=2025&input.punctuality_target=0.8&theme=night&width=600&height=400`,
      )
    ).text();
    expect(plain).toContain("target 92");
    expect(changed).toContain("target 80");
    expect(changed).toContain('width="600"');
    expect(changed).toContain("#172123");
    const numbers = await (
      await request.get(`/api/projects/${id}/visuals/on-time-departures.json?filter.date=2024`)
    ).json();
    expect(numbers.result.scanned).toBeLessThan(60_000);
  });
});

test("a project's first board is a small picture, made once for each revision", async ({ request }) => {
  const made = await request.post("/api/projects", { data: { demo: true } });
  const { project } = await made.json();
  const path = `/api/projects/${project.id}/picture`;
  const first = await request.get(`${path}?theme=night`);
  expect(first.status()).toBe(200);
  expect(first.headers()["content-type"]).toContain("image/svg+xml");
  const svg = await first.text();
  expect(svg).toContain("<title>Season at a glance</title>");
  // A picture of its own for each visual on it, at its place.
  expect(svg.match(/<svg /g)?.length).toBeGreaterThan(4);
  expect(svg).toContain("Ferrow Isle");
  const again = await request.get(`${path}?theme=night`, {
    headers: { "if-none-match": first.headers().etag },
  });
  expect(again.status()).toBe(304);
  expect((await request.get(`${path}?theme=pink`)).status()).toBe(400);
  expect((await request.get("/api/projects/nothing/picture")).status()).toBe(404);
  const empty = await request.post("/api/projects", { data: { name: "Empty" } });
  const { project: bare } = await empty.json();
  expect((await request.get(`/api/projects/${bare.id}/picture`)).status()).toBe(204);
});

test("an address of the interface at which nothing stands says so as all answers do", async ({ request }) => {
  for (const [method, path] of [
    ["GET", "/api/nothing"],
    ["POST", "/api/projects/p/query"],
    ["DELETE", "/api/constructor/__proto__"],
  ]) {
    const answer = await request.fetch(path, { method, ...(method === "POST" ? { data: {} } : {}) });
    expect(answer.status(), path).toBe(404);
    const { error } = await answer.json();
    expect(error.code).toBe("no_call");
    expect(error.message).toContain("/api/openapi.json");
  }
});
