// Has the engine scan as the server's threads do.
import { compileLoops } from "@/server/threads/compile-loops";

compileLoops();
