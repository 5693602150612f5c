/**
 * Serves the built app.
 *   node scripts/serve.mjs PORT
 * Methods that no page and no route answers are refused before the framework sees them: TRACE and CONNECT make it fail.
 */
import { createServer } from 'node:http';
import { fileURLToPath } from 'node:url';

const HOST = '127.0.0.1';
const ANSWERED = ['GET', 'HEAD', 'POST', 'OPTIONS'];
/** Longest time in which a request has to be there with its headers, and as a whole; and how often that is looked at, ms. */
const LIMITS = { headersTimeout: 10_000, requestTimeout: 20_000, connectionsCheckingInterval: 1000 };

const port = Number(process.argv[2]);
if (!Number.isInteger(port) || port < 1 || port > 65535) {
  console.error('usage: node scripts/serve.mjs PORT');
  process.exit(2);
}
process.env.NODE_ENV = 'production';
const { default: next } = await import('next');
const app = next({ dev: false, dir: fileURLToPath(new URL('..', import.meta.url)), hostname: HOST, port });
const answer = app.getRequestHandler();
const server = createServer(LIMITS, (request, response) => {
  if (ANSWERED.includes(request.method ?? '')) {
    void answer(request, response);
    return;
  }
  response.writeHead(405, { Allow: ANSWERED.join(', '), 'Content-Type': 'text/plain' });
  response.end(`${request.method} is not answered here.\n`);
});
server.on('error', (error) => {
  console.error(`stigmos: ${error.message}`);
  process.exit(1);
});
await app.prepare();
server.listen(port, HOST);
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(0));
