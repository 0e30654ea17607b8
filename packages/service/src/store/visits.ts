/** How many came with a value on a day, and how many of them sent a form. */
export interface VisitCount {
  parameter: string;
  value: string;
  /** YYYY-MM-DD, UTC. */
  day: string;
  came: number;
  formsSent: number;
}

/** Counts visits and the forms sent in them by the values that are remembered for a visit. Nobody is remembered by it. */
export interface VisitStore {
  /** @param texts the values that a visitor has come with, by parameter */
  came(app: string, texts: Record<string, string>): Promise<void>;
  /** @param texts the values of the visit in which a form was sent */
  formSent(app: string, texts: Record<string, string>): Promise<void>;
  list(app: string): Promise<VisitCount[]>;
}
