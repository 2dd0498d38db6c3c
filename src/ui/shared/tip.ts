/** What is told of an element: a text beside it. */
export interface Tip {
  text: string;
  box: { left: number; top: number; width: number; height: number };
}
