import { createServer } from "node:http";
import { parseArgs } from "node:util";
import next from "next";
import { createDemo } from "./demo";
import { refusal } from "./http/door";
import { settings } from "./settings";
import { database } from "./store/database";
import { listProjects } from "./store/projects";

/** The HTTP entry: opens the data folder, makes the demo on first use, and serves the application on one address. */
async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      port: { type: "string", default: "4517" },
      host: { type: "string", default: "127.0.0.1" },
      data: { type: "string" },
      dev: { type: "boolean", default: false },
      "no-demo": { type: "boolean", default: false },
    },
  });
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new Error(`--port takes a number from 0 to 65535, not ${values.port}.`);
  if (values.data) settings.data = values.data;
  process.env.CAVLO_DATA = settings.data;
  process.env.CAVLO_ROOT = settings.root;
  database();
  if (!values["no-demo"] && listProjects().length === 0) {
    console.log("Making the demo project …");
    await createDemo();
  }
  const app = next({ dev: values.dev, dir: settings.root, hostname: values.host, port });
  await app.prepare();
  const serve = app.getRequestHandler();
  const server = createServer((request, response) => {
    const refused = refusal(request, values.host);
    if (refused) {
      response.writeHead(refused.status, { "content-type": "application/json; charset=utf-8" }).end(JSON.stringify({ error: { code: refused.code, message: refused.message } }));
      request.resume();
      return;
    }
    response.setHeader("x-content-type-options", "nosniff");
    response.setHeader("referrer-policy", "no-referrer");
    response.setHeader("x-frame-options", "DENY");
    serve(request, response).catch((error) => {
      console.error(error);
      response.destroy();
    });
  });
  server.on("error", (error: NodeJS.ErrnoException) => {
    console.error(error.code === "EADDRINUSE" ? `Port ${port} is taken by another program. Choose another with --port.` : error.message);
    process.exit(1);
  });
  server.listen(port, values.host, () => {
    const address = server.address();
    const at = typeof address === "object" && address ? address.port : port;
    console.log(`Cavlo is ready: http://${values.host}:${at}`);
  });
  const stop = () => {
    server.close();
    database().close();
    process.exit(0);
  };
  process.on("SIGINT", stop);
  process.on("SIGTERM", stop);
}

main().catch((error) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
