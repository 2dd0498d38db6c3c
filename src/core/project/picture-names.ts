/** A name as files and categories share it: letters and digits in small letters, all else a space. */
const plain = (name: string) =>
  name
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/**
 * The category that a picture file is named after ("north_quay.svg" is of North Quay), or null where there is
 * none, or more than one.
 */
export function categoryOfFile(fileName: string, categories: readonly string[]): string | null {
  const wanted = plain(fileName.replace(/\.[a-z0-9]{1,5}$/i, ""));
  const found = categories.filter((category) => plain(category) === wanted);
  return wanted !== "" && found.length === 1 ? found[0] : null;
}
