"use client";
import { lazy, Suspense, useEffect } from "react";
import { useCategoriesDialog } from "./categories-store";

const Dialog = lazy(() => import("./categories-dialog").then((m) => ({ default: m.CategoriesDialog })));

/** The dialog of categories, fetched when it is first opened. */
export function CategoriesShown() {
  const isOpen = useCategoriesDialog((s) => s.of !== null);
  useEffect(() => useCategoriesDialog.getState().close, []);
  return isOpen ? (
    <Suspense>
      <Dialog />
    </Suspense>
  ) : null;
}
