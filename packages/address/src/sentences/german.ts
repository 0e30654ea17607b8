import type { Sentences } from './english.ts';
import { alternatives, shown, type Limits } from './shown.ts';

/** What a visitor reads of a text or a value that was refused, by the code, in German. */
export const german: Sentences = {
  'quotation-marks': () => '„$1“',
  'cannot-be': ([label, text, reason]: string[]) => `„${String(label)}“ kann nicht ${String(text)} sein: ${String(reason)}`,
  'perhaps-meant': ([reason, name]: string[]) => `${String(reason).slice(0, -1)}; vielleicht war „${String(name)}“ gemeint.`,
  lacks: ([name]: string[]) => `In der Adresse fehlt „${String(name)}“. Ohne das gibt es die Seite nicht.`,
  'lacks-hint': () => 'Beginnen Sie auf einer Seite, die hierher führt.',
  'malformed-escape': () => 'Die Prozentkodierung ist kein gültiges UTF-8.',
  repeated: () => 'Es steht mehrmals in der Adresse.',
  blank: () => 'Es ist leer.',
  'not-a-text': () => 'Es ist kein Text.',
  'forbidden-character': () => 'Der Text enthält ein Zeichen, das nicht gezeigt werden kann.',
  'too-long': (most?: unknown) => (most === undefined ? 'Es ist zu lang.' : `Der Text hat mehr als ${shown(most)} Zeichen.`),
  'too-short': (least: unknown) => `Der Text hat weniger als ${shown(least)} Zeichen.`,
  'pattern-mismatch': () => 'Der Text hat nicht die Form, die hier erwartet wird.',
  'not-a-key': () => 'So kann kein Eintrag heißen.',
  'not-an-integer': () => 'Es ist keine ganze Zahl.',
  'not-a-number': () => 'Es ist keine Zahl wie 12.5.',
  'too-small': (least: unknown) => `Die Zahl muss mindestens ${shown(least)} sein.`,
  'too-large': (most?: unknown) => (most === undefined ? 'Die Zahl ist zu groß.' : `Die Zahl darf höchstens ${shown(most)} sein.`),
  'not-a-boolean': () => 'Es ist weder „true“ noch „false“.',
  'not-a-date': () => 'Es ist kein Datum wie 2026-03-21.',
  'no-such-day': () => 'Diesen Tag gibt es im Kalender nicht.',
  'not-a-datetime': () => 'Es ist kein Zeitpunkt wie 2026-03-21T11:00:00Z.',
  'too-early': (least: unknown) => `Es darf nicht vor ${shown(least)} liegen.`,
  'too-late': (most?: unknown) =>
    most === undefined ? 'Der Zeitpunkt liegt nach dem Jahr 9999.' : `Es darf nicht nach ${shown(most)} liegen.`,
  'unknown-choice': () => 'Es ist keine der Möglichkeiten.',
  'not-a-colour': () => 'Es ist keine Farbe wie #3a7d44.',
  'too-few': (least: unknown) => `Es müssen mindestens ${shown(least)} Einträge sein.`,
  'too-many': (most: unknown) => `Es dürfen höchstens ${shown(most)} Einträge sein.`,
  'repeated-item': () => 'Ein Eintrag steht zweimal darin.',
  'empty-item': () => 'Ein Eintrag ist leer.',
  'unknown-sort-field': () => 'Danach kann nicht sortiert werden.',
  'range-reversed': () => 'Das Ende liegt vor dem Anfang.',
  'not-packed': () => 'Es ist beschädigt oder abgeschnitten.',
  'not-opened': () => 'Es wurde unterwegs abgeschnitten oder verändert, oder es gilt nicht mehr. Bitten Sie noch einmal um den Link.',
  'should-be': (what) => `Erwartet wird ${String(what)}.`,
  'expected-integer': (limits: Limits) => `eine ganze Zahl${span(limits)}`,
  'expected-number': (limits: Limits) => `eine Zahl${span(limits)}`,
  'expected-boolean': () => '„true“ oder „false“',
  'expected-date': (limits: Limits) => `ein Datum wie 2026-03-21${span(limits)}`,
  'expected-choice': ([names, more]: [string[], number]) =>
    more > 0 ? `${names.join(', ')} oder einer von ${String(more)} weiteren Werten` : alternatives(names, ' oder '),
  'expected-like': (sample) => `etwas wie ${String(sample)}`,
  'expected-list': (item) => `${String(item)}, oder mehrere davon, durch Kommas getrennt`,
  'empty-field': () => 'Das darf nicht leer bleiben.',
  'choose-one': () => 'Wählen Sie einen Wert aus.',
  'computed-field': () => 'Das wird berechnet und nicht ausgefüllt.',
  'unusable-field': () => 'Hier lässt sich nichts speichern: Die Vorgaben der App widersprechen sich. Bitte sagen Sie es dem Betreiber.',
  'gone-key': (key) => `„${String(key)}“ bezeichnete einen Eintrag, den es nicht mehr gibt. Wählen Sie einen anderen Wert.`,
  'no-file': () => 'Das ist keine Datei, die hier gesendet wurde.',
  'gone-value': (data) => (data as { reason?: string } | undefined)?.reason ?? 'Den Wert gibt es nicht mehr.',
  'unknown-record': () => 'Diesen Eintrag gibt es nicht.',
  'not-tied': (labels) => `Es gehört nicht zu ${(labels as string[]).map((label) => `„${label}“`).join(' und ')} in dieser Adresse.`,
  'shown-without': ([label, keys]: [string, string[]]) =>
    `„${label}“ kann nicht ${keys.join(', ')} sein: ${keys.length === 1 ? 'Diesen Eintrag' : 'Diese Einträge'} gibt es nicht.`,
};

/** Where the limits are, beginning with what stands before it. */
const span = ([min, max]: Limits): string =>
  min === undefined
    ? max === undefined
      ? ''
      : ` bis ${shown(max)}`
    : max === undefined
      ? ` ab ${shown(min)}`
      : ` von ${shown(min)} bis ${shown(max)}`;
