import { commandSchema, type Command } from '@/core/commands/commands';
import { digest } from '@/core/journal/digest';
import { Studio } from '@/core/journal/studio';
import { studioFor } from '@/measure/bench';
import { DirectHandStore } from '@/engine/hand/handStore';
import { HandLog, type HandMessage } from '@/engine/hand/handLog';
import { EngineHost } from './host';
import type { FromWorker, ToWorker } from './protocol';
import { isAbout, type About, type Answers, type Question, type Reply } from './questions';
import { nextSession, readJournal, writePainting } from '@/engine/keeping/shelf';
import type { PaintingRecord } from '@/engine/keeping/paintingRecord';

let made = 0;

/** A small painting on the rack. */
export async function onTheRack(kind: 'linen-fine' | 'paper-cold' = 'linen-fine'): Promise<PaintingRecord> {
  const id = `hosted-${++made}`;
  const { spec } = studioFor(26, 20, { ppi: 90, surface: { kind } });
  const record: PaintingRecord = { id, title: id, createdAt: made, spec, photos: [] };
  await writePainting(record);
  return record;
}

/** A page without a browser, for tests: what it says to an engine host, and what it hears. */
export class Page {
  readonly heard: FromWorker[] = [];
  private readonly host: EngineHost;
  private question = 0;
  private readonly answers = new Map<number, (reply: Reply) => void>();
  log: HandLog | undefined;
  /** Whether what the hand says reaches the worker. */
  connected = true;

  private constructor(readonly painting: string) {
    this.host = new EngineHost((message) => {
      this.heard.push(message);
      if (message.say === 'answer') this.answers.get(message.id)?.(message);
      if (message.say === 'kept') this.log?.acknowledge(message.said);
      if (message.say === 'pixels') this.say({ say: 'shown' });
    });
  }

  static async open(painting: string, looking = false): Promise<Page> {
    const page = new Page(painting);
    if (!looking) {
      page.log = new HandLog(painting, await nextSession(painting), new DirectHandStore(0), () => {});
      await page.log.takeOver();
    }
    page.say({ say: 'open', painting, session: page.log?.session });
    return page;
  }

  say(message: ToWorker): void {
    this.host.receive(structuredClone(message));
  }

  hand(message: HandMessage): void {
    const said = this.log!.say(message);
    if (this.connected) this.say({ ...message, said });
  }

  act(command: Command): void {
    if (command.do !== 'stroke') {
      this.hand({ say: 'command', command });
      return;
    }
    this.hand({ say: 'stroke-begin', on: command.on });
    for (let i = 0; i < command.samples.length; i += 3) {
      this.hand({ say: 'stroke-samples', samples: command.samples.slice(i, i + 3), newest: 0 });
    }
    this.hand({ say: 'stroke-end' });
  }

  ask<K extends About>(question: Question<K> & Question): Promise<Answers[K]> {
    const id = ++this.question;
    return new Promise((resolve) => {
      this.answers.set(id, (reply) => {
        if (isAbout<K>(reply, question.of)) resolve(reply.answer);
      });
      this.say({ say: 'ask', id, question });
    });
  }

  /** Everything that was said is worked off and stored. */
  async settled(): Promise<string> {
    await this.until('bench');
    const { digest: state } = await this.ask({ of: 'state' });
    await this.ask({ of: 'kept' });
    return state;
  }

  async until(what: FromWorker['say']): Promise<void> {
    while (!this.heard.some(({ say }) => say === what)) await pause(5);
  }
}

export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** What the stored journal leads to. */
export async function replayed(record: PaintingRecord): Promise<string> {
  const studio = new Studio(record.spec);
  for (const entry of (await readJournal(record.id)).entries) studio.apply(commandSchema.parse(entry));
  return digest(studio);
}
