import type { HistoryAnswer, RunAnswer } from "@kobbin/contract";
import { strangerFiles, type TestServer, Visitor } from "./kit.ts";

/** A shop of its own with a stranger's board and one run of ten, and readers of both. */
export async function shopWithRun(server: TestServer, name: string) {
  const v = new Visitor(server);
  await v.startShop(name);
  const kept = (await v.drop(strangerFiles())).body as {
    productId: string;
    revisionId: string;
    boardId: string;
  };
  const { id } = (await v.post("/api/runs", { revisionId: kept.revisionId, name: "one", goodBoards: 10 }))
    .body as {
    id: string;
  };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const history = async (of = `run=${id}`) =>
    ((await v.get(`/api/history?${of}`)).body as HistoryAnswer).changes;
  const line = (await read()).document.lines[0]!;
  return { v, ...kept, id, read, history, line };
}
