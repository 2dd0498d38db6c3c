// The server's tests run its real worker threads, so these are bundled first.
import { buildServer } from "./build-server.mjs";

export default async function setup() {
  await buildServer();
}
