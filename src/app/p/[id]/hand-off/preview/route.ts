import { handle, readQuery } from "@/server/http/handle";
import { previewAddress, previewPage } from "@/server/snapshots/preview-page";

export const GET = handle<{ id: string }>((request, { id }) =>
  previewPage(id, readQuery(request, previewAddress)),
);
