import type { Sentences } from './english.ts';
import { alternatives, shown, type Limits } from './shown.ts';

/** What a visitor reads of a text or a value that was refused, by the code, in Spanish. */
export const spanish: Sentences = {
  'quotation-marks': () => '«$1»',
  'cannot-be': ([label, text, reason]: string[]) => `«${String(label)}» no puede ser ${String(text)}: ${String(reason)}`,
  'perhaps-meant': ([reason, name]: string[]) => `${String(reason).slice(0, -1)}; quizá quería decir «${String(name)}».`,
  lacks: ([name]: string[]) => `Falta «${String(name)}» en la dirección; sin ello no hay página.`,
  'lacks-hint': () => 'Empiece por una página que lleve aquí.',
  'malformed-escape': () => 'Su codificación por ciento no es UTF-8 válido.',
  repeated: () => 'La dirección lo da más de una vez.',
  blank: () => 'Está vacío.',
  'not-a-text': () => 'No es un texto.',
  'forbidden-character': () => 'El texto contiene un carácter que no se puede mostrar.',
  'too-long': (most?: unknown) => (most === undefined ? 'Es demasiado largo.' : `El texto tiene más de ${shown(most)} caracteres.`),
  'too-short': (least: unknown) => `El texto tiene menos de ${shown(least)} caracteres.`,
  'pattern-mismatch': () => 'El texto no tiene la forma que se espera aquí.',
  'not-a-key': () => 'Ningún elemento puede llamarse así.',
  'not-an-integer': () => 'No es un número entero.',
  'not-a-number': () => 'No es un número como 12.5.',
  'too-small': (least: unknown) => `El número debe ser al menos ${shown(least)}.`,
  'too-large': (most?: unknown) =>
    most === undefined ? 'El número es demasiado grande.' : `El número debe ser como máximo ${shown(most)}.`,
  'not-a-boolean': () => 'No es ni «true» ni «false».',
  'not-a-date': () => 'No es una fecha como 2026-03-21.',
  'no-such-day': () => 'Ese día no existe en el calendario.',
  'not-a-datetime': () => 'No es un momento como 2026-03-21T11:00:00Z.',
  'too-early': (least: unknown) => `No debe ser anterior a ${shown(least)}.`,
  'too-late': (most?: unknown) => (most === undefined ? 'El momento es posterior al año 9999.' : `No debe ser posterior a ${shown(most)}.`),
  'unknown-choice': () => 'No es una de las opciones.',
  'not-a-colour': () => 'No es un color como #3a7d44.',
  'too-few': (least: unknown) => `Debe haber al menos ${shown(least)} elementos.`,
  'too-many': (most: unknown) => `Puede haber como máximo ${shown(most)} elementos.`,
  'repeated-item': () => 'Un elemento figura dos veces.',
  'empty-item': () => 'Un elemento está vacío.',
  'unknown-sort-field': () => 'No se puede ordenar por ese campo.',
  'range-reversed': () => 'El final es anterior al comienzo.',
  'not-packed': () => 'Está dañado o cortado.',
  'not-opened': () => 'Se cortó o se cambió por el camino, o ya no es válido. Vuelva a pedir el enlace.',
  'should-be': (what) => `Se espera ${String(what)}.`,
  'expected-integer': (limits: Limits) => `un número entero${span(limits)}`,
  'expected-number': (limits: Limits) => `un número${span(limits)}`,
  'expected-boolean': () => '«true» o «false»',
  'expected-date': (limits: Limits) => `una fecha como 2026-03-21${span(limits)}`,
  'expected-choice': ([names, more]: [string[], number]) =>
    more > 0 ? `${names.join(', ')} u otro de ${String(more)} valores` : alternatives(names, ' o '),
  'expected-like': (sample) => `algo como ${String(sample)}`,
  'expected-list': (item) => `${String(item)}, o varios, separados por comas`,
  'empty-field': () => 'Este campo no puede quedar vacío.',
  'choose-one': () => 'Elija un valor.',
  'computed-field': () => 'Este campo se calcula y no se rellena.',
  'unusable-field': () => 'Aquí no se puede guardar nada: las reglas de la aplicación se contradicen. Avise a su responsable.',
  'gone-key': (key) => `«${String(key)}» era la clave de un elemento que ya no existe. Elija otro valor.`,
  'no-file': () => 'No es un archivo enviado aquí.',
  'gone-value': (data) => (data as { reason?: string } | undefined)?.reason ?? 'Ese valor ya no existe.',
  'unknown-record': () => 'Ese elemento no existe.',
  'not-tied': (labels) => `No pertenece a ${(labels as string[]).map((label) => `«${label}»`).join(' y ')} de esta dirección.`,
  'shown-without': ([label, keys]: [string, string[]]) =>
    `«${label}» no puede ser ${keys.join(', ')}: ${keys.length === 1 ? 'ese elemento no existe' : 'esos elementos no existen'}.`,
};

/** Where the limits are, beginning with what stands before it. */
const span = ([min, max]: Limits): string =>
  min === undefined
    ? max === undefined
      ? ''
      : `, ${shown(max)} o menos`
    : max === undefined
      ? `, ${shown(min)} o más`
      : ` de ${shown(min)} a ${shown(max)}`;
