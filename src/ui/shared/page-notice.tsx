import type { ReactNode } from "react";

/** What stands in the place of a page: what is so, and where to go. */
export function PageNotice({
  title,
  children,
  actions,
}: {
  title: string;
  children: ReactNode;
  actions?: ReactNode;
}) {
  return (
    <main className="grid h-full place-items-center p-6 text-center">
      <div className="max-w-md">
        <h1 className="text-lg">{title}</h1>
        <p className="mt-2 text-muted">{children}</p>
        <div className="mt-4 flex justify-center gap-2">
          {actions}
          {/* A plain link, since every page carries this. */}
          <a href="/" className="button">
            All projects
          </a>
        </div>
      </div>
    </main>
  );
}
