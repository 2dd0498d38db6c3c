import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { CHAPTERS, type Chapter, chapterHtml, titleOf } from "@/server/guide";
import { GuideNav } from "../guide-nav";

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
      <GuideNav now={chapter} />
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: made from the project's own files, without raw HTML */}
      <article className="guide" dangerouslySetInnerHTML={{ __html: chapterHtml(chapter) }} />
    </main>
  );
}
