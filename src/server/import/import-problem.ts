/** A file that cannot be imported, and why, in a sentence for the person who brought it. */
export class ImportProblem extends Error {}
