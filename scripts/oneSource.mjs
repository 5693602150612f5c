/** ESLint rule: a module is imported through the one file that sets it up. */
export const oneSource = {
  meta: {
    type: 'problem',
    messages: { through: 'Import this from "{{instead}}", where it is set up.' },
    schema: [{ type: 'object', properties: { module: { type: 'string' }, instead: { type: 'string' } } }],
  },
  create(context) {
    const [{ module, instead }] = context.options;
    return {
      ImportDeclaration(node) {
        if (node.source.value === module) context.report({ node, messageId: 'through', data: { instead } });
      },
    };
  },
};
