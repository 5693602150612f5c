/**
 * ESLint rule: a view of the arena must not outlive an allocation.
 *
 * `arena.f32` and its like are replaced when the memory grows. A view that was read before a call that may allocate is
 * too short afterwards (shared memory) or detached (unshared memory). The rule reports
 *  - `arena.f32.set(data, placeThatAllocates())` and `arena.f32[i] = placeThatAllocates()`, where the view is evaluated
 *    first: `arena.write(address, data)` reads it last;
 *  - a local variable that holds a view and is used after such a call, or anywhere in a loop that contains one.
 */
const VIEWS = new Set(['f32', 'i32', 'u32', 'u16', 'u8']);
/** Methods that make planes, rasters or whole tiles. Functions that only pass through them are covered by name below. */
const ALLOCATES = new Set([
  'allocate',
  'plane',
  'massPlane',
  'resistPlane',
  'wet',
  'skinned',
  'curing',
  'setStrata',
  'restore',
  'newBasin',
  'restoreTile',
  'restoreWash',
  'sealTile',
  'ensureBasin',
]);

const calledName = ({ callee }) =>
  callee.type === 'Identifier' ? callee.name : callee.type === 'MemberExpression' ? callee.property.name : undefined;
const isView = (node) => node?.type === 'MemberExpression' && !node.computed && VIEWS.has(node.property.name);
const isFunction = (node) => /Function/.test(node.type);
const isLoop = (node) => /^(For|While|DoWhile)/.test(node.type);

export const staleView = {
  meta: {
    type: 'problem',
    messages: {
      set: 'The view is read before its arguments, which may make the memory grow: use arena.write(address, data).',
      assign: 'The view is read before the value, which may make the memory grow: work the value out first.',
      kept: '"{{name}}" was read before "{{call}}", which may make the memory grow: read it afresh.',
    },
    schema: [],
  },
  create(context) {
    const { sourceCode } = context;
    const calls = [];
    const held = [];
    const parents = (node) => sourceCode.getAncestors(node);
    const functionOf = (node) => parents(node).findLast(isFunction);
    const mayAllocate = (node) =>
      sourceCode.getTokens(node).some((t, i, all) => ALLOCATES.has(t.value) && all[i + 1]?.value === '(');
    const within = (inner, outer) => inner.range[0] >= outer.range[0] && inner.range[1] <= outer.range[1];
    return {
      CallExpression(node) {
        const name = calledName(node);
        if (name === 'set' && node.callee.type === 'MemberExpression') {
          const { object } = node.callee;
          const local = object.type === 'Identifier' && VIEWS.has(object.name);
          if (isView(object) || (local && node.arguments.some(mayAllocate))) context.report({ node, messageId: 'set' });
        }
        if (ALLOCATES.has(name)) calls.push({ node, name });
      },
      AssignmentExpression({ left, right }) {
        if (left.type !== 'MemberExpression' || !left.computed || !isView(left.object)) return;
        if (mayAllocate(right)) context.report({ node: right, messageId: 'assign' });
      },
      VariableDeclarator(node) {
        const { id, init } = node;
        const names =
          id.type === 'ObjectPattern'
            ? id.properties.filter((p) => p.type === 'Property' && VIEWS.has(p.key.name)).map((p) => p.value)
            : id.type === 'Identifier' && isView(init)
              ? [id]
              : [];
        for (const name of names) if (name.type === 'Identifier') held.push({ node, name });
      },
      'Program:exit'() {
        for (const { node, name } of held) {
          const home = functionOf(node);
          const variable = sourceCode.getDeclaredVariables(node).find((v) => v.name === name.name);
          for (const { node: call, name: method } of calls) {
            if (call.range[0] < node.range[1] || functionOf(call) !== home) continue;
            const loops = parents(call).filter((p) => isLoop(p) && !within(node, p));
            const used = variable?.references.find(
              ({ identifier: use }) =>
                use !== name &&
                functionOf(use) === home &&
                (use.range[0] > call.range[1] || within(use, call) || loops.some((loop) => within(use, loop))) &&
                !within(use, { range: [call.callee.range[0], call.callee.range[1]] }),
            );
            if (!used) continue;
            context.report({
              node: used.identifier,
              messageId: 'kept',
              data: { name: name.name, call: method },
            });
            break;
          }
        }
      },
    };
  },
};
