import { answerCellBytes } from "@/server/cells-call";

export const POST = answerCellBytes;
