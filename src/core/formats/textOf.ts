/**
 * Text of a file from elsewhere: UTF-8, or UTF-16 as some measuring programs write it, by its byte-order mark or by
 * where its zero bytes are. The mark is left out.
 */
export function textOf(bytes: Uint8Array): string {
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}

function encodingOf(bytes: Uint8Array): 'utf-8' | 'utf-16le' | 'utf-16be' {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  // without a mark: the first characters of such files are ASCII
  if (a !== 0 && b === 0 && bytes[3] === 0) return 'utf-16le';
  if (a === 0 && b !== 0 && bytes[2] === 0) return 'utf-16be';
  return 'utf-8';
}
