"use client";
import { Dialog, VisuallyHidden } from "radix-ui";
import { useMemo } from "react";
import { sameName } from "@/core/base/names";
import { ALSO_CALLED } from "@/core/kinds/also-called";
import { readableName } from "@/core/project/names";
import { type Option, OptionList } from "./option-list";
import { useProject } from "./project-context";
import { useReturnFocus } from "./return-focus";
import { goWithin } from "./step-link";
import { STEPS } from "./steps";

/** Finds any screen, table, measure, visual or board, and what a new visual can be, by a part of its name. */
export function CommandPalette({
  open,
  onOpenChange,
  onConventions,
  onHelp,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onConventions: () => void;
  onHelp: () => void;
}) {
  const returnFocus = useReturnFocus();
  const id = useProject((s) => s.id);
  const document = useProject((s) => s.document);
  const options = useMemo((): Option[] => {
    const to = (group: string, key: string, label: string, path: string): Option => ({
      key: `${group} ${key}`,
      label,
      group,
      pick: () => goWithin(`/p/${id}/${path}`),
    });
    return [
      ...STEPS.map((s) => to("Steps", s.path, s.label, s.path)),
      ...document.tables.map((t) => to("Tables", t.id, t.name, `data?table=${t.id}`)),
      ...document.measures.map((m) => to("Measures", m.id, m.label, `measures?measure=${m.id}`)),
      ...document.inputs.map((i) => to("Inputs", i.id, i.label, `measures?input=${i.id}`)),
      ...document.visuals.map((v) => to("Visuals", v.id, v.name, `visuals?visual=${v.id}`)),
      ...document.boards.map((b) => to("Boards", b.id, b.name, `boards?board=${b.id}`)),
      ...Object.entries(ALSO_CALLED).flatMap(([kind, names]) =>
        [{ name: readableName(kind) }, ...names].map(({ name }) => ({
          ...to("New visual", name, name, `visuals?make=${encodeURIComponent(name)}`),
          hint: sameName(kind, name) ? undefined : kind,
        })),
      ),
      { key: "conventions", label: "Calendar and language", group: "Project", pick: onConventions },
      { key: "help", label: "Help: guide and keys", group: "Project", pick: onHelp },
    ];
  }, [id, document, onConventions, onHelp]);
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          onCloseAutoFocus={returnFocus}
          aria-describedby={undefined}
          className="fixed top-24 left-1/2 z-50 w-[min(560px,92vw)] -translate-x-1/2 overflow-hidden rounded-lg border border-rule bg-sheet shadow-stage"
        >
          <VisuallyHidden.Root>
            <Dialog.Title>Go to anything</Dialog.Title>
          </VisuallyHidden.Root>
          <OptionList
            large
            label="Go to anything"
            placeholder="Go to a table, a measure, a visual, a board; or make a pie, a meter …"
            options={options}
            close={() => onOpenChange(false)}
          />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
