"use client";
import { Upload } from "lucide-react";
import { useRef } from "react";
import { ACCEPTED_FILES } from "@/core/data/file-formats";
import { ImportProgress } from "./import-progress";
import { useImports } from "./project-context";

/** Brings in tables from files that are chosen, and says how far that has come. */
export function BringIn({ className = "" }: { className?: string }) {
  const file = useRef<HTMLInputElement>(null);
  const { running, start } = useImports((s) => s);
  return (
    <>
      <button
        type="button"
        className={`button button-strong ${className}`}
        onClick={() => file.current?.click()}
      >
        <Upload size={14} /> Bring in a file
      </button>
      <input
        ref={file}
        type="file"
        accept={ACCEPTED_FILES}
        multiple
        aria-label="File with a table"
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          if (files.length) start(files);
        }}
      />
      {running && (
        <div className="mt-3 w-full">
          <ImportProgress />
        </div>
      )}
    </>
  );
}
