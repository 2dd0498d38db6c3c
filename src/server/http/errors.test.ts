import { expect, it } from "vitest";
import { HttpError } from "./errors";

it("an error of the entry's own copy of the class is one, any other error is none", () => {
  class Copied extends Error {
    override readonly name = "HttpError";
    readonly status = 404;
  }
  expect(new Copied("gone") instanceof HttpError).toBe(true);
  expect(new HttpError(400, "bad", "This is bad.") instanceof HttpError).toBe(true);
  expect(new Error("HttpError") instanceof HttpError).toBe(false);
  expect(({ name: "HttpError", status: 400 } as unknown) instanceof HttpError).toBe(false);
});
