import { testNode } from "../test-cost.ts";
import type { Stage } from "./stage.ts";

export const cost: Stage = { key: "cost", cost: ({ doc, start }) => testNode(doc, start) };
