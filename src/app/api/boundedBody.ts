/** Why a body was not read: it is too long, or does not come. */
export class BodyRefused extends Error {
  constructor(readonly status: 408 | 413) {
    super(status === 413 ? 'That is more than can be taken.' : 'Nothing more came for too long.');
  }
}

/** The text of a request's body. @param bytes most bytes, @param ms most time @throws BodyRefused */
export const boundedText = async (message: Request, bytes: number, ms: number): Promise<string> =>
  new TextDecoder().decode(await boundedBytes(message, bytes, ms));

/**
 * A request's body, read no farther than it may be long and no longer than it may take.
 * @param bytes most bytes, @param ms most time
 * @throws BodyRefused
 */
export async function boundedBytes(message: Request, bytes: number, ms: number): Promise<Uint8Array<ArrayBuffer>> {
  if (Number(message.headers.get('content-length') ?? 0) > bytes) throw new BodyRefused(413);
  if (!message.body) return new Uint8Array();
  const reader = message.body.getReader();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new BodyRefused(408)), ms);
  });
  const parts: Uint8Array[] = [];
  let length = 0;
  try {
    for (;;) {
      const { done, value } = await Promise.race([reader.read(), late]);
      if (done) break;
      length += value.byteLength;
      if (length > bytes) throw new BodyRefused(413);
      parts.push(value);
    }
    const body = new Uint8Array(length);
    parts.reduce((at, part) => {
      body.set(part, at);
      return at + part.length;
    }, 0);
    return body;
  } catch (error) {
    void reader.cancel().catch(() => {});
    throw error;
  } finally {
    clearTimeout(timer);
  }
}
