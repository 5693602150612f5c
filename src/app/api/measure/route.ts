import { z } from '@/core/schema';
import { pigmentSpectrum } from '@/core/colour/spectrum';
import { writeCgats } from '@/core/formats/cgats';
import { writeCxf } from '@/core/formats/cxf';
import { ownPaintSchema } from '@/core/journal/journalSchema';
import { mixtureSchema } from '@/core/schemaParts';
import { measurePaint } from '@/devices/spectrometer';
import { boundedText, BodyRefused } from '../boundedBody';
import { forOwnPages } from '../forOwnPages';

const request = z.strictObject({
  name: z.string().trim().min(1).max(80),
  mixture: mixtureSchema,
  /** Own paints that the mixture needs. */
  paints: z.array(ownPaintSchema).max(4).default([]),
  whiteParts: z.number().min(0.5).max(100).default(10),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31 - 1),
  format: z.enum(['cgats', 'cxf']).default('cgats'),
});

const MAX_BYTES = 64_000;
const MAX_MS = 10_000;

/**
 * The simulated measuring device: takes a mixture, gives the file that such a device would write. It keeps nothing from
 * one request to the next.
 */
export const POST = forOwnPages(async (message) => {
  const refuse = (why: string, status = 400) => Response.json({ why }, { status });
  let text: string;
  try {
    text = await boundedText(message, MAX_BYTES, MAX_MS);
  } catch (error) {
    if (!(error instanceof BodyRefused)) throw error;
    const why = error.status === 413 ? 'That is more than the device can take.' : 'The device waited too long.';
    return refuse(why, error.status);
  }
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return refuse('The device was told nothing that it understands.');
  }
  const read = request.safeParse(data);
  if (!read.success) {
    const [issue] = read.error.issues;
    return refuse(`The device cannot measure this: "${issue.path.join('.')}" is not right (${issue.message}).`);
  }
  const { name, mixture, paints, whiteParts, seed, format } = read.data;
  const brought = new Map(paints.map((paint) => [paint.id, paint]));
  const spectrumOf = (id: string) => brought.get(id) ?? pigmentSpectrum(id);
  const unknown = Object.keys(mixture).find((id) => !spectrumOf(id));
  if (unknown) return refuse(`The device does not know the paint "${unknown}".`);
  const samples = measurePaint(name, mixture, whiteParts, seed, spectrumOf);
  const body = format === 'cgats' ? writeCgats(samples, name, new Date()) : writeCxf(samples, name, new Date());
  return new Response(body, {
    headers: { 'content-type': format === 'cgats' ? 'text/plain; charset=utf-8' : 'application/xml; charset=utf-8' },
  });
});
