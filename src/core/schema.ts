import { z } from 'zod';

// Compiling schemas needs `eval`, which the pages' policy forbids: already trying whether it is there is reported.
z.config({ jitless: true });

export { z };
