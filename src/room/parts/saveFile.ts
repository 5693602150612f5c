/** Hands bytes to the browser as a download. */
export function saveFile(name: string, bytes: BlobPart, type: string): void {
  const url = URL.createObjectURL(new Blob([bytes], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 30_000);
}

/** A title as a file name. */
export const fileName = (title: string, ending: string): string =>
  `${
    title
      .trim()
      .replace(/[^\p{L}\p{N} _-]+/gu, '')
      .replace(/\s+/g, '-')
      .toLowerCase() || 'painting'
  }.${ending}`;
