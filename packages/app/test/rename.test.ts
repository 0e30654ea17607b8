import { describe, expect, it } from 'vitest';
import {
  changeAddress,
  checkAppFile,
  compileApp,
  patchSource,
  readAddress,
  renameChoice,
  renamePage,
  renameParameter,
  writeAddress,
  type AppDefinition,
  type PatchOperation,
} from '../src/index.ts';

const source = `
pallmist: 1
app: garden
title: Garden
mount: /garden
choices:
  health: { thriving: Thriving, poorly: { label: Poorly, formerValues: [sick] } } # as on the labels
  tab: { overview: Overview, care: Care }
collections:
  plants: { keyField: code, fields: { code: { type: text }, health: { type: choice, of: health } } }
navigation: [{ text: Poorly, to: { page: list, values: { health: poorly } } }]
pages:
  list:
    title: "{has(param.health) && param.health == 'poorly' ? 'Poorly' : 'All'}"
    address: /plants{?q,health,kinds}
    parameters:
      q: { type: text, resets: [health], formerNames: [search] } # typed
      health: { type: choice, of: health, sample: poorly }
      kinds: { type: list, items: { type: choice, of: health }, default: [poorly] }
    rows: { found: { from: plants, where: [{ field: health, equals: poorly }, { field: code, contains: "{param.q}" }] } }
    content:
      - { show: search, bind: q, label: Search }
      - { show: table, rows: found, label: Plants, link: { page: plant, values: { plant: "{row.code}", tab: care } }, columns: [{ field: code, text: "{row.health == 'poorly' ? '!' : ''}{row.code}" }] }
  plant:
    title: Plant
    address: /plants/{plant}{?tab}
    parameters: { plant: { type: record, of: plants }, tab: { type: choice, of: tab, default: overview } }
    content:
      - { show: back, text: Back, to: { page: list }, when: has(previous.page) && previous.page == "list" }
      - { show: tabs, bind: tab, label: Parts, panes: { overview: [], care: [] } }
`;

/** The app after a patch, which has to pass the check with no new problem. */
function after(patch: (definition: AppDefinition) => PatchOperation[]) {
  const { definition } = checkAppFile(source);
  if (!definition) throw new Error('The app of the test is wrong.');
  const text = patchSource(source, patch(definition));
  const { definition: changed, problems } = checkAppFile(text);
  expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
  if (!changed) throw new Error(text);
  const { app } = compileApp(changed);
  return { text, changed, app, read: (address: string) => readAddress(app, address) };
}

describe('what is renamed works on in addresses of the past', () => {
  it('a parameter', () => {
    const { text, changed, read, app } = after((definition) => renameParameter(definition, 'list', 'q', 'words'));
    expect(read('/garden/plants?q=fern')).toMatchObject({ former: true, values: { words: 'fern' } });
    expect(read('/garden/plants?search=fern').values['words']).toBe('fern');
    expect(writeAddress(app, 'list', { words: 'fern' }).address).toBe('/garden/plants?words=fern');
    expect(changed.pages['list']?.parameters?.['words']?.formerNames).toEqual(['search', 'q']);
    expect(text).toContain('# typed');
  });

  it('a parameter and back again', () => {
    const { definition } = checkAppFile(source);
    const once = patchSource(source, definition ? renameParameter(definition, 'list', 'q', 'words') : []);
    const there = checkAppFile(once).definition;
    const twice = patchSource(once, there ? renameParameter(there, 'list', 'words', 'q') : []);
    expect(checkAppFile(twice).problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    expect(checkAppFile(twice).definition?.pages['list']?.parameters?.['q']?.formerNames).toEqual(['search', 'words']);
  });

  it('a parameter in the path, whose name is in no address', () => {
    const { changed, read } = after((definition) => renameParameter(definition, 'plant', 'plant', 'code'));
    expect(read('/garden/plants/P-1').values['code']).toBe('P-1');
    expect(changed.pages['plant']?.parameters?.['code']).not.toHaveProperty('formerNames');
  });

  it('a choice', () => {
    const { text, changed, read, app } = after((definition) => renameChoice(definition, 'health', 'poorly', 'ailing'));
    for (const former of ['poorly', 'sick', 'Poorly', 'SICK'])
      expect(read(`/garden/plants?health=${former}`)).toMatchObject({ former: true, values: { health: 'ailing' } });
    expect(text).toContain('# as on the labels');
    expect(text.match(/poorly/g)).toHaveLength(1);
    expect(changed.pages['list']?.parameters?.['kinds']?.default).toEqual(['ailing']);
    expect(writeAddress(app, 'list', { health: 'ailing' }).address).toBe('/garden/plants?health=ailing');
  });

  it('a page', () => {
    const { text, app } = after((definition) => renamePage(definition, 'list', 'plants'));
    expect(writeAddress(app, 'list', {}).address).toBe('/garden/plants');
    expect(text).not.toMatch(/page: list|== "list"/);
  });

  it('an address', () => {
    const { read } = after((definition) =>
      changeAddress(definition, 'plant', '/specimens{?plant,tab}'.replace('{?plant,tab}', '/{plant}{?tab}')),
    );
    expect(read('/garden/plants/P-1?tab=care')).toMatchObject({ page: 'plant', former: true, values: { plant: 'P-1', tab: 'care' } });
    expect(read('/garden/specimens/P-1')).toMatchObject({ page: 'plant', former: false });
  });

  it('an address whose path parameter stands in the query now, and the other way round', () => {
    const moved = after((definition) => changeAddress(definition, 'plant', '/plant{?plant,tab}'));
    expect(moved.read('/garden/plants/P%2F1+2?tab=care')).toMatchObject({
      page: 'plant',
      former: true,
      status: 'found',
      values: { plant: 'P/1+2', tab: 'care' },
    });
    const back = after(() => [
      { op: 'add', path: '/pages/plant/formerAddresses', value: ['/show{?plant,tab}'] },
      { op: 'add', path: '/pages/list/formerAddresses', value: ['/search/{q}'] },
    ]);
    expect(back.read('/garden/show?tab=care&plant=P-1')).toMatchObject({ former: true, values: { plant: 'P-1', tab: 'care' } });
    expect(back.read('/garden/search/fern?health=poorly&new=1')).toMatchObject({
      former: true,
      values: { q: 'fern', health: 'poorly' },
      undeclared: [{ name: 'new', text: '1' }],
    });
    const { problems } = checkAppFile(source.replace('    title: Plant\n', "    title: Plant\n    formerAddresses: ['/show']\n"));
    expect(problems.map(({ code }) => code)).toContain('former-address-incomplete');
  });

  it('unless the builder says no', () => {
    const { read } = after((definition) => renameParameter(definition, 'list', 'q', 'words', false));
    expect(read('/garden/plants?q=fern').values).not.toHaveProperty('words');
    const { read: readChoice } = after((definition) => renameChoice(definition, 'health', 'thriving', 'well', false));
    expect(readChoice('/garden/plants?health=thriving').problems[0]?.code).toBe('unknown-choice');
  });
});
