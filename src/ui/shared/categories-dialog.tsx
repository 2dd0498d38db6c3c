"use client";
import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  type UniqueIdentifier,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical, X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import type { Value } from "@/core/base/value";
import type { QueryInput } from "@/core/plan/query";
import { categoriesAt, colourOfCategory } from "@/core/project/categories";
import type { ColumnCategories } from "@/core/project/schema";
import { keyLabel, wordingOf } from "@/core/rows/key-labels";
import { categoryKey } from "@/core/rows/row-key";
import { THEMES } from "@/core/scene/colour";
import { paletteColour, paletteOf } from "@/core/scene/palettes";
import { type CategoriesOf, useCategoriesDialog } from "./categories-store";
import { newId } from "./ids";
import { useProject } from "./project-context";
import { useResult } from "./results";
import { useTheme } from "./theme";
import { stayForField } from "./unsaved-field";

/** So many categories can be put in order; the schema takes more. */
const MOST = 300;

const HOW_TO_MOVE = {
  draggable: "Space takes a category up, the arrow keys move it, Space puts it down, Escape leaves it.",
};

interface Category {
  value: Value;
  label: string;
  /** The colour that it has now, and whether that is one of its own. */
  color: string;
  isOwn: boolean;
}

function CategoryRow({
  category,
  id,
  onColour,
}: {
  category: Category;
  id: string;
  onColour: (color: string | null) => void;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  const { label, color, isOwn } = category;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex h-9 items-center gap-2 rounded-sm px-1 ${isDragging ? "relative z-10 bg-tint" : ""}`}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        className="icon-button size-7 cursor-grab touch-none"
        {...attributes}
        {...listeners}
        aria-label={`Move ${label}`}
      >
        <GripVertical size={14} />
      </button>
      <span className="min-w-0 flex-1 truncate" title={label}>
        {label}
      </span>
      <span className="flex w-6 justify-center">
        {isOwn && (
          <button
            type="button"
            className="icon-button size-6"
            aria-label={`The palette's colour for ${label}`}
            title="Back to the palette's colour"
            onClick={() => onColour(null)}
          >
            <X size={12} />
          </button>
        )}
      </span>
      <input
        type="color"
        aria-label={`Colour of ${label}`}
        value={color}
        onChange={(e) => onColour(e.target.value)}
        className="h-6 w-8 rounded-sm border border-rule bg-sheet p-0.5"
      />
    </li>
  );
}

/** What is said of a column's categories, changed; nothing of it is kept where it says nothing. */
function useSaid({ table, column, by }: CategoriesOf) {
  const all = useProject((s) => s.document.categories);
  const apply = useProject((s) => s.apply);
  const said = categoriesAt(all, { table, column }, by);
  const change = (part: Partial<ColumnCategories>, merge?: string) => {
    const item: ColumnCategories = {
      id: newId(),
      table,
      column,
      ...(by ? { by } : {}),
      order: [],
      colours: [],
      ...said,
      ...part,
    };
    const isEmpty = item.order.length === 0 && item.colours.length === 0;
    if (!isEmpty) apply({ type: "put item", list: "categories", item }, merge);
    else if (said) apply({ type: "take item", list: "categories", id: said.id });
  };
  return { said, change };
}

function Categories({ of }: { of: CategoriesOf }) {
  const { table, column, by, palette } = of;
  const theme = useTheme((s) => s.theme);
  const palettes = useProject((s) => s.document.palettes);
  const conventions = useProject((s) => s.document.conventions);
  const { said, change } = useSaid(of);
  const [found, setFound] = useState("");
  const order = said?.order ?? [];
  const query: QueryInput = {
    table,
    measures: [{ formula: "count(*)", as: "rows" }],
    splits: [{ column, ...(by ? { by } : {}) }],
    sort: { by: "split", order: "asc" },
    keep: { first: MOST, others: false },
  };
  const { answer } = useResult(query);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 3 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (!answer) return <p className="p-4 text-muted">Reading the categories …</p>;
  if ("error" in answer) return <p className="p-4 text-signal">{answer.error}</p>;
  const places = answer.places[0];
  const byHand = new Map(order.map((value, i) => [value, i]));
  const place = ({ value }: Category) => byHand.get(value) ?? order.length;
  const unsorted = answer.columns[0].values.map((value, i): Category => {
    const ofItsOwn = colourOfCategory(said, value);
    return {
      value,
      label: keyLabel(value, by, wordingOf({ conventions })),
      color:
        ofItsOwn ??
        paletteColour(
          paletteOf(palette, palettes),
          theme,
          places.at[i] ?? places.of,
          places.of,
          THEMES[theme].sheet,
        ),
      isOwn: ofItsOwn !== null,
    };
  });
  const categories = unsorted.toSorted((a, b) => place(a) - place(b));
  const ids = categories.map((c) => categoryKey(c.value) as string);
  const shown = categories.filter((c) => c.label.toLowerCase().includes(found.trim().toLowerCase()));
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const moved = arrayMove(categories, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
    change({ order: moved.map((c) => c.value) });
  };
  const labelOf = (id: UniqueIdentifier) => categories[ids.indexOf(String(id))]?.label ?? "";
  const placeOf = (id: UniqueIdentifier) => `place ${ids.indexOf(String(id)) + 1} of ${ids.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${labelOf(active.id)} taken up, ${placeOf(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${labelOf(active.id)} over ${placeOf(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => `${labelOf(active.id)} put down${over ? `, ${placeOf(over.id)}` : ""}.`,
    onDragCancel: ({ active }) => `${labelOf(active.id)} stays where it was.`,
  };
  const setColour = ({ value }: Category, color: string | null) => {
    const others = (said?.colours ?? []).filter((c) => c.value !== value);
    change(
      { colours: color === null ? others : [...others, { value, color }] },
      `colour of ${String(value)}`,
    );
  };
  return (
    <>
      <div className="flex items-center gap-2 border-b border-rule px-4 py-2">
        <input
          className="field"
          placeholder="Find …"
          aria-label="Find a category"
          value={found}
          onChange={(e) => setFound(e.target.value)}
        />
        <button
          type="button"
          className="button"
          disabled={order.length === 0}
          onClick={() => change({ order: [] })}
        >
          Sort them again
        </button>
      </div>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements, screenReaderInstructions: HOW_TO_MOVE }}
        onDragEnd={onDragEnd}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ul aria-label="Categories" className="min-h-0 flex-1 overflow-auto p-3">
            {shown.map((category) => {
              const id = categoryKey(category.value);
              return (
                <CategoryRow
                  key={id}
                  id={id}
                  category={category}
                  onColour={(color) => setColour(category, color)}
                />
              );
            })}
            {shown.length === 0 && <li className="p-2 text-muted">No category has that name.</li>}
          </ul>
        </SortableContext>
      </DndContext>
      {places.of > MOST && (
        <p className="border-t border-rule px-4 py-2 text-sm text-muted">
          These are the first {MOST} of {places.of.toLocaleString("en")}.
        </p>
      )}
    </>
  );
}

/** The categories of one column: their order and their colours, the same in every visual of the project. */
export function CategoriesDialog() {
  const { of, opener, close } = useCategoriesDialog();
  return (
    <Dialog.Root open={of !== null} onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          onEscapeKeyDown={stayForField}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            opener?.focus();
          }}
          className="fixed top-1/2 left-1/2 z-50 flex max-h-[86vh] w-[460px] max-w-[calc(100vw-16px)] -translate-x-1/2 -translate-y-1/2 flex-col rounded-md border border-rule bg-sheet shadow-stage"
        >
          <div className="flex items-start gap-2 border-b border-rule px-4 py-3">
            <div className="min-w-0 flex-1">
              <Dialog.Title className="truncate text-md">
                Categories of {of?.column}
                {of?.by ? `, by ${of.by}` : ""}
              </Dialog.Title>
              <Dialog.Description className="text-sm text-muted">
                Their own order and their colours, in every visual of the project.
              </Dialog.Description>
            </div>
            <Dialog.Close className="icon-button size-7" aria-label="Close">
              <X size={15} />
            </Dialog.Close>
          </div>
          {of && <Categories of={of} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
