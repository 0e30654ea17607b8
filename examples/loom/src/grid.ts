/** Pixels of a cell, at least as many as a finger or a pointer needs. */
const cell = 24;
const small = 12;

export interface GridOptions {
  label: string;
  columns: number;
  rows: number;
  /** The colour of a cell. */
  colour(column: number, row: number): string;
  /** Paints a cell; without it the grid is a picture. @param stroke the same object while the pointer stays down */
  paint?(column: number, row: number, stroke: object): void;
}

/** A grid of cells: painted with the pointer, or with arrow keys and the space bar. */
export class Grid {
  readonly #canvas = document.createElement('canvas');
  #options: GridOptions;
  #cursor = { column: 0, row: 0 };
  #stroke: object | undefined;
  #last = '';

  constructor(place: HTMLElement, options: GridOptions) {
    this.#options = options;
    place.append(this.#canvas);
    if (options.paint === undefined) {
      this.#canvas.role = 'img';
      return;
    }
    // A widget of its own: the label says how it is used.
    this.#canvas.role = 'application';
    this.#canvas.tabIndex = 0;
    this.#canvas.addEventListener('pointerdown', (event) => {
      this.#canvas.setPointerCapture(event.pointerId);
      this.#stroke = {};
      this.#last = '';
      this.#paintAt(event);
    });
    this.#canvas.addEventListener('pointermove', (event) => {
      if (this.#stroke !== undefined) this.#paintAt(event);
    });
    for (const end of ['pointerup', 'pointercancel']) this.#canvas.addEventListener(end, () => (this.#stroke = undefined));
    this.#canvas.addEventListener('keydown', (event) => this.#key(event));
    for (const change of ['focus', 'blur']) this.#canvas.addEventListener(change, () => this.draw(this.#options));
  }

  draw(options: GridOptions): void {
    this.#options = options;
    const { columns, rows, label, colour, paint } = options;
    const size = paint === undefined && columns * rows < 700 ? cell : paint === undefined ? small * 2 : cell;
    this.#canvas.width = columns * size;
    this.#canvas.height = rows * size;
    this.#canvas.ariaLabel = label;
    const context = this.#canvas.getContext('2d');
    if (context === null) return;
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        context.fillStyle = colour(column, row);
        context.fillRect(column * size, row * size, size - 1, size - 1);
      }
    }
    if (document.activeElement !== this.#canvas) return;
    context.strokeStyle = '#c0392b';
    context.lineWidth = 3;
    context.strokeRect(this.#cursor.column * size + 1, this.#cursor.row * size + 1, size - 3, size - 3);
  }

  #paintAt({ offsetX, offsetY }: PointerEvent): void {
    const { columns, rows } = this.#options;
    const column = Math.floor(offsetX / cell);
    const row = Math.floor(offsetY / cell);
    if (column < 0 || row < 0 || column >= columns || row >= rows || this.#last === `${column} ${row}`) return;
    this.#last = `${column} ${row}`;
    this.#cursor = { column, row };
    this.#options.paint?.(column, row, this.#stroke ?? {});
  }

  #key(event: KeyboardEvent): void {
    const { columns, rows } = this.#options;
    const moves: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const move = moves[event.key];
    if (move !== undefined) {
      this.#cursor = {
        column: Math.min(Math.max(this.#cursor.column + move[0], 0), columns - 1),
        row: Math.min(Math.max(this.#cursor.row + move[1], 0), rows - 1),
      };
      this.draw(this.#options);
    } else if (event.key === ' ' || event.key === 'Enter') this.#options.paint?.(this.#cursor.column, this.#cursor.row, {});
    else return;
    event.preventDefault();
  }
}
