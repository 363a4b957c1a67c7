// The page shown while the engine is compiled: how far it is, and then the page that was asked for.

import { look } from "./health.js";

look(document.getElementById("done"), () => location.reload());
