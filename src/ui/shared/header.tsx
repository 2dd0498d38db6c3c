"use client";
import { CalendarDays, CircleHelp, Ellipsis, Moon, Redo2, Sun, Undo2 } from "lucide-react";
import Link from "next/link";
import { usePathname, useSearchParams } from "next/navigation";
import { useCallback, useEffect, useRef, useState } from "react";
import { LONGEST } from "@/core/project/most";
import { later, OVER, UNASKED } from "./fetched-later";
import type { ItemAction } from "./item-actions";
import { useLastAddresses } from "./last-addresses";
import { Mark } from "./mark";
import { useImports, useProject, useProjectStore } from "./project-context";
import type { SaveState as SaveStateName } from "./project-store";
import { StepLink } from "./step-link";
import { STEPS } from "./steps";
import { useTheme } from "./theme";

// The list of everything is fetched a while after the page stands, or when it is first opened.
const fetchPalette = () => import("./command-palette");
const CommandPalette = later(() => fetchPalette().then((m) => m.CommandPalette), OVER);
const FETCH_AFTER = 2500;
const fetchMenu = () => import("./action-menu");
const ActionMenu = later(() => fetchMenu().then((m) => m.ActionMenu), {
  ...OVER,
  waiting: () => <MoreButton />,
});

const MORE = { className: "icon-button min-[421px]:hidden", icon: <Ellipsis size={16} /> };

function MoreButton({ onOpen }: { onOpen?: () => void }) {
  return (
    <button
      type="button"
      className={MORE.className}
      aria-label="More"
      aria-haspopup="menu"
      aria-expanded={false}
      onClick={onOpen}
    >
      {MORE.icon}
    </button>
  );
}

/** What a phone has no room for in the header; menus are fetched when the first is opened, or a while later. */
function MoreMenu({ actions }: { actions: ItemAction[] }) {
  const [isAsked, setAsked] = useState(false);
  if (!isAsked) return <MoreButton onOpen={() => setAsked(true)} />;
  return <ActionMenu label="More" sign={MORE} actions={actions} beginsOpen />;
}

const ConventionsDialog = later(() => import("./conventions-dialog").then((m) => m.ConventionsDialog), OVER);

const HelpDialog = later(() => import("./help-dialog").then((m) => m.HelpDialog), OVER);

// So are the outcomes of proofs, where there are any.
const FailedProofsMark = later(() => import("./failed-proofs-mark").then((m) => m.FailedProofsMark), UNASKED);

const SAVE_WORDS: Record<SaveStateName, string> = {
  saved: "Saved",
  unsaved: "Saving …",
  saving: "Saving …",
  behind: "Not saved: changed elsewhere",
  waiting: "Not saved",
  refused: "Not saved",
  deleted: "Not saved: removed elsewhere",
};

function SaveState() {
  const state = useProject((s) => s.saveState);
  const problem = useProject((s) => s.saveProblem);
  const bad = state !== "saved" && state !== "unsaved" && state !== "saving";
  return (
    <span
      // A failure is announced; that each edit is saved is not.
      role={bad ? "status" : undefined}
      title={problem ?? undefined}
      className={`shrink-0 text-sm whitespace-nowrap max-lg:max-w-24 max-lg:truncate ${bad ? "font-medium text-signal" : "text-muted"}`}
    >
      {SAVE_WORDS[state]}
    </span>
  );
}

function ProjectName() {
  const name = useProject((s) => s.document.name);
  const apply = useProject((s) => s.apply);
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    if (text?.trim() && text.trim() !== name) apply({ type: "rename project", name: text.trim() });
    setText(null);
  };
  return (
    <input
      aria-label="Project name"
      value={text ?? name}
      maxLength={LONGEST.name}
      onChange={(e) => setText(e.target.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === "Enter") e.currentTarget.blur();
        if (e.key === "Escape") setText(null);
      }}
      className="h-7 w-52 min-w-0 truncate rounded-sm border border-transparent bg-transparent px-1.5 text-base text-muted hover:border-rule focus:border-rule focus:bg-sheet max-lg:w-28 narrow:w-0 narrow:flex-1"
    />
  );
}

/** The line at the top of every screen: the project, its five steps, saving, undo and redo. */
export function Header() {
  const id = useProject((s) => s.id);
  const store = useProjectStore();
  const takeBack = useProject((s) => s.undo);
  const makeAgain = useProject((s) => s.redo);
  const undone = useProject((s) => s.past.at(-1)?.words);
  const next = useProject((s) => s.future[0]?.words);
  // What was undone is said, for who does not see it.
  const [said, setSaid] = useState("");
  const undo = useCallback(() => {
    const before = store.getState().document;
    takeBack();
    if (store.getState().document !== before) setSaid(`Undone: ${undone}`);
  }, [store, takeBack, undone]);
  const redo = useCallback(() => {
    const before = store.getState().document;
    makeAgain();
    if (store.getState().document !== before) setSaid(`Made again: ${next}`);
  }, [store, makeAgain, next]);
  const importing = useImports((s) => (s.running ? Math.floor(s.running.share * 100) : null));
  const hasProofs = useProject((s) => s.document.measures.some((m) => m.proofs.length > 0));
  const { theme, setTheme } = useTheme();
  const path = usePathname();
  const [palette, setPalette] = useState(false);
  const [conventions, setConventions] = useState(false);
  const [help, setHelp] = useState(false);

  useEffect(() => {
    const timer = setTimeout(() => {
      for (const fetch of [fetchPalette, fetchMenu]) fetch().catch(() => {});
    }, FETCH_AFTER);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      const typing =
        event.target instanceof HTMLElement &&
        (event.target.isContentEditable || ["INPUT", "TEXTAREA"].includes(event.target.tagName));
      if (key === "k") {
        event.preventDefault();
        setPalette(true);
      } else if (key === "z" && !typing) {
        event.preventDefault();
        (event.shiftKey ? redo : undo)();
      } else if (key === "y" && !typing) {
        event.preventDefault();
        redo();
      }
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [undo, redo]);

  // Where not all steps fit, the one that is on is in sight.
  const steps = useRef<HTMLElement>(null);
  useEffect(() => {
    const on = path && steps.current?.querySelector("[aria-current=page]");
    if (on) on.scrollIntoView({ block: "nearest", inline: "center" });
  }, [path]);

  // What is taken out is first what somebody comes from.
  const params = useSearchParams();
  const firstBoard = useProject((s) => s.document.boards[0]?.id);
  const last = useLastAddresses(id);
  const stepAddress = (project: string, step: string): string => {
    const to = `/p/${project}/${step}`;
    const kept = Object.hasOwn(last, step) ? String(last[step]) : "";
    if (step !== "hand-off") return kept ? `${to}?${kept}` : to;
    const from = path.split("/")[3];
    const [name, chosen] =
      from === "boards"
        ? ["board", params.get("board") ?? firstBoard]
        : ["visual", from === "visuals" ? params.get("visual") : null];
    return chosen ? `${to}?${new URLSearchParams({ [name]: chosen })}` : to;
  };

  return (
    <header className="flex h-[52px] shrink-0 items-center gap-3 border-b border-rule px-4 max-lg:gap-2 narrow:h-auto narrow:flex-wrap narrow:gap-y-0 narrow:px-3 narrow:pt-1.5">
      <Link
        href="/"
        prefetch={false}
        className="flex items-center gap-2 rounded-sm text-lg font-bold"
        style={{ fontStretch: "118%" }}
        aria-label="Cavlo, all projects"
      >
        <Mark /> cavlo
      </Link>
      <span className="h-5 w-px bg-rule" />
      <ProjectName />
      <nav
        ref={steps}
        aria-label="Steps"
        className="flex flex-1 items-center justify-center narrow:order-last narrow:w-full narrow:flex-none narrow:basis-full narrow:justify-start narrow:overflow-x-auto narrow:py-1.5"
      >
        {STEPS.map((step, i) => {
          const here = path.startsWith(`/p/${id}/${step.path}`);
          return (
            <span key={step.path} className="flex items-center">
              {i > 0 && <span className="h-px w-5 bg-rule max-lg:w-1" />}
              <StepLink
                to={stepAddress(id, step.path)}
                aria-current={here ? "page" : undefined}
                className={`flex h-8 items-center gap-2 rounded-full px-3 text-base whitespace-nowrap transition-colors max-lg:gap-1.5 max-lg:px-2.5 ${here ? "bg-active font-semibold text-on-active" : "text-muted hover:bg-well hover:text-ink"}`}
              >
                <span className="text-xs tabular-nums opacity-80">{i + 1}</span>
                {step.label}
                {step.path === "measures" && hasProofs && <FailedProofsMark />}
                {step.path === "data" && importing !== null && (
                  <span className="text-xs font-normal opacity-80">{importing} %</span>
                )}
              </StepLink>
            </span>
          );
        })}
      </nav>
      <SaveState />
      <p role="status" className="sr-only">
        {said}
      </p>
      <div className="flex items-center">
        <button
          type="button"
          className="icon-button max-[420px]:hidden"
          aria-label="Calendar and language"
          title="Calendar and language"
          onClick={() => setConventions(true)}
        >
          <CalendarDays size={16} />
        </button>
        <button
          type="button"
          className="icon-button"
          aria-label="Undo"
          title={undone ? `Undo (Ctrl Z): ${undone}` : "Undo (Ctrl Z)"}
          disabled={undone === undefined}
          onClick={undo}
        >
          <Undo2 size={16} />
        </button>
        <button
          type="button"
          className="icon-button"
          aria-label="Redo"
          title={next ? `Redo (Ctrl Shift Z): ${next}` : "Redo (Ctrl Shift Z)"}
          disabled={next === undefined}
          onClick={redo}
        >
          <Redo2 size={16} />
        </button>
        <button
          type="button"
          className="icon-button"
          aria-label={theme === "light" ? "Night theme" : "Light theme"}
          onClick={() => setTheme(theme === "light" ? "night" : "light")}
        >
          {theme === "light" ? <Moon size={16} /> : <Sun size={16} />}
        </button>
        <button
          type="button"
          className="icon-button max-[420px]:hidden"
          aria-label="Help"
          title="Guide and keys"
          onClick={() => setHelp(true)}
        >
          <CircleHelp size={16} />
        </button>
        <MoreMenu
          actions={[
            { label: "Go to anything", run: () => setPalette(true) },
            { label: "Calendar and language", run: () => setConventions(true) },
            { label: "Help", run: () => setHelp(true) },
          ]}
        />
      </div>
      <button
        type="button"
        className="min-h-6 shrink-0 rounded-sm max-[420px]:hidden border border-rule bg-sheet px-2 py-0.5 text-xs whitespace-nowrap text-muted hover:text-ink"
        onClick={() => setPalette(true)}
        aria-label="Go to anything"
      >
        Ctrl K
      </button>
      {palette && (
        <CommandPalette
          open
          onOpenChange={setPalette}
          onConventions={() => setConventions(true)}
          onHelp={() => setHelp(true)}
        />
      )}
      {conventions && <ConventionsDialog onClose={() => setConventions(false)} />}
      {help && <HelpDialog onClose={() => setHelp(false)} />}
    </header>
  );
}
