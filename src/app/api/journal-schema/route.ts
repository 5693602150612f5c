import { journalJsonSchema } from '@/core/journal/replay';

/** The JSON Schema of journals, for whoever writes one. */
export function GET(): Response {
  return Response.json(journalJsonSchema());
}
