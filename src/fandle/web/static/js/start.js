// The Table room begins: what the server wrote is on the screen before its thirty scripts are asked for.

import { painted } from "./ask.js";

await painted();
await import("./main.js");
