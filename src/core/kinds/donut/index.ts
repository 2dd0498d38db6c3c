import type { Kind } from "../kind";
import { DONUT_PARTS } from "./parts";
import { donutScene } from "./scene";

export const donut: Kind = { id: "donut", label: "Donut", phrase: "a donut", roles: ["value", "split", "order", "keep"], needsSplit: true, parts: DONUT_PARTS, scene: donutScene };
