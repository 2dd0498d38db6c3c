/** What a formula would make is larger than is allowed; the message says what to do. */
export class LimitError extends Error {}
