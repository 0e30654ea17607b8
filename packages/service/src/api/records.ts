import { RecordGrid } from '../apps/record-grid.ts';
import { RecordResource, type TaggedRecord } from '../apps/record-resource.ts';
import type { ServiceParts } from '../service-parts.ts';
import { wantedTags } from './entity-tags.ts';
import type { Call, Handlers } from './handlers.ts';
import { queryOf } from './query.ts';

type Names = 'findRecords' | 'changeRecords' | 'listRecords' | 'addRecord' | 'getRecord' | 'changeRecord' | 'removeRecord';

/** Records: as texts for the console’s grid, as typed values for programs. */
export function recordHandlers({ store, live }: ServiceParts): Pick<Handlers, Names> {
  const grid = new RecordGrid(store, live);
  const resource = new RecordResource(store, live);
  const answer = ({ response }: Pick<Call<'getRecord'>, 'response'>, { key, record, tag }: TaggedRecord) => {
    response.setHeader('etag', tag);
    return { key, record };
  };
  return {
    findRecords: ({ parameters: { app = '', collection = '' }, body }) => grid.find(app, collection, body),
    changeRecords: async ({ parameters: { app = '', collection = '' }, body }) => ({
      results: await grid.change(app, collection, body.changes),
    }),
    listRecords: ({ parameters: { app = '', collection = '' }, request }) => resource.list(app, collection, queryOf(request)),
    async addRecord(call) {
      const { app = '', collection = '' } = call.parameters;
      return answer(call, await resource.add(app, collection, call.body.record));
    },
    async getRecord(call) {
      const { app = '', collection = '', key = '' } = call.parameters;
      return answer(call, await resource.one(app, collection, key));
    },
    async changeRecord(call) {
      const { app = '', collection = '', key = '' } = call.parameters;
      return answer(call, await resource.change(app, collection, key, call.body.record, wantedTags(call.request)));
    },
    async removeRecord({ parameters: { app = '', collection = '', key = '' }, request }) {
      await resource.remove(app, collection, key, wantedTags(request));
      return { done: true };
    },
  };
}
