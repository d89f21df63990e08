/** Hands a file to the browser to be saved; letters that file systems dislike become hyphens. */
export function saveFile(name: string, content: Blob): void {
  const dot = name.lastIndexOf('.');
  const stem = name
    .slice(0, dot)
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, '-');
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = `${stem}${name.slice(dot)}`;
  link.click();
  URL.revokeObjectURL(link.href);
}
