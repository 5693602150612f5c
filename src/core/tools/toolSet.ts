import type { ToolDefinition } from './definition';

/** Definitions of tools by their ids. */
export class ToolSet<Id extends string = string> {
  /** @throws Error when two have the same seed: their hairs would be the same */
  constructor(private readonly tools: Readonly<Record<Id, ToolDefinition>>) {
    const seeds = new Set(this.all.map(([, { seed }]) => seed));
    if (seeds.size < this.all.length) throw new Error('Two tools have the same seed.');
  }

  /** This set and more. */
  with<More extends string>(more: Readonly<Record<More, ToolDefinition>>): ToolSet<Id | More> {
    return new ToolSet({ ...this.tools, ...more } as Record<Id | More, ToolDefinition>);
  }

  get ids(): readonly Id[] {
    return Object.keys(this.tools) as Id[];
  }
  get all(): readonly (readonly [Id, ToolDefinition])[] {
    return Object.entries<ToolDefinition>(this.tools) as [Id, ToolDefinition][];
  }

  has(id: string): id is Id {
    return Object.hasOwn(this.tools, id);
  }

  of(id: Id): ToolDefinition {
    return this.tools[id];
  }
}
