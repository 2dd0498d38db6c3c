/** What stands while a page is made. */
export default function Loading() {
  return (
    <main className="grid h-full place-items-center p-6 text-muted">
      <p role="status">Opening …</p>
    </main>
  );
}
