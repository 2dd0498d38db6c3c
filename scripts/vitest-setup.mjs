// The server's tests run its real worker threads and draw in its fonts, so these are there first.
import { buildServer } from "./build-server.mjs";
import { placeFonts } from "./place-fonts.mjs";

export default async function setup() {
  await Promise.all([buildServer(), placeFonts()]);
}
