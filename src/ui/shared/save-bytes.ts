/** Hands bytes to the person as a file to save. */
export function saveBytes(bytes: Uint8Array, name: string, type: string): void {
  const address = URL.createObjectURL(new Blob([new Uint8Array(bytes)], { type }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name.replace(/[\\/:*?"<>|\r\n]+/g, "-");
  link.click();
  URL.revokeObjectURL(address);
}
