"use client";
import { type PlacedDatum, tableOf } from "@/core/scene/datums";
import { PopoverButton } from "./popover-button";

/** The numbers of a picture as a table, behind a button that shows itself to whoever comes by keyboard. */
export function PictureNumbers({ name, datums }: { name: string; datums: PlacedDatum[] }) {
  return (
    <PopoverButton
      label={`Numbers: ${name}`}
      text="Numbers as a table"
      wide
      className="sr-only rounded-sm border border-verdigris bg-sheet px-2 py-1 text-sm text-ink focus-visible:not-sr-only focus-visible:absolute focus-visible:px-2 focus-visible:py-1 focus-visible:top-1 focus-visible:left-1 focus-visible:z-20"
    >
      {() => {
        const { columns, rows } = tableOf(datums);
        return (
          // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
          <div role="region" aria-label="Numbers" tabIndex={0} className="max-h-72 overflow-auto">
            <table className="w-full text-sm">
              <caption className="px-2 py-1 text-left text-muted">{name}</caption>
              <thead>
                <tr className="border-b border-rule text-left">
                  <td />
                  {columns.map((column) => (
                    <th key={column} scope="col" className="px-2 py-1 text-right font-medium">
                      {column}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {rows.map(({ title, cells }, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: two rows can have one name
                  <tr key={i} className="border-b border-rule/50">
                    <th scope="row" className="px-2 py-1 text-left font-normal">
                      {title}
                    </th>
                    {cells.map((cell, at) => (
                      <td key={columns[at]} className="px-2 py-1 text-right font-mono">
                        {cell}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        );
      }}
    </PopoverButton>
  );
}
