// Another device: name those that are in, send them away.

import { send } from "./ask.js";
import { toast } from "./toast.js";

const room = document.getElementById("devices");
const urlOf = (element) => `${room.dataset.url}/${element.closest("[data-device]").dataset.device}`;

room.addEventListener("change", async (event) => {
  try {
    await send("PATCH", urlOf(event.target), { name: event.target.value });
    toast("The name is kept.");
  } catch (fault) {
    event.target.value = event.target.defaultValue;
    toast(fault.message);
  }
});

room.addEventListener("click", async (event) => {
  const key = event.target.closest(".away");
  if (!key) return;
  try {
    const gone = await send("DELETE", urlOf(key));
    key.closest("li").remove();
    toast(`${gone.name} is out: it needs a new pass to come in again.`);
  } catch (fault) {
    toast(fault.message);
  }
});
