import { utcDay } from '../../clock.ts';
import type { VisitCount, VisitStore } from '../visits.ts';
import type { Connection } from './connection.ts';
import { VisitEntity } from './entities.ts';

/** Values come from strangers: beyond so many of an app on a day they are counted together. */
const mostValues = 500;
const others = '(others)';
const mostListed = 5000;

export class TypeormVisitStore implements VisitStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  came(app: string, texts: Record<string, string>): Promise<void> {
    return this.#count(app, texts, 'came');
  }

  formSent(app: string, texts: Record<string, string>): Promise<void> {
    return this.#count(app, texts, 'formsSent');
  }

  list(app: string): Promise<VisitCount[]> {
    return this.#on.reader.find(VisitEntity, {
      select: { parameter: true, value: true, day: true, came: true, formsSent: true },
      where: { app },
      order: { day: 'DESC', parameter: 'ASC', came: 'DESC' },
      take: mostListed,
    });
  }

  async #count(app: string, texts: Record<string, string>, column: 'came' | 'formsSent'): Promise<void> {
    const day = utcDay(this.#on.clock);
    if (Object.keys(texts).length === 0) return;
    await this.#on.write(async (manager) => {
      for (const [parameter, text] of Object.entries(texts)) {
        const wanted = { app, parameter, value: text.slice(0, 200), day };
        const known = await manager.existsBy(VisitEntity, wanted);
        const full = !known && (await manager.countBy(VisitEntity, { app, day })) >= mostValues;
        const counted = full ? { ...wanted, value: others } : wanted;
        const { affected } = await manager.increment(VisitEntity, counted, column, 1);
        if (affected === 0) await manager.insert(VisitEntity, { came: 0, formsSent: 0, ...counted, [column]: 1 });
      }
    });
  }
}
