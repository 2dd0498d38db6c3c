import { sameName } from "@/core/base/names";
import { EmbedError } from "./embed-error";

/** What a page wants of a snapshot, by its id or its name; the first where it says nothing. Throws an EmbedError. */
export function wantedOf<T extends { id: string; name: string }>(all: T[], wanted: string, what: string): T {
  const found =
    wanted === ""
      ? all[0]
      : (all.find((one) => one.id === wanted) ?? all.find((one) => sameName(one.name, wanted)));
  if (found) return found;
  const there = all.map((one) => one.name);
  throw new EmbedError(
    "not-there",
    wanted === ""
      ? `The snapshot holds no ${what}.`
      : `The snapshot has no ${what} ${wanted}. It has ${there.length > 0 ? there.join(", ") : "none"}.`,
  );
}
