/** "and 3 more": how many others there are; nothing where there are none. */
export const andMore = (count: number): string => (count > 0 ? `and ${count} more` : "");

/** "and 3 more that do not fit". */
export const doNotFit = (count: number): string => (count > 0 ? `${andMore(count)} that do not fit` : "");
