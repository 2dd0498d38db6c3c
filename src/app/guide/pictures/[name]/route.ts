import { guidePicture } from "@/server/guide";
import { HttpError } from "@/server/http/errors";
import { handle } from "@/server/http/handle";

export const GET = handle<{ name: string }>((_request, { name }) => {
  const picture = guidePicture(name);
  if (!picture) throw new HttpError(404, "no_picture", "The guide has no such picture.");
  return new Response(picture, {
    headers: { "content-type": "image/png", "cache-control": "max-age=3600" },
  });
});
