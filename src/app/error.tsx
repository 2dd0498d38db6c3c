"use client";

/** What stands where a page could not be made; what was saved is safe. */
export default function PageError({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main className="grid h-full place-items-center p-6 text-center">
      <div role="alert" className="max-w-md">
        <h1 className="text-lg">This page could not be shown</h1>
        <p className="mt-2 text-muted">What was saved is not touched by it. {error.message}</p>
        <div className="mt-4 flex justify-center gap-2">
          <button type="button" className="button button-strong" onClick={reset}>
            Try again
          </button>
          {/* A plain link, since every page carries this. */}
          <a href="/" className="button">
            All projects
          </a>
        </div>
      </div>
    </main>
  );
}
