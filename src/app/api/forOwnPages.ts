import { foreignTo } from '@/ownHost';

type Handler = (message: Request) => Response | Promise<Response>;

/**
 * A route that answers this app's own pages only. Routes see to it themselves: where the proxy looks at a request, the
 * framework reads the whole body before the route can refuse it.
 */
export const forOwnPages =
  (answer: Handler): Handler =>
  (message) => {
    const foreign = foreignTo(message.headers);
    return foreign ? Response.json({ why: foreign }, { status: 403 }) : answer(message);
  };
