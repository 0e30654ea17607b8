import type { ChoiceDefinition } from '@pallmist/address';

/** A choice as people read it. */
export const choiceLabel = (definition: ChoiceDefinition): string => (typeof definition === 'string' ? definition : definition.label);
