import { answerResults } from "@/server/results-call";

export const POST = answerResults;
