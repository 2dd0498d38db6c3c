"use client";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useReturnFocus } from "./return-focus";
import { SHORTCUTS } from "./shortcuts";

const CHAPTERS = [
  { path: "first-hour", label: "The first hour" },
  { path: "designing", label: "Designing a visual" },
  { path: "boards", label: "Boards" },
  { path: "taking-out", label: "Taking out" },
  { path: "backup", label: "Keeping and restoring" },
];

/** The guide's chapters and the keys that do something. */
export function HelpDialog({ onClose }: { onClose: () => void }) {
  const returnFocus = useReturnFocus();
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          onCloseAutoFocus={returnFocus}
          aria-describedby={undefined}
          className="fixed top-16 left-1/2 z-50 flex max-h-[calc(100vh-6rem)] w-[min(640px,94vw)] -translate-x-1/2 flex-col rounded-lg border border-rule bg-sheet shadow-stage"
        >
          <div className="flex items-center justify-between border-b border-rule px-5 py-3">
            <Dialog.Title className="text-lg">Help</Dialog.Title>
            <Dialog.Close className="icon-button" aria-label="Close the help">
              <X size={16} />
            </Dialog.Close>
          </div>
          <div className="overflow-auto px-5 py-4">
            <h3 className="section-title">Guide</h3>
            <ul className="mt-1 flex flex-wrap gap-2">
              {CHAPTERS.map((c) => (
                <li key={c.path}>
                  <a className="button" href={`/guide/${c.path}`} target="_blank" rel="noreferrer">
                    {c.label}
                  </a>
                </li>
              ))}
            </ul>
            <h3 className="section-title mt-5">Keys</h3>
            <dl className="mt-1 grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1.5 text-sm max-sm:grid-cols-1">
              {SHORTCUTS.map(({ keys, what }) => (
                <div key={keys} className="contents">
                  <dt className="font-mono text-xs leading-5">{keys}</dt>
                  <dd className="text-muted max-sm:mb-1.5">{what}</dd>
                </div>
              ))}
            </dl>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
