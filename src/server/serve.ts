import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { join } from "node:path";
import { parseArgs } from "node:util";
import next from "next";
import { runCommand } from "./commands";
import { startComputing } from "./compute/client";
import { createDemo } from "./demo";
import { answeredDirectly } from "./http/direct-answers";
import { refusal } from "./http/door";
import { embedFiles } from "./http/embed-files";
import { headersFor, SECURITY_HEADERS } from "./http/security-headers";
import { packedStatics } from "./http/static-files";
import { describeOldTables } from "./keep/adopt";
import { settings } from "./settings";
import { closeDatabase, database } from "./store/database";
import { faultAnswer, faultOf } from "./store/disk-fault";
import { deletedProjects, listProjects, purgeDeleted } from "./store/projects";

const DAY_MS = 86_400_000;

const options = {
  port: { type: "string", default: "4517" },
  host: { type: "string", default: "127.0.0.1" },
  data: { type: "string" },
  dev: { type: "boolean", default: false },
  "no-demo": { type: "boolean", default: false },
  verify: { type: "boolean", default: false },
  backup: { type: "string" },
  project: { type: "string" },
  restore: { type: "string" },
} as const;

/** Sends what the door says of a request that it turns away. */
function turnAway(
  request: IncomingMessage,
  response: ServerResponse,
  refused: NonNullable<ReturnType<typeof refusal>>,
): void {
  response.writeHead(refused.status, {
    "content-type": "application/json; charset=utf-8",
    ...refused.headers,
  });
  response.end(JSON.stringify({ error: { code: refused.code, message: refused.message } }));
  request.resume();
}

/**
 * Makes a page and answers a question once for nobody, so that the first visitor does not wait for what pages
 * and answers load.
 */
async function warm(server: Server): Promise<void> {
  const address = server.address();
  const [newest] = listProjects();
  if (typeof address !== "object" || !address || !newest) return;
  const host = address.family === "IPv6" ? `[${address.address}]` : address.address;
  const at = `http://${host}:${address.port}`;
  // It reads no rows: only a thread is there afterwards.
  const question = JSON.stringify({ queries: [{ measures: [{ formula: "1", as: "one" }] }] });
  for (const first of [
    fetch(`${at}/p/${newest.id}/visuals`),
    fetch(`${at}/api/projects/${newest.id}/results`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: question,
    }),
  ])
    await first.then((answer) => answer.text()).catch(() => {});
}

/**
 * The HTTP entry: opens the data folder, makes the demo on first use, and serves the application on one
 * address; or does what one of the commands asks.
 */
async function main(): Promise<void> {
  const { values } = parseArgs({ options });
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Error(`--port takes a number from 0 to 65535, not ${values.port}.`);
  if (values.data) settings.data = values.data;
  process.env.CAVLO_DATA = settings.data;
  process.env.CAVLO_ROOT = settings.root;
  if (values.verify || values.backup !== undefined || values.restore !== undefined) {
    process.exitCode = await runCommand(values);
    closeDatabase();
    return;
  }
  database();
  purgeDeleted();
  setInterval(() => purgeDeleted(), DAY_MS).unref();
  if (!values["no-demo"] && listProjects().length + deletedProjects().length === 0) {
    console.log("Making the demo project …");
    await createDemo();
  }
  startComputing().catch((error) => console.error(error));
  const app = next({ dev: values.dev, dir: settings.root, hostname: values.host, port });
  await app.prepare();
  const serve = app.getRequestHandler();
  const sentPacked = values.dev ? () => false : packedStatics(join(settings.root, ".next"));
  const sentEmbed = embedFiles(join(settings.root, "dist", "embed"));
  const server = createServer((request, response) => {
    for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.setHeader(name, value);
    const refused = refusal(request, values.host);
    if (refused) return turnAway(request, response, refused);
    if (sentPacked(request, response) || sentEmbed(request, response)) return;
    const headers = headersFor(request.url ?? "/", values.dev);
    for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
    if (answeredDirectly(request, response)) return;
    // The page that is made for this request reads its nonce from here.
    request.headers["content-security-policy"] = headers["content-security-policy"];
    serve(request, response).catch((error) => {
      console.error(error);
      response.destroy();
    });
  });
  server.on("error", (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === "EADDRINUSE"
        ? `Port ${port} is taken by another program. Choose another with --port.`
        : error.message,
    );
    process.exit(1);
  });
  server.listen(port, values.host, () => {
    const address = server.address();
    const at = typeof address === "object" && address ? address.port : port;
    console.log(`Cavlo is ready: http://${values.host}:${at}`);
  });
  server.once("listening", () => void warm(server));
  void describeOldTables();
  const stop = () => {
    server.close();
    closeDatabase();
    process.exit(0);
  };
  process.on("SIGINT", stop);
  process.on("SIGTERM", stop);
}

main().catch((error) => {
  const fault = faultOf(error);
  console.error(fault ? faultAnswer(fault).message : error instanceof Error ? error.message : error);
  process.exit(1);
});
