import { zlibSync } from 'fflate';

/** Bytes as they stand in a journal: zlib, base64. */
export const packedBytes = (bytes: Uint8Array): string => Buffer.from(zlibSync(bytes)).toString('base64');
