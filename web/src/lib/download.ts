const HELD_MS = 1000; // the browser has begun to write by then

/** Give the maker a file to keep. */
export function download(name: string, content: string | Blob, type = ""): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), HELD_MS);
}
