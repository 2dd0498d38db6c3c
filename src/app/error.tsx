"use client";
import { PageNotice } from "@/ui/shared/page-notice";

/** What stands where a page could not be made; what was saved is safe. */
export default function PageError({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <div role="alert" className="h-full">
      <PageNotice
        title="This page could not be shown"
        actions={
          <button type="button" className="button button-strong" onClick={reset}>
            Try again
          </button>
        }
      >
        What was saved is not touched by it. {error.message}
      </PageNotice>
    </div>
  );
}
