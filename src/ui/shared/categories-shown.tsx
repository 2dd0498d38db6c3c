"use client";
import { useEffect } from "react";
import { useCategoriesDialog } from "./categories-store";
import { later, OVER } from "./fetched-later";

const CategoriesDialog = later(() => import("./categories-dialog").then((m) => m.CategoriesDialog), OVER);

/** The dialog of categories, fetched when it is first opened. */
export function CategoriesShown() {
  const isOpen = useCategoriesDialog((s) => s.of !== null);
  useEffect(() => useCategoriesDialog.getState().close, []);
  return isOpen ? <CategoriesDialog /> : null;
}
