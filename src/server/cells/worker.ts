import { bytesIn } from "@/core/data/bytes-in";
import { toBytes } from "@/core/data/plain-bytes";
import { answerFromCells, type CellIndex } from "@/core/engine/cells/cell-answer";
import { indexOf, plainIndex } from "@/core/engine/cells/plain-index";
import { withoutRows } from "@/core/engine/cells/without-rows";
import type { Result } from "@/core/plan/query";
import { answerInThread } from "../threads/answer-in-thread";
import type { CellAnswer, CellRequest } from "./protocol";

const held = new Map<number, CellIndex>();

function answer(request: CellRequest): CellAnswer {
  if (request.type === "hold") held.set(request.id, indexOf(request.index));
  if (request.type === "drop") for (const id of request.ids) held.delete(id);
  if (request.type === "write") {
    const index = held.get(request.id);
    const plain = index && withoutRows(plainIndex(index));
    return { bytes: plain && bytesIn(plain) <= request.most ? toBytes(plain) : null };
  }
  if (request.type !== "answer") return { held: held.size };
  const { ids, queries, scope, inputs } = request;
  const results: (Result | null)[] = queries.map(() => null);
  for (const id of ids) {
    const index = held.get(id);
    const open = [...queries.keys()].filter((i) => results[i] === null);
    if (!index || open.length === 0) continue;
    const found = answerFromCells(
      open.map((i) => queries[i]),
      index,
      { scope, inputs },
      () => performance.now(),
    );
    for (const [k, i] of open.entries()) results[i] = found[k];
  }
  return { results, missing: ids.filter((id) => !held.has(id)) };
}

answerInThread(answer);
