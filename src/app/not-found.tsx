/** What stands at an address that is none. */
export default function NotFound() {
  return (
    <main className="grid h-full place-items-center p-6 text-center">
      <div className="max-w-sm">
        <h1 className="text-lg">There is nothing at this address</h1>
        <p className="mt-2 text-muted">It may have been typed wrongly, or what stood here was taken away.</p>
        {/* A plain link, since every page carries this. */}
        <a href="/" className="button button-strong mt-4">
          All projects
        </a>
      </div>
    </main>
  );
}
