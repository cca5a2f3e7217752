/** Hands a file that was made on the page to whoever asked for it. */
export function saveFile(name: string, content: string | Uint8Array, type: string): void {
  const link = window.document.createElement("a");
  link.href = URL.createObjectURL(new Blob([content as string | Uint8Array<ArrayBuffer>], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
