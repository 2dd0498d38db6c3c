"use client";
import { Copy } from "lucide-react";
import { toast } from "../shared/notice";

/** Copies a text, and says so; what keeps it from that is said too. */
export async function copyText(text: string, what: string): Promise<void> {
  try {
    // Only pages that came safely may write to the clipboard.
    if (!navigator.clipboard) throw new Error("this page did not come safely");
    await navigator.clipboard.writeText(text);
    toast(`${what} is copied.`);
  } catch (error) {
    toast.error(`${what} could not be copied: ${error instanceof Error ? error.message : "not allowed"}.`);
  }
}

/** An address of this server with what it can say, to be copied. */
export function AddressLine({ label, address }: { label: string; address: string }) {
  const whole = new URL(address, window.location.origin);
  return (
    <div className="flex items-start gap-1">
      <code
        title={whole.href}
        className="min-w-0 flex-1 rounded-sm bg-well px-2 py-1 font-mono text-[11.5px] leading-snug break-all"
      >
        {whole.pathname}
        {whole.search}
      </code>
      <button
        type="button"
        className="icon-button shrink-0"
        aria-label={`Copy the address of ${label}`}
        title="Copy the address"
        onClick={() => void copyText(whole.href, "The address")}
      >
        <Copy size={14} />
      </button>
    </div>
  );
}
