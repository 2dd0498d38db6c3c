/** The keys that do something, and what: shown in the application, and held to the guide by a test. */
export const SHORTCUTS: { keys: string; what: string }[] = [
  {
    keys: "Ctrl K",
    what: "go to any step, table, measure, input, visual or board, or to the calendar and language of the project; begin a visual by what it is called",
  },
  { keys: "F6, Shift F6", what: "go to the next area of the screen, or to the one before" },
  { keys: "Ctrl Z, Ctrl Shift Z (or Ctrl Y)", what: "undo, redo, over the whole project" },
  { keys: "arrows, Home, End in a list", what: "go from item to item; Enter opens one" },
  { keys: "arrows, PageUp, PageDown on a handle", what: "move it by one step, or by ten" },
  { keys: "Home, End on a handle or a dial", what: "to its least, to its most" },
  {
    keys: "arrows, Home, End on a picture",
    what: "go from mark to mark; on a board Enter picks, with Ctrl or Shift one more; Escape leaves",
  },
  { keys: "Shift F10 on a mark of a board", what: "its menu: pick it, step down, see the rows behind it" },
  { keys: "Escape on a board", what: "clears what is picked" },
  { keys: "Tab on a picture", what: "its numbers as a table" },
  {
    keys: "arrows on a tile while arranging; with Shift; with Ctrl",
    what: "move it; resize it; seven rows at once",
  },
  { keys: "Space, Ctrl A while arranging", what: "select a tile, or all; Escape clears that" },
  { keys: "Ctrl C, X, V, D while arranging", what: "copy, cut, paste, duplicate what is selected" },
  { keys: "Delete on a tile", what: "remove it from the board" },
  {
    keys: "Escape in a field",
    what: "gives the old text back, and leaves what the field stands in open",
  },
  { keys: "Escape on a board that is presented", what: "back to the application" },
];
