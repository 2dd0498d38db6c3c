/** How the lists of menus look. */
export const MENU_LIST =
  "z-50 min-w-44 rounded-md border border-rule bg-sheet p-1 text-sm text-ink shadow-stage";
/** How what stands in a menu looks. */
export const MENU_ITEM =
  "flex min-h-7 cursor-pointer items-center rounded-sm px-2.5 outline-none data-[highlighted]:bg-tint";
