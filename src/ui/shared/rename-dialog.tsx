"use client";
import { Dialog } from "radix-ui";
import { type FormEvent, useState } from "react";
import { LONGEST } from "@/core/project/most";
import { useReturnFocus } from "./return-focus";

/** Asks for a new name. */
export function RenameDialog({
  name,
  onRename,
  onClose,
}: {
  name: string;
  onRename: (name: string) => void;
  onClose: () => void;
}) {
  const returnFocus = useReturnFocus();
  const [text, setText] = useState(name);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() === "") return;
    if (text.trim() !== name) onRename(text.trim());
    onClose();
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          onCloseAutoFocus={returnFocus}
          aria-describedby={undefined}
          className="fixed top-28 left-1/2 z-50 w-[min(420px,92vw)] -translate-x-1/2 rounded-lg border border-rule bg-sheet p-4 shadow-stage"
        >
          <Dialog.Title className="text-md">Rename {name}</Dialog.Title>
          <form onSubmit={submit} className="mt-3 flex gap-2">
            <input
              aria-label="New name"
              value={text}
              maxLength={LONGEST.name}
              onChange={(e) => setText(e.target.value)}
              onFocus={(e) => e.target.select()}
              className="field"
            />
            <button type="submit" className="button button-strong" disabled={text.trim() === ""}>
              Rename
            </button>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
