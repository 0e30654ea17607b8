import type { Sentences } from './english.ts';
import { alternatives, shown, type Limits } from './shown.ts';

/** What a visitor reads of a text or a value that was refused, by the code, in French. */
export const french: Sentences = {
  'quotation-marks': () => '« $1 »',
  'cannot-be': ([label, text, reason]: string[]) => `« ${String(label)} » ne peut pas être ${String(text)} : ${String(reason)}`,
  'perhaps-meant': ([reason, name]: string[]) => `${String(reason).slice(0, -1)} ; vouliez-vous dire « ${String(name)} » ?`,
  lacks: ([name]: string[]) => `Il manque « ${String(name)} » dans l’adresse, sans quoi la page n’existe pas.`,
  'lacks-hint': () => 'Commencez par une page qui mène ici.',
  'malformed-escape': () => 'Son codage en pourcentage n’est pas de l’UTF-8 valide.',
  repeated: () => 'L’adresse le donne plusieurs fois.',
  blank: () => 'C’est vide.',
  'not-a-text': () => 'Ce n’est pas un texte.',
  'forbidden-character': () => 'Le texte contient un caractère qui ne peut pas être affiché.',
  'too-long': (most?: unknown) => (most === undefined ? 'C’est trop long.' : `Le texte a plus de ${shown(most)} caractères.`),
  'too-short': (least: unknown) => `Le texte a moins de ${shown(least)} caractères.`,
  'pattern-mismatch': () => 'Le texte n’a pas la forme attendue ici.',
  'not-a-key': () => 'Aucun élément ne peut s’appeler ainsi.',
  'not-an-integer': () => 'Ce n’est pas un nombre entier.',
  'not-a-number': () => 'Ce n’est pas un nombre comme 12.5.',
  'too-small': (least: unknown) => `Le nombre doit être au moins ${shown(least)}.`,
  'too-large': (most?: unknown) => (most === undefined ? 'Le nombre est trop grand.' : `Le nombre doit être au plus ${shown(most)}.`),
  'not-a-boolean': () => 'Ce n’est ni « true » ni « false ».',
  'not-a-date': () => 'Ce n’est pas une date comme 2026-03-21.',
  'no-such-day': () => 'Ce jour n’existe pas dans le calendrier.',
  'not-a-datetime': () => 'Ce n’est pas un moment comme 2026-03-21T11:00:00Z.',
  'too-early': (least: unknown) => `Cela ne doit pas être avant ${shown(least)}.`,
  'too-late': (most?: unknown) => (most === undefined ? 'Le moment est après l’an 9999.' : `Cela ne doit pas être après ${shown(most)}.`),
  'unknown-choice': () => 'Ce n’est pas l’un des choix.',
  'not-a-colour': () => 'Ce n’est pas une couleur comme #3a7d44.',
  'too-few': (least: unknown) => `Il faut au moins ${shown(least)} éléments.`,
  'too-many': (most: unknown) => `Il peut y avoir au plus ${shown(most)} éléments.`,
  'repeated-item': () => 'Un élément y figure deux fois.',
  'empty-item': () => 'Un élément est vide.',
  'unknown-sort-field': () => 'On ne peut pas trier par ce champ.',
  'range-reversed': () => 'La fin est avant le début.',
  'not-packed': () => 'C’est abîmé ou coupé.',
  'not-opened': () => 'Cela a été coupé ou modifié en chemin, ou n’est plus valable. Redemandez le lien.',
  'should-be': (what) => `La valeur attendue est ${String(what)}.`,
  'expected-integer': (limits: Limits) => `un nombre entier${span(limits)}`,
  'expected-number': (limits: Limits) => `un nombre${span(limits)}`,
  'expected-boolean': () => '« true » ou « false »',
  'expected-date': (limits: Limits) => `une date comme 2026-03-21${span(limits)}`,
  'expected-choice': ([names, more]: [string[], number]) =>
    more > 0 ? `${names.join(', ')} ou une de ${String(more)} autres valeurs` : alternatives(names, ' ou '),
  'expected-like': (sample) => `par exemple ${String(sample)}`,
  'expected-list': (item) => `${String(item)}, ou plusieurs, séparés par des virgules`,
  'empty-field': () => 'Ce champ ne peut pas être vide.',
  'choose-one': () => 'Choisissez une valeur.',
  'computed-field': () => 'Ce champ est calculé, on ne le remplit pas.',
  'unusable-field': () => 'Rien ne peut être enregistré ici : les règles de l’application se contredisent. Signalez-le à son responsable.',
  'gone-key': (key) => `« ${String(key)} » désignait un élément qui n’existe plus. Choisissez une autre valeur.`,
  'no-file': () => 'Ce n’est pas un fichier envoyé ici.',
  'gone-value': (data) => (data as { reason?: string } | undefined)?.reason ?? 'Cette valeur n’existe plus.',
  'unknown-record': () => 'Cet élément n’existe pas.',
  'not-tied': (labels) => `Il n’appartient pas à ${(labels as string[]).map((label) => `« ${label} »`).join(' et ')} de cette adresse.`,
  'shown-without': ([label, keys]: [string, string[]]) =>
    `« ${label} » ne peut pas être ${keys.join(', ')} : ${keys.length === 1 ? 'cet élément n’existe pas' : 'ces éléments n’existent pas'}.`,
};

/** Where the limits are, beginning with what stands before it. */
const span = ([min, max]: Limits): string =>
  min === undefined
    ? max === undefined
      ? ''
      : `, ${shown(max)} ou moins`
    : max === undefined
      ? `, ${shown(min)} ou plus`
      : ` de ${shown(min)} à ${shown(max)}`;
