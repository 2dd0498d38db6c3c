"use client";
import { Copy, Plus, Trash2 } from "lucide-react";
import { useSearchParams } from "next/navigation";
import { type MouseEvent, useEffect, useMemo, useRef, useState } from "react";
import { own } from "@/core/base/own";
import type { TemplateNames } from "@/core/base/template";
import { freeMadeName } from "@/core/project/made-names";
import { LONGEST } from "@/core/project/most";
import type { Measure, Visual } from "@/core/project/schema";
import { nameInTemplates, TEMPLATE_ROLES } from "@/core/project/templates";
import type { Finding } from "@/core/review/finding";
import { useAfterPaint } from "../shared/after-paint";
import { CommitField } from "../shared/commit-field";
import { later, OVER } from "../shared/fetched-later";
import { useFind } from "../shared/find-in-list";
import { freeLabel, newId } from "../shared/ids";
import { ItemList } from "../shared/item-list";
import { useItemMenu } from "../shared/item-menu";
import { Labelled } from "../shared/labelled";
import { useProject, useProjectStore } from "../shared/project-context";
import { useFindings } from "../shared/review";
import { useSelected } from "../shared/selected";
import { useTellRemoved } from "../shared/tell-edit";
import { TemplateField } from "../shared/template-field";
import { useTheme } from "../shared/theme";
import { type Pictured, useVisualsData } from "../shared/visual-data";
import { DialPanel } from "./dial-controls";
import { DialHelpLine } from "./dial-help-line";
import { Findings } from "./findings";
import { FinishPanel } from "./finish-panel";
import { MeetingMends } from "./meeting-mends";
import { PutOnBoard } from "./put-on-board";
import { fetchChoices, Sentence } from "./sentence";
import { useSentences } from "./sentences";
import { Stage } from "./stage";
import { Trials } from "./trials";
import { VisualItem } from "./visual-item";

const RenameDialog = later(() => import("../shared/rename-dialog").then((m) => m.RenameDialog), OVER);

// Where visuals begin is fetched when somebody is about to add one, or a while after the screen stands.
const fetchGallery = () => import("./gallery");
const Gallery = later(() => fetchGallery().then((m) => m.Gallery));
/** What opens on a click is fetched so long after the screen stands, so that it does while the server is away. */
const FETCH_AFTER = 2000;

/** The third step: every visual with what it shows, whichever of them is chosen. */
export function VisualsScreen() {
  const visuals = useSentences();
  const all = useVisualsData(visuals);
  const findings = useFindings(
    visuals,
    all.map((one) => one.data),
  );
  return <OneVisual visuals={visuals} all={all} findings={findings} />;
}

interface Props {
  visuals: Visual[];
  /** What each of them shows, and what the review found in it. */
  all: Pictured[];
  findings: Finding[][];
}

/** The sentence, the stage, the trials and the dials of the chosen visual, beside the list of all. */
function OneVisual({ visuals, all, findings }: Props) {
  const measures = useProject((s) => s.document.measures);
  const apply = useProject((s) => s.apply);
  const store = useProjectStore();
  const tellRemoved = useTellRemoved();
  const theme = useTheme((s) => s.theme);
  const [visual, choose] = useSelected("visual", visuals);
  // The table that the address wants drawn.
  const drawn = useSearchParams().get("draw");
  // What a new visual is to be, in somebody's words: "pie".
  const called = useSearchParams().get("make");
  const [adding, setAdding] = useState(drawn !== null || called !== null);
  useEffect(() => {
    if (called !== null) setAdding(true);
  }, [called]);
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const fetch of [fetchGallery, fetchChoices]) fetch().catch(() => {});
    }, FETCH_AFTER);
    return () => clearTimeout(timer);
  }, []);
  const [lit, setLit] = useState<string | null>(null);
  const [trial, setTrial] = useState<string | null>(null);
  const pictured = visual ? all[visuals.indexOf(visual)] : null;
  const data = pictured?.data ?? null;
  const found = visual ? findings[visuals.indexOf(visual)] : [];
  // A measure that no template writes yet was not asked for: its value comes with the first that does.
  const names = useMemo(
    (): TemplateNames => ({
      ...Object.fromEntries(TEMPLATE_ROLES.map((role) => [role, ""])),
      ...Object.fromEntries(
        measures.map((m) => [nameInTemplates("measure", m.name), { value: null, format: m.format }]),
      ),
      ...data?.names,
    }),
    [data, measures],
  );

  const add = (draft: Visual, proposed: Measure | null = null, copied: string | null = null) => {
    const id = newId();
    const measure = proposed && { ...proposed, id: newId() };
    const value = measure?.id ?? draft.value;
    const names = visuals.map((v) => v.name);
    const name = copied
      ? freeLabel(copied, names)
      : freeMadeName({ ...draft, value }, { measures: measure ? [measure] : measures }, names);
    const isTaken = apply({
      type: "add visual",
      visual: { ...draft, id, name, value },
      ...(measure ? { measure } : {}),
    });
    if (!isTaken) return;
    setAdding(false);
    choose(id);
  };
  const open = (id: string) => {
    setAdding(false);
    setTrial(null);
    choose(id);
  };
  const panel = useRef<HTMLElement>(null);
  const copy = (id: string) => {
    const now = store.getState().document.visuals.find((v) => v.id === id);
    if (now) add(now, null, `${now.name} copy`);
  };
  const remove = ({ id, name }: Visual) => {
    apply({ type: "remove visual", id });
    tellRemoved(`${name} is removed.`);
  };
  const find = useFind("Find a visual", visuals);
  const { menuOf, menu } = useItemMenu();
  const [renaming, setRenaming] = useState<Visual | null>(null);
  const openMenu = (id: string, event: MouseEvent<HTMLElement>) => {
    const now = store.getState().document.visuals.find((v) => v.id === id);
    if (!now) return;
    menuOf(now.name, [
      { label: "Rename …", run: () => setRenaming(now) },
      { label: "Duplicate", run: () => copy(id) },
      { label: "Remove", run: () => remove(now) },
    ])(event);
  };
  const now = useMemo(() => (visual && data ? { id: visual.id, data, names } : null), [visual, data, names]);
  // The stage goes first: what stands around it follows when there is time.
  const around = useAfterPaint(now);
  // The dials of the visual before take nothing any more: what is typed is meant for the one on the stage.
  const isOfBefore = around?.id !== visual?.id;
  const shows = !adding && visual && data;
  return (
    <div
      className={`areas grid h-full ${shows ? "grid-cols-[168px_minmax(0,1fr)_296px] max-lg:grid-cols-[128px_minmax(0,1fr)_260px]" : "grid-cols-[168px_minmax(0,1fr)] max-lg:grid-cols-[128px_minmax(0,1fr)]"}`}
    >
      <div className="flex min-h-0 flex-col border-r border-rule narrow:border-r-0">
        {find.field && <div className="border-b border-rule p-3">{find.field}</div>}
        <ItemList
          label="Visuals"
          className="areas-strip flex min-h-0 flex-1 scroll-pb-16 flex-col gap-2.5 overflow-auto px-3 pt-3 narrow:scroll-px-16 narrow:pb-3"
        >
          {visuals.map((v, i) =>
            find.fits(v.id) ? (
              <VisualItem
                key={v.id}
                id={v.id}
                data={all[i].data}
                open={findings[i].filter((f) => !own(v.leftFindings, f.id)).length}
                theme={theme}
                chosen={!adding && v.id === visual?.id}
                onOpen={open}
                onMenu={openMenu}
              />
            ) : null,
          )}
          <div className="sticky bottom-0 mt-auto bg-paper pb-3 narrow:-right-3 narrow:bottom-auto narrow:mt-0 narrow:ml-auto narrow:flex narrow:w-auto! narrow:shrink-0 narrow:pr-3 narrow:pb-0 narrow:pl-1">
            <button
              type="button"
              className="flex h-10 w-full shrink-0 items-center justify-center gap-1 rounded-md border border-dashed border-muted text-sm text-muted hover:text-ink narrow:h-auto narrow:px-2.5"
              onClick={() => setAdding(true)}
            >
              <Plus size={14} /> <span className="max-sm:sr-only">New visual</span>
            </button>
          </div>
        </ItemList>
      </div>
      {menu}
      {renaming && (
        <RenameDialog
          name={renaming.name}
          onRename={(name) => apply({ type: "change visual", id: renaming.id, change: { name } })}
          onClose={() => setRenaming(null)}
        />
      )}
      {shows ? (
        <div className="areas-flat flex min-h-0 min-w-0 flex-col">
          <div className="border-b border-rule px-5 py-2.5 short:py-1">
            <h1 className="sr-only">{visual.name}</h1>
            <Sentence visual={visual} data={data} />
            {data.notes.map((note) => (
              <p key={note} className="mt-1 text-sm text-muted">
                {note}
              </p>
            ))}
            <MeetingMends key={visual.id} visual={visual} />
            <Findings visual={visual} found={found} />
          </div>
          <Stage
            key={visual.id}
            id={visual.id}
            data={data}
            pending={pictured?.pending ?? false}
            trial={trial}
            lit={lit}
            onLit={setLit}
          />
          {around && <Trials id={around.id} data={around.data} chosen={trial} onChoose={setTrial} />}
        </div>
      ) : (
        <Gallery
          key={called}
          table={drawn}
          called={called ?? ""}
          onPick={add}
          onCancel={
            visuals.length
              ? () => {
                  setAdding(false);
                  // What was to be made is not asked for any more.
                  choose(visual?.id ?? null);
                }
              : undefined
          }
        />
      )}
      {shows && (
        <aside
          ref={panel}
          aria-label="Dials"
          className="areas-side contain-strict min-h-0 overflow-auto border-l border-rule bg-panel"
        >
          <section aria-label="Visual" className="flex flex-col gap-1.5 border-b border-rule px-4 py-3">
            <div className="flex items-center gap-1">
              <h2 className="section-title flex-1">Visual</h2>
              <PutOnBoard visual={visual} />
              <button
                type="button"
                className="icon-button size-7"
                aria-label="Duplicate this visual"
                onClick={() => copy(visual.id)}
              >
                <Copy size={14} />
              </button>
              <button
                type="button"
                className="icon-button size-7"
                aria-label="Remove this visual"
                onClick={() => remove(visual)}
              >
                <Trash2 size={14} />
              </button>
            </div>
            <Labelled label="Name">
              {(id) => (
                <CommitField
                  id={id}
                  value={visual.name}
                  check={(t) => (t.trim() ? null : "A name is needed.")}
                  longest={LONGEST.name}
                  onCommit={(t) =>
                    apply({ type: "change visual", id: visual.id, change: { name: t.trim() } })
                  }
                />
              )}
            </Labelled>
            <Labelled label="Title">
              {(id) => (
                <TemplateField
                  id={id}
                  value={visual.title}
                  names={names}
                  longest={LONGEST.title}
                  onCommit={(title) => apply({ type: "change visual", id: visual.id, change: { title } })}
                />
              )}
            </Labelled>
            <Labelled label="Subtitle">
              {(id) => (
                <TemplateField
                  id={id}
                  value={visual.subtitle}
                  names={names}
                  longest={LONGEST.title}
                  onCommit={(subtitle) =>
                    apply({ type: "change visual", id: visual.id, change: { subtitle } })
                  }
                />
              )}
            </Labelled>
          </section>
          {around && (
            <div inert={isOfBefore}>
              <FinishPanel id={around.id} data={around.data} />
              <DialPanel id={around.id} data={around.data} names={around.names} lit={lit} onLit={setLit} />
            </div>
          )}
          <DialHelpLine key={visual.id} panel={panel} />
        </aside>
      )}
    </div>
  );
}
