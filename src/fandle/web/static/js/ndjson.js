// A reply that is told line by line, each line JSON of its own.

export async function* told(reply) {
  const reader = reply.body.getReader();
  const decoder = new TextDecoder();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    const lines = (rest + decoder.decode(value, { stream: true })).split("\n");
    rest = lines.pop();
    for (const line of lines) yield JSON.parse(line);
  }
}

// The lines of an answer to a question; throws what the server, or a line, says is wrong. The signal stops it.
export async function* answered(url, data, signal) {
  const reply = await fetch(url, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(data), signal });
  if (!reply.ok) throw new Error((await reply.json()).error);
  for await (const line of told(reply)) {
    if (line.error) throw new Error(line.error);
    yield line;
  }
}
