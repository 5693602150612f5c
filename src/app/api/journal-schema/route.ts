import { forOwnPages } from '../forOwnPages';
import { journalJsonSchema } from '@/core/journal/replay';

/** The JSON Schema of journals, for whoever writes one. */
export const GET = forOwnPages(() => Response.json(journalJsonSchema()));
