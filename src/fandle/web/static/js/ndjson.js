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
