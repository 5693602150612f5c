import { foreignTo } from '@/ownHost';

/** What a part of the address stands for, by its name. */
interface Context {
  readonly params: Promise<Record<string, string>>;
}
type Handler = (message: Request, parts: Record<string, string>) => Response | Promise<Response>;

/**
 * A route that answers this app's own pages only. Routes see to it themselves: where the proxy looks at a request, the
 * framework reads the whole body before the route can refuse it.
 */
export const forOwnPages =
  (answer: Handler) =>
  async (message: Request, context?: Context): Promise<Response> => {
    const foreign = foreignTo(message.headers);
    return foreign ? Response.json({ why: foreign }, { status: 403 }) : answer(message, (await context?.params) ?? {});
  };
