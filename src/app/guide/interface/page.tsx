import type { Metadata } from "next";
import { CALLS } from "@/server/http/calls";
import { openApiDocument } from "@/server/http/openapi";
import { GuideNav, INTERFACE } from "../guide-nav";

export const metadata: Metadata = { title: "HTTP interface – Cavlo" };

interface Parameter {
  name: string;
  in: string;
  required: boolean;
  schema: Record<string, unknown>;
}
interface Operation {
  parameters?: Parameter[];
  requestBody?: { content: Record<string, { schema?: object }> };
}

/** What a part of an address can be, in a few words. */
function wordsOf({ type, enum: values, const: only, minimum, maximum, default: usual }: Parameter["schema"]) {
  const listed = Array.isArray(values) ? values : only === undefined ? [] : [only];
  const what = listed.length > 0 ? listed.join(", ") : type === "string" ? "text" : String(type ?? "text");
  // What a number can hold at all is no bound of the interface.
  const most = Number(maximum) < Number.MAX_SAFE_INTEGER ? ` to ${maximum}` : " on";
  const bounds = minimum === undefined ? "" : `, ${minimum}${most}`;
  return `${what}${bounds}${usual === undefined ? "" : `; else ${String(usual) || "empty"}`}`;
}

/** Every call of the HTTP interface, out of the document that other programs read. */
export default function Page() {
  const { paths } = openApiDocument() as { paths: Record<string, Record<string, Operation>> };
  return (
    <main className="mx-auto grid max-w-5xl grid-cols-[180px_minmax(0,1fr)] gap-10 px-6 py-10 narrow:grid-cols-1 narrow:gap-5">
      <GuideNav now={INTERFACE} />
      <article className="guide">
        <h1>HTTP interface</h1>
        <p>
          What the application itself asks, any program can. The same as an OpenAPI document:{" "}
          <a href="/api/openapi.json">/api/openapi.json</a>; the document of a project as a JSON Schema:{" "}
          <a href="/api/project.schema.json">/api/project.schema.json</a>.
        </p>
        {CALLS.map(({ method, path, does, answers }) => {
          const { parameters = [], requestBody } = paths[path][method.toLowerCase()];
          const body = requestBody?.content["application/json"]?.schema;
          return (
            <section key={`${method} ${path}`} className="mt-6 border-t border-rule pt-5">
              <h2>
                <code>
                  {method} {path}
                </code>
              </h2>
              <p>{does}</p>
              {parameters.some((p) => p.in === "query") && (
                <ul>
                  {parameters
                    .filter((p) => p.in === "query")
                    .map((p) => (
                      <li key={p.name}>
                        <code>{p.name}</code>
                        {p.required ? " (needed)" : ""}: {wordsOf(p.schema)}
                      </li>
                    ))}
                </ul>
              )}
              {requestBody && !body && <p>Sent: a file as it is.</p>}
              {body && (
                <details className="mb-3">
                  <summary>What is sent, as JSON Schema</summary>
                  <pre>{JSON.stringify(body, null, 2)}</pre>
                </details>
              )}
              <p>
                Answers {answers.status}
                {answers.types.length > 0 ? `: ${answers.types.join(", ")}` : ", with nothing"}.
              </p>
            </section>
          );
        })}
      </article>
    </main>
  );
}
