import { setImmediate } from 'node:timers/promises';
import type { AppDefinition, FieldTree, PlainRecord, PlannedRead, ReadData, RecordData, SavePlan } from '@pallmist/app';
import { In, Not, type EntityManager } from 'typeorm';
import type {
  Collections,
  Misfit,
  RecordOption,
  RecordSpace,
  RecordStore,
  Saved,
  StagedDifferences,
  StagedRecords,
  ListPart,
} from '../records.ts';
import { copyRows } from '../sqlite/statements.ts';
import type { Connection } from './connection.ts';
import { computeAll, noteComputed, staleColumns, withPresentExpressions } from './computed-columns.ts';
import { RecordColumn, RecordTable } from './entities.ts';
import { RecordChanges } from './record-changes.ts';
import { RecordFitness } from './record-fitness.ts';
import { RecordReader } from './record-reader.ts';
import {
  addFieldColumn,
  byPeople,
  columnsOf,
  createRecordTable,
  followColumn,
  missingTables,
  RecordTables,
  type RecordTableShape,
} from './record-tables.ts';
import { RememberedQueries } from './remembered-queries.ts';
import { spansOf } from './row-spans.ts';
import { TypeormStagedRecords } from './staged-records.ts';
import { VersionedMemory } from './versioned-memory.ts';

/** The records that a draft's forms change. No app is called so. */
const trialSpace = (app: string): RecordSpace => `${app}~draft`;
/** Rows that are removed at a time from a table that is not in use any more. */
const sweptRows = 1000;

/** What all views of the records share: the register of the tables, worded queries, versions. */
export class RecordState {
  readonly tables = new RecordTables();
  readonly queries = new RememberedQueries();
  readonly memory = new VersionedMemory((space) => this.version(space));
  readonly #versions = new Map<string, number>();
  /** How many transactions have changed the register and are not on disk yet. */
  pendingTables = 0;

  version(space: RecordSpace): number {
    return this.#versions.get(space) ?? 0;
  }

  /** Takes over what a transaction has changed, once it is on disk. */
  async follow(manager: EntityManager, { spaces, tables }: ChangeLog): Promise<void> {
    if (tables) {
      await this.tables.load(manager);
      this.queries.clear();
      this.memory.clear();
    }
    for (const space of spaces) this.#versions.set(space, this.version(space) + 1);
  }
}

/** What a transaction has changed. */
export interface ChangeLog {
  spaces: Set<RecordSpace>;
  tables: boolean;
}

/** Runs work on the records inside of a transaction. */
type Transact = <Result>(work: (inside: TypeormRecordStore) => Promise<Result>) => Promise<Result>;

export class TypeormRecordStore implements RecordStore {
  readonly #on: Connection;
  readonly #state: RecordState;
  readonly #reader: RecordReader;
  /** The shared register, or, inside of a transaction, the transaction's own. */
  readonly #tables: RecordTables;
  readonly #log: ChangeLog;
  readonly #transact: Transact;

  /** @param transact left out inside of a transaction */
  constructor(on: Connection, state: RecordState, log: ChangeLog, transact?: Transact) {
    this.#on = on;
    this.#state = state;
    this.#log = log;
    this.#tables = transact ? state.tables : state.tables.copy();
    this.#transact = transact ?? ((work) => work(this));
    this.#reader = new RecordReader(on.reader, this.#tables, state.queries, transact ? state.memory : undefined);
  }

  /** Looks at the register again where a transaction that shares the wait for the disk has changed it. */
  async begin(): Promise<void> {
    if (this.#state.pendingTables > 0) await this.#tables.load(this.#on.reader);
  }

  version = (space: RecordSpace): number => this.#state.version(space);

  count = (space: RecordSpace, collection: string): Promise<number> => this.#reader.count(space, collection);

  byKey(
    space: RecordSpace,
    collections: Collections,
    collection: string,
    key: string,
    options?: { by?: string | undefined; fields?: FieldTree | undefined },
  ): Promise<RecordData | undefined> {
    return this.#reader.byKey(space, collections, collection, key, options);
  }

  read(
    space: RecordSpace,
    collections: Collections,
    read: PlannedRead,
    fields?: FieldTree,
    counted?: readonly string[],
  ): Promise<ReadData> {
    return this.#reader.read(space, collections, read, fields, counted);
  }

  part(
    space: RecordSpace,
    collections: Collections,
    read: Pick<PlannedRead, 'from' | 'where' | 'sort'>,
    limit: number,
    after?: readonly (string | number | null)[],
  ): Promise<ListPart> {
    return this.#reader.part(space, collections, read, limit, after);
  }

  options(space: RecordSpace, collections: Collections, collection: string, by?: string): Promise<RecordOption[]> {
    return this.#reader.options(space, collections, collection, by);
  }

  all(space: RecordSpace, collections: Collections, collection: string): AsyncGenerator<PlainRecord[]> {
    return this.#reader.all(space, collections, collection);
  }

  async prepare(space: RecordSpace, collections: Collections, recompute = false): Promise<void> {
    const stale = recompute ? staleColumns(this.#tables, space, collections) : [];
    if (stale.length === 0 && missingTables(this.#tables, space, collections).length === 0) return;
    await this.#transact((inside) => inside.#prepare(space, collections, recompute));
  }

  async #prepare(space: RecordSpace, collections: Collections, recompute: boolean): Promise<void> {
    const { reader: manager } = this.#on;
    const stale = recompute ? staleColumns(this.#tables, space, collections) : [];
    for (const { shape, field, computed } of stale) await noteComputed(manager, shape, field, computed);
    const added = new Set(stale.map(({ collection }) => collection));
    for (const name of missingTables(this.#tables, space, collections)) {
      const definition = collections[name];
      const shape = this.#tables.live(space, name);
      if (definition === undefined) continue;
      const table = shape ?? (this.#tables.follow(space, name, definition.formerNames ?? []) ? this.#tables.live(space, name) : undefined);
      if (table === undefined) await createRecordTable(manager, space, name, definition, 'live');
      else
        for (const [field, declared] of Object.entries(definition.fields))
          if (!table.columns.has(field) && !(await followColumn(manager, table, field, declared))) {
            await addFieldColumn(manager, table, field, declared);
            if (declared.computed !== undefined) added.add(name);
          }
    }
    await this.#tablesChanged(space);
    await this.#compute(space, added);
  }

  async #compute(space: RecordSpace, collections: Iterable<string>): Promise<void> {
    for (const name of collections) {
      const shape = this.#tables.live(space, name);
      if (shape !== undefined) await computeAll(this.#on.reader, this.#state.queries, shape);
    }
  }

  misfits(space: RecordSpace, app: AppDefinition): Promise<Misfit[]> {
    return new RecordFitness(this.#on.reader, this.#tables, this.#state.queries).misfits(space, app);
  }

  convert(space: RecordSpace, app: AppDefinition): Promise<void> {
    return this.#transact((inside) => inside.#convert(space, app));
  }

  async #convert(space: RecordSpace, app: AppDefinition): Promise<void> {
    for (const collection of Object.keys(app.collections ?? {})) {
      const former = this.#tables.followed(space, collection);
      if (former === undefined) continue;
      await this.#on.reader.update(RecordTable, { space, collection: former, state: 'live' }, { collection });
      await this.#tables.load(this.#on.reader);
    }
    const stale = staleColumns(this.#tables, space, app.collections ?? {});
    for (const { shape, field, computed } of stale) await noteComputed(this.#on.reader, shape, field, computed);
    await new RecordFitness(this.#on.reader, this.#tables, this.#state.queries).convert(space, app);
    await this.#tablesChanged(space);
    await this.#compute(space, new Set(stale.map(({ collection }) => collection)));
  }

  save(space: RecordSpace, collections: Collections, plan: SavePlan): Promise<Saved> {
    return this.#transact((inside) => {
      inside.#log.spaces.add(space);
      return new RecordChanges(inside.#on.reader, inside.#tables, this.#state.queries).save(space, collections, plan);
    });
  }

  async stage(space: RecordSpace, collections: Collections, collection: string): Promise<StagedRecords> {
    const definition = collections[collection];
    if (definition === undefined) throw new RangeError(`There is no collection ${collection}.`);
    const kept = withPresentExpressions(definition, this.#state.tables.live(space, collection));
    const shape = await this.#on.write((manager) => createRecordTable(manager, space, collection, kept, 'staged'));
    return new TypeormStagedRecords(this.#on, this.#state.tables, this.#state.queries, space, collection, shape, definition.fields);
  }

  differences(staged: StagedRecords): Promise<StagedDifferences> {
    return (staged as TypeormStagedRecords).differences(this.#on.reader);
  }

  take(staged: StagedRecords, keepPresent: boolean): Promise<void> {
    return this.#transact(async (inside) => {
      await (staged as TypeormStagedRecords).take(inside.#on.reader, keepPresent);
      await inside.#tablesChanged(staged.space);
    });
  }

  async #tablesChanged(space: RecordSpace): Promise<void> {
    this.#log.spaces.add(space);
    if (!this.#log.tables) this.#state.pendingTables++;
    this.#log.tables = true;
    await this.#tables.load(this.#on.reader);
  }

  async sweep(): Promise<void> {
    const { reader } = this.#on;
    for (const { number } of await reader.findBy(RecordTable, { state: 'dropped' })) {
      const name = `records_${String(number)}`;
      for (;;) {
        const removed = await this.#on.write((manager) =>
          this.#state.queries.affect(manager, `sweep ${name}`, {}, (on) =>
            on
              .createQueryBuilder()
              .delete()
              .from(name)
              .where(`id IN (SELECT id FROM "${name}" LIMIT ${String(sweptRows)})`),
          ),
        );
        await setImmediate();
        if (removed === 0) break;
      }
      await this.#on.write(async (manager) => {
        await manager.queryRunner?.dropTable(name, true);
        await manager.delete(RecordColumn, { table: number });
        await manager.delete(RecordTable, { number });
      });
    }
  }

  draftSpace(app: string): RecordSpace {
    return this.#tables.has(trialSpace(app)) ? trialSpace(app) : app;
  }

  async beginTrial(app: string, collections: Collections): Promise<RecordSpace> {
    const space = trialSpace(app);
    if (this.#tables.has(space)) return space;
    const copies: RecordTableShape[] = [];
    for (const [collection, definition] of Object.entries(collections)) {
      const copy = await this.#on.write((manager) => createRecordTable(manager, space, collection, definition, 'staged'));
      const live = this.#tables.live(app, collection);
      if (live) await this.#copy(live, copy);
      copies.push(copy);
    }
    await this.#transact(async (inside) => {
      await inside.#on.reader.update(RecordTable, { number: In(copies.map(({ number }) => number)) }, { state: 'live' });
      await inside.#tablesChanged(space);
    });
    return space;
  }

  async #copy(live: RecordTableShape, copy: RecordTableShape): Promise<void> {
    const columns: [string, string][] = [[byPeople, byPeople]];
    for (const column of copy.columns.values()) {
      const there = live.columns.get(column.field);
      if (there?.type !== column.type) continue;
      columns.push(...columnsOf(there).map((name, index): [string, string] => [name, columnsOf(column)[index] ?? name]));
    }
    for await (const span of spansOf(this.#on.reader, this.#state.queries, live))
      await this.#on.write((manager) => copyRows(manager, live.name, copy.name, columns, span));
    if ([...copy.columns.values()].some(({ field, computed }) => computed !== live.columns.get(field)?.computed))
      await this.#on.write((manager) => computeAll(manager, this.#state.queries, copy));
    for (const { field, lastSerial } of live.columns.values())
      if (copy.columns.has(field) && lastSerial > 0)
        await this.#on.write((manager) => manager.update(RecordColumn, { table: copy.number, field }, { lastSerial }));
  }

  async endTrial(app: string): Promise<void> {
    const space = trialSpace(app);
    if (!this.#tables.has(space)) return;
    await this.#transact(async (inside) => {
      await inside.#on.reader.update(RecordTable, { space, state: Not('dropped' as const) }, { state: 'dropped' });
      await inside.#tablesChanged(space);
    });
  }

  removeAll(app: string): Promise<void> {
    return this.#transact(async (inside) => {
      for (const space of [app, trialSpace(app)]) {
        await inside.#on.reader.update(RecordTable, { space, state: Not('dropped' as const) }, { state: 'dropped' });
        await inside.#tablesChanged(space);
      }
    });
  }
}
