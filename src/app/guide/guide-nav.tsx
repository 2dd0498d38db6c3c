import { CHAPTERS, titleOf } from "@/server/guide";

/** The page that shows the HTTP interface, by its name in the address. */
export const INTERFACE = "interface";

/** The chapters of the guide, and the page of the interface. */
export function GuideNav({ now }: { now: string }) {
  const pages = [...CHAPTERS.map((c) => ({ name: c as string, title: titleOf(c) }))];
  return (
    <nav aria-label="Guide" className="flex flex-col gap-1 narrow:flex-row narrow:flex-wrap">
      <a href="/" className="mb-3 py-1 text-sm text-muted underline narrow:mr-3 narrow:mb-0">
        All projects
      </a>
      {[...pages, { name: INTERFACE, title: "HTTP interface" }].map(({ name, title }) => (
        <a
          key={name}
          href={`/guide/${name}`}
          aria-current={name === now ? "page" : undefined}
          className={`rounded-sm px-2 py-1 ${name === now ? "bg-tint font-semibold" : "text-muted hover:text-ink"}`}
        >
          {title}
        </a>
      ))}
    </nav>
  );
}
