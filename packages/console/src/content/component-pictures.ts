/** A mark of a picture: x, y, width, height on a field of 48 by 30, and how strong it is. */
type Mark = readonly [x: number, y: number, width: number, height: number, tone?: 'strong' | 'soft' | 'line'];

const lines = (x: number, y: number, width: number, count: number): Mark[] =>
  Array.from({ length: count }, (_, index) => [x, y + index * 6, width, 2, 'soft'] as Mark);
const box: Mark = [4, 10, 40, 10, 'line'];

/** A small picture of what each kind of component looks like. */
export const componentPictures: Readonly<Record<string, readonly Mark[]>> = {
  heading: [[4, 11, 30, 7, 'strong']],
  text: lines(4, 6, 40, 4),
  notice: [
    [4, 8, 40, 14, 'line'],
    [4, 8, 3, 14, 'strong'],
    [11, 12, 28, 2, 'soft'],
    [11, 17, 20, 2, 'soft'],
  ],
  image: [
    [8, 4, 32, 22, 'line'],
    [12, 16, 10, 7, 'soft'],
    [22, 12, 14, 11, 'soft'],
  ],
  link: [
    [4, 13, 26, 3, 'strong'],
    [4, 18, 26, 1, 'strong'],
  ],
  columns: [
    [4, 5, 18, 20, 'line'],
    [26, 5, 18, 20, 'line'],
  ],
  block: [
    [6, 6, 26, 16, 'line'],
    [12, 10, 26, 16, 'soft'],
  ],
  drawing: [
    [10, 4, 28, 22, 'line'],
    [12, 6, 8, 6, 'soft'],
    [20, 12, 8, 6, 'strong'],
    [28, 6, 8, 6, 'soft'],
  ],
  'site-link': [
    [4, 13, 22, 3, 'strong'],
    [30, 9, 8, 8, 'line'],
  ],
  'lead-on': [
    [4, 14, 30, 2, 'soft'],
    [34, 9, 8, 12, 'strong'],
  ],
  navigation: [
    [4, 13, 10, 3, 'strong'],
    [18, 13, 10, 3, 'soft'],
    [32, 13, 10, 3, 'soft'],
  ],
  back: [
    [4, 13, 5, 5, 'strong'],
    [12, 14, 24, 3, 'soft'],
  ],
  share: [
    [6, 5, 20, 20, 'line'],
    [10, 9, 5, 5, 'strong'],
    [18, 9, 5, 5, 'strong'],
    [10, 17, 5, 5, 'strong'],
    [30, 14, 12, 3, 'soft'],
  ],
  language: [
    [4, 11, 12, 9, 'strong'],
    [18, 11, 12, 9, 'line'],
    [32, 11, 12, 9, 'line'],
  ],
  search: [box, [8, 14, 16, 2, 'soft'], [36, 12, 5, 6, 'strong']],
  select: [box, [8, 14, 16, 2, 'soft'], [38, 14, 4, 3, 'strong']],
  radio: [
    [4, 6, 5, 5, 'strong'],
    [12, 8, 26, 2, 'soft'],
    [4, 17, 5, 5, 'line'],
    [12, 19, 22, 2, 'soft'],
  ],
  checkboxes: [
    [4, 5, 5, 5, 'strong'],
    [12, 7, 24, 2, 'soft'],
    [4, 13, 5, 5, 'strong'],
    [12, 15, 20, 2, 'soft'],
    [4, 21, 5, 5, 'line'],
    [12, 23, 26, 2, 'soft'],
  ],
  toggle: [
    [6, 10, 18, 10, 'line'],
    [15, 12, 7, 6, 'strong'],
    [28, 14, 14, 2, 'soft'],
  ],
  input: [
    [4, 5, 16, 2, 'soft'],
    [4, 10, 40, 10, 'line'],
  ],
  panel: [[4, 4, 40, 22, 'line'], [9, 9, 20, 3, 'strong'], ...lines(9, 15, 28, 2)],
  dialog: [
    [2, 2, 44, 26, 'soft'],
    [10, 6, 28, 18, 'line'],
    [14, 10, 14, 3, 'strong'],
  ],
  tabs: [[4, 5, 12, 6, 'strong'], [18, 5, 12, 6, 'line'], [32, 5, 12, 6, 'line'], ...lines(4, 16, 40, 2)],
  views: [[4, 4, 40, 22, 'line'], ...lines(9, 9, 30, 3)],
  table: [
    [4, 4, 40, 5, 'strong'],
    [4, 9, 40, 5, 'line'],
    [4, 14, 40, 5, 'line'],
    [4, 19, 40, 5, 'line'],
  ],
  list: [
    [4, 4, 18, 10, 'line'],
    [26, 4, 18, 10, 'line'],
    [4, 17, 18, 10, 'line'],
    [26, 17, 18, 10, 'line'],
    [7, 7, 10, 2, 'strong'],
    [29, 7, 10, 2, 'strong'],
  ],
  pager: [
    [6, 12, 7, 7, 'line'],
    [17, 12, 7, 7, 'strong'],
    [28, 12, 7, 7, 'line'],
  ],
  details: [
    [4, 6, 12, 2, 'soft'],
    [20, 6, 20, 2, 'strong'],
    [4, 13, 12, 2, 'soft'],
    [20, 13, 16, 2, 'strong'],
    [4, 20, 12, 2, 'soft'],
    [20, 20, 22, 2, 'strong'],
  ],
  'bar-chart': [
    [4, 5, 34, 4, 'strong'],
    [4, 13, 22, 4, 'strong'],
    [4, 21, 12, 4, 'strong'],
  ],
  form: [
    [4, 4, 40, 6, 'line'],
    [4, 13, 40, 6, 'line'],
    [4, 22, 14, 5, 'strong'],
  ],
  filters: [
    [4, 4, 18, 6, 'line'],
    [25, 4, 18, 6, 'line'],
    [4, 14, 18, 6, 'line'],
    [25, 14, 14, 6, 'strong'],
  ],
  ask: [
    [4, 8, 26, 7, 'line'],
    [33, 8, 11, 7, 'strong'],
  ],
  'sign-in': [
    [10, 4, 28, 6, 'line'],
    [10, 12, 28, 6, 'line'],
    [10, 21, 14, 5, 'strong'],
  ],
  'sign-up': [
    [10, 2, 28, 5, 'line'],
    [10, 9, 28, 5, 'line'],
    [10, 16, 28, 5, 'line'],
    [10, 23, 14, 5, 'strong'],
  ],
};
