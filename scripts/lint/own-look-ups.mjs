// A lint rule: a name that comes from outside is looked up by `own(table, name)`, or in a Map. A plain look-up in an object also
// finds what every object inherits, so that a file called “a.constructor” had a function for its media type.
import ts from 'typescript';

/** @type {import('eslint').Rule.RuleModule} */
export const ownLookUps = {
  meta: {
    type: 'problem',
    schema: [{ enum: ['all', 'tables'] }],
    messages: { inherited: 'Look this name up with own(table, name), or in a Map: an object also finds what it inherits.' },
  },
  create(context) {
    const services = context.sourceCode.parserServices;
    const checker = services.program.getTypeChecker();
    const [which = 'all'] = context.options;
    const isTable = (node) => {
      if (node.type !== 'Identifier') return false;
      const declared = checker.getSymbolAtLocation(services.esTreeNodeToTSNodeMap.get(node))?.valueDeclaration;
      return (
        declared !== undefined &&
        ts.isVariableDeclaration(declared) &&
        ts.isSourceFile(declared.parent.parent.parent) &&
        declared.initializer !== undefined &&
        ts.isObjectLiteralExpression(declared.initializer)
      );
    };
    return {
      MemberExpression(node) {
        if (!node.computed || node.property.type === 'Literal' || isWritten(node)) return;
        const key = checker.getTypeAtLocation(services.esTreeNodeToTSNodeMap.get(node.property));
        if ((key.flags & ts.TypeFlags.String) === 0) return;
        const object = checker.getNonNullableType(checker.getTypeAtLocation(services.esTreeNodeToTSNodeMap.get(node.object)));
        if (checker.isArrayType(object) || (which === 'tables' && !isTable(node.object))) return;
        context.report({ node, messageId: 'inherited' });
      },
    };
  },
};

const isWritten = ({ parent, ...node }) =>
  (parent.type === 'AssignmentExpression' && parent.left.range === node.range) ||
  (parent.type === 'UnaryExpression' && parent.operator === 'delete') ||
  parent.type === 'UpdateExpression';
