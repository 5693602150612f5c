/** ESLint rule: some modules are imported through the one file that sets each up. */
export const oneSource = {
  meta: {
    type: 'problem',
    messages: { through: 'Import this from "{{instead}}", where it is set up.' },
    schema: [{ type: 'object', additionalProperties: { type: 'string' } }],
  },
  create(context) {
    const [insteadOf] = context.options;
    return {
      ImportDeclaration(node) {
        const instead = insteadOf[node.source.value];
        if (instead) context.report({ node, messageId: 'through', data: { instead } });
      },
    };
  },
};
