import type { TableProfile } from "@/server/compute/protocol";

/** A small picture of a column's values: bars of its distribution, or of its most frequent texts. */
export function ColumnSketch({ column }: { column: TableProfile["columns"][number] }) {
  const { bars } = column;
  const most = Math.max(1, ...bars.map((b) => b.count));
  const width = 100 / Math.max(1, bars.length);
  return (
    <svg viewBox="0 0 100 22" preserveAspectRatio="none" className="h-[22px] w-full" aria-hidden="true">
      <rect x="0" y="21.2" width="100" height="0.8" fill="var(--rule)" />
      {bars.map((b, i) => {
        const height = (b.count / most) * 20;
        return (
          <rect
            key={b.label}
            x={i * width + width * 0.08}
            y={21.2 - height}
            width={width * 0.84}
            height={height}
            fill="var(--verdigris)"
            opacity={column.type === "text" ? 0.55 : 0.8}
          />
        );
      })}
    </svg>
  );
}
