/** What can be done with an item of a list. */
export interface ItemAction {
  label: string;
  run: () => void;
}
/** A menu that is open: what it is about, and where. */
export interface OpenMenu {
  name: string;
  actions: ItemAction[];
  x: number;
  y: number;
  opener: HTMLElement;
}
