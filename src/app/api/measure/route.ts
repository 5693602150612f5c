import { z } from 'zod';
import { pigmentSpectrum, placeSpectrum } from '@/core/colour/spectrum';
import { writeCgats } from '@/core/formats/cgats';
import { writeCxf } from '@/core/formats/cxf';
import { ownPaintSchema } from '@/core/journal/commands';
import { mixtureSchema } from '@/core/journal/parts';
import { measurePaint } from '@/devices/spectrometer';

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

/** The simulated measuring device: takes a mixture, gives the file that such a device would write. */
export async function POST(message: Request): Promise<Response> {
  const refuse = (why: string) => Response.json({ why }, { status: 400 });
  const text = await message.text();
  if (text.length > MAX_BYTES) return refuse('That is more than the device can take.');
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
  for (const paint of paints) placeSpectrum(paint.id, paint);
  const unknown = Object.keys(mixture).find((id) => !pigmentSpectrum(id));
  if (unknown) return refuse(`The device does not know the paint "${unknown}".`);
  const samples = measurePaint(name, mixture, whiteParts, seed);
  const body = format === 'cgats' ? writeCgats(samples, name, new Date()) : writeCxf(samples, name, new Date());
  return new Response(body, {
    headers: { 'content-type': format === 'cgats' ? 'text/plain; charset=utf-8' : 'application/xml; charset=utf-8' },
  });
}
