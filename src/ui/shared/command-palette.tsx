"use client";
import { Command } from "cmdk";
import { Dialog, VisuallyHidden } from "radix-ui";
import { useProject } from "./project-context";
import { useReturnFocus } from "./return-focus";
import { goWithin } from "./step-link";
import { STEPS } from "./steps";

interface Item {
  key: string;
  label: string;
  /** Where it is; null for the calendar and the language, which open over any screen. */
  to: string | null;
}

/** Finds any screen, table, measure, visual or board by typing a part of its name. */
export function CommandPalette({
  open,
  onOpenChange,
  onConventions,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onConventions: () => void;
}) {
  const returnFocus = useReturnFocus();
  const id = useProject((s) => s.id);
  const document = useProject((s) => s.document);
  const choose = ({ to }: Item) => {
    onOpenChange(false);
    if (to === null) onConventions();
    else goWithin(to);
  };
  const groups: { label: string; items: Item[] }[] = [
    { label: "Steps", items: STEPS.map((s) => ({ key: s.path, label: s.label, to: `/p/${id}/${s.path}` })) },
    {
      label: "Tables",
      items: document.tables.map((t) => ({ key: t.id, label: t.name, to: `/p/${id}/data?table=${t.id}` })),
    },
    {
      label: "Measures",
      items: document.measures.map((m) => ({
        key: m.id,
        label: m.label,
        to: `/p/${id}/measures?measure=${m.id}`,
      })),
    },
    {
      label: "Inputs",
      items: document.inputs.map((i) => ({
        key: i.id,
        label: i.label,
        to: `/p/${id}/measures?input=${i.id}`,
      })),
    },
    {
      label: "Visuals",
      items: document.visuals.map((v) => ({
        key: v.id,
        label: v.name,
        to: `/p/${id}/visuals?visual=${v.id}`,
      })),
    },
    {
      label: "Boards",
      items: document.boards.map((b) => ({ key: b.id, label: b.name, to: `/p/${id}/boards?board=${b.id}` })),
    },
    { label: "Project", items: [{ key: "conventions", label: "Calendar and language", to: null }] },
  ];
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
          <Command label="Go to anything">
            <Command.Input
              placeholder="Go to a table, a measure, a visual, a board …"
              className="h-12 w-full border-b border-rule bg-transparent px-4 text-md outline-none"
            />
            <Command.List className="max-h-80 overflow-auto p-2">
              <Command.Empty className="p-4 text-muted">Nothing has that name.</Command.Empty>
              {groups.map((group) => (
                <Command.Group
                  key={group.label}
                  heading={group.label}
                  className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:py-1.5 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-muted"
                >
                  {group.items.map((item) => (
                    <Command.Item
                      key={item.key}
                      value={`${group.label} ${item.label} ${item.key}`}
                      onSelect={() => choose(item)}
                      className="cursor-pointer rounded-sm px-2 py-1.5 data-[selected=true]:bg-tint"
                    >
                      {item.label}
                    </Command.Item>
                  ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
