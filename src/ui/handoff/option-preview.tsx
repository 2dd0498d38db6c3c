"use client";
import { useEffect, useRef, useState } from "react";

/** The code of a chart option, run as it stands: the module is imported, and the chart library shows it. */
export function OptionPreview({
  code,
  size,
  label,
}: {
  code: string;
  size: { width: number; height: number };
  label: string;
}) {
  const host = useRef<HTMLDivElement>(null);
  const [problem, setProblem] = useState("");
  const { width, height } = size;
  useEffect(() => {
    const address = URL.createObjectURL(new Blob([code], { type: "text/javascript" }));
    let end = () => {};
    let isGone = false;
    setProblem("");
    Promise.all([
      import("@/render/echarts-option"),
      import(/* webpackIgnore: true */ /* turbopackIgnore: true */ address) as Promise<{ option: object }>,
    ])
      .then(([{ showOption }, { option }]) => {
        if (!isGone && host.current) end = showOption(host.current, option, { width, height });
      })
      .catch((error: unknown) => setProblem(error instanceof Error ? error.message : String(error)));
    return () => {
      isGone = true;
      end();
      URL.revokeObjectURL(address);
    };
  }, [code, width, height]);
  return (
    <>
      <div ref={host} role="img" aria-label={label} style={{ width, height }} />
      {problem && (
        <p role="alert" className="text-sm text-signal">
          The code does not run here: {problem}
        </p>
      )}
    </>
  );
}
