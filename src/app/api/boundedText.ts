/** Why a body was not read: it is too long, or does not come. */
export class BodyRefused extends Error {
  constructor(readonly status: 408 | 413) {
    super(status === 413 ? 'That is more than can be taken.' : 'Nothing more came for too long.');
  }
}

/**
 * The text of a request's body, read no farther than it may be long and no longer than it may take.
 * @param bytes most bytes, @param ms most time
 * @throws BodyRefused
 */
export async function boundedText(message: Request, bytes: number, ms: number): Promise<string> {
  if (Number(message.headers.get('content-length') ?? 0) > bytes) throw new BodyRefused(413);
  if (!message.body) return '';
  const reader = message.body.getReader();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new BodyRefused(408)), ms);
  });
  const decoder = new TextDecoder();
  let text = '';
  let length = 0;
  try {
    for (;;) {
      const { done, value } = await Promise.race([reader.read(), late]);
      if (done) return text + decoder.decode();
      length += value.byteLength;
      if (length > bytes) throw new BodyRefused(413);
      text += decoder.decode(value, { stream: true });
    }
  } catch (error) {
    void reader.cancel().catch(() => {});
    throw error;
  } finally {
    clearTimeout(timer);
  }
}
