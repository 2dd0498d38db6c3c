import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { CHAPTERS, type Chapter, chapterHtml, titleOf } from "@/server/guide";

type Params = { params: Promise<{ chapter: string }> };
const isChapter = (name: string): name is Chapter => (CHAPTERS as readonly string[]).includes(name);

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  const { chapter } = await params;
  return { title: isChapter(chapter) ? `${titleOf(chapter)} – Cavlo` : "Cavlo" };
}

/** A chapter of the guide, made from the project's own documents. */
export default async function Page({ params }: Params) {
  const { chapter } = await params;
  if (!isChapter(chapter)) notFound();
  return (
    <main className="mx-auto grid max-w-5xl grid-cols-[180px_minmax(0,1fr)] gap-10 px-6 py-10 narrow:grid-cols-1 narrow:gap-5">
      <nav aria-label="Guide" className="flex flex-col gap-1 narrow:flex-row narrow:flex-wrap">
        <a href="/" className="mb-3 text-sm text-muted underline narrow:mr-3 narrow:mb-0">
          All projects
        </a>
        {CHAPTERS.map((c) => (
          <a
            key={c}
            href={`/guide/${c}`}
            aria-current={c === chapter ? "page" : undefined}
            className={`rounded-sm px-2 py-1 ${c === chapter ? "bg-tint font-semibold" : "text-muted hover:text-ink"}`}
          >
            {titleOf(c)}
          </a>
        ))}
      </nav>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: made from the project's own files, without raw HTML */}
      <article className="guide" dangerouslySetInnerHTML={{ __html: chapterHtml(chapter) }} />
    </main>
  );
}
