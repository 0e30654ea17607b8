import { link, name, text } from '../../definition/schema-parts.ts';
import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';

export const list = componentKind({
  name: 'list',
  label: 'List of cards',
  sentence: 'Shows each row as a card with a text, a detail and a picture.',
  example: { rows: 'houses', label: 'Houses', text: '{row.name}', detail: '{row.climate}', image: '{row.picture}' },
  fields: {
    rows: name.describe('The rows of the page that are shown'),
    label: text.describe('What is listed'),
    text: text.describe('What each entry says first'),
    detail: text.optional().describe('What it says below'),
    image: text.optional().describe('Name of a file in the folder “images” beside the app file'),
    link: link.optional().describe('Where an entry leads'),
    empty: text.optional().describe('The text to show when there are no rows'),
    beforeSearch: text.optional().describe('The text to show before a search'),
  },
  refersTo(component, references) {
    const { rows: row } = component;
    references.textsOf(component, ['label', 'empty', 'beforeSearch']);
    references.textsOf(component, ['text', 'detail', 'image'], { row });
    references.rowsOf(row);
    references.link(['link'], component.link, { row });
  },
  check: nothingElse,
});
