// While the engine is made ready: how far it is, in a line below the header; what waited for it is asked for again after.

import { look } from "./health.js";

const line = document.getElementById("engine");

look(line.querySelector("progress"), () => {
  line.remove();
  document.dispatchEvent(new Event("engine-ready"));
});
