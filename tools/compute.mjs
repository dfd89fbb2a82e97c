// The server's threads for all tests of a run, in a process of their own: warm after the first of them, and what one test
// had measured is known to the next. Started by tools/units.mjs; node tools/compute.mjs SOCKET
import { createServer } from "node:http";
import { deserialize, serialize } from "node:v8";
import { toWire } from "@kobbin/core";
import { createCompute } from "@kobbin/server";

const compute = createCompute((error) => console.error(error));
const server = createServer(async (req, res) => {
  const chunks = [];
  for await (const chunk of req) chunks.push(chunk);
  const { task, shop } = deserialize(Buffer.concat(chunks));
  const answer = await compute
    .run(task, shop)
    .catch((error) => toWire(error) ?? { kind: "defect", message: String(error?.stack ?? error) });
  res.end(serialize(answer));
});
// whoever started it holds the other end: it does not outlive a run that is cut off
process.stdin.on("end", () => process.exit()).resume();
server.keepAliveTimeout = 600_000;
server.listen(process.argv[2], () => console.log("listening"));
