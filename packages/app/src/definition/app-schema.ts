import { z } from 'zod';
import { reasons, type Reason } from '../gate/pass.ts';
import { parameter } from './parameter-schema.ts';
import type { Component } from './component.ts';
import { typefaceNames } from './typefaces.ts';
import { condition, fieldPath, link, name, named, pattern, template, text, value } from './schema-parts.ts';

/** The types that a field can have. */
export const fieldTypes = ['text', 'integer', 'number', 'boolean', 'date', 'choice', 'record', 'file'] as const;

export const field = named(
  z.strictObject({
    type: z.enum(fieldTypes),
    of: name.optional().describe('For a choice its choices list, for a record its collection'),
    label: z.string().max(200).optional(),
    required: z.boolean().optional(),
    unique: z.boolean().optional(),
    pattern: pattern.optional().describe('Regular expression (ECMA-262, flag u) that the whole text must match'),
    maxLength: z.number().int().min(1).optional(),
    min: z.union([z.number(), z.string()]).optional().describe('For a number or a date'),
    max: z.union([z.number(), z.string()]).optional(),
    serial: z
      .string()
      .regex(/^[A-Za-z0-9_-]{0,20}?0{1,9}$/, 'a beginning and as many zeros as the number has digits, as in N-0000')
      .optional()
      .describe('For a text: new records get the next number in this form'),
    computed: condition
      .optional()
      .describe('An expression of the record’s other fields, such as row.height * row.width: nobody fills the field in'),
    accept: z
      .array(z.string().regex(/^[a-z]+\/(?:\*|[a-z0-9.+-]+)$/, 'a media type, such as image/png or image/*'))
      .min(1)
      .optional()
      .describe('For a file: the media types that it may have; any when left out'),
    maxKilobytes: z.number().int().min(1).max(20_000).optional().describe('For a file: its greatest length; 5000 when left out'),
    help: z.string().max(500).optional().describe('A sentence for people who fill it in'),
    autocomplete: z
      .enum([
        'name',
        'given-name',
        'family-name',
        'email',
        'tel',
        'url',
        'street-address',
        'postal-code',
        'address-level2',
        'country-name',
        'organization',
        'bday',
      ])
      .optional()
      .describe('What browsers fill in by themselves (HTML autofill); email, tel and url get a box of their kind'),
    sensitive: z.boolean().optional().describe('Never to stand readable in an address'),
    formerNames: z
      .array(name)
      .optional()
      .describe('Names that the field had in the past: its values stay, and addresses that sort by them work'),
  }),
  'field',
);
export const collection = z.strictObject({
  keyField: name.describe('The field that names a record in an address'),
  formerKeys: z
    .array(name)
    .optional()
    .describe('Unique fields that named its records in addresses in the past: such addresses lead to today’s'),
  titleField: name.optional().describe('The field that names a record to people; the key field when left out'),
  data: z
    .string()
    .max(200)
    .regex(/^[A-Za-z0-9_-]+\.csv$/, 'a CSV file beside the app file, such as specimens.csv')
    .optional()
    .describe('CSV file in the folder “data” beside the app file'),
  formerNames: z.array(name).optional().describe('Names that the collection had in the past: its records stay'),
  fields: z.record(name, field),
});
const where = named(
  z.strictObject({
    field: fieldPath,
    not: z.literal(true).optional().describe('Reverses the condition: it finds the records for which the condition does not hold'),
    equals: value.optional(),
    contains: value.optional().describe('Capitals and accents do not matter'),
    startsWith: value.optional().describe('Capitals and accents do not matter'),
    oneOf: value.optional().describe('A list of values'),
    within: value.optional().describe('A range, both ends included'),
    before: value.optional().describe('For a date or a number: less than the value'),
    after: value.optional().describe('For a date or a number: more than the value'),
    lessThan: value.optional(),
    moreThan: value.optional(),
    atMost: value.optional(),
    atLeast: value.optional(),
    empty: z.union([z.boolean(), value]).optional().describe('Whether the field has no value'),
    absent: z
      .enum(['leave-out', 'nothing'])
      .optional()
      .describe('When the value is absent: leave the condition out (the default), or read nothing'),
  }),
  'where',
);

export const figure = named(
  z
    .strictObject({
      sum: name.optional().describe('Of a number field'),
      average: name.optional().describe('Of a number field'),
      smallest: name.optional().describe('Of a number or date field'),
      largest: name.optional().describe('Of a number or date field'),
      distinct: name.optional().describe('How many different values a field has'),
    })
    .refine((given) => Object.keys(given).length === 1, 'a figure is one of sum, average, smallest, largest or distinct'),
  'figure',
);
export const read = z.strictObject({
  from: name.describe('The collection'),
  where: z.array(where).optional().describe('Conditions that all have to hold'),
  whereAny: z.array(where).optional().describe('Conditions of which at least one has to hold, beside those of “where”'),
  figures: z
    .record(name, figure)
    .optional()
    .describe('Figures of all records of the list, by a name of your own: {figures.READ.NAME} shows one'),
  sort: value.optional().describe('A sort parameter in braces, or fields such as "name,-planted"'),
  page: value.optional().describe('Number of the page of the list, from 1'),
  size: z
    .union([z.number().int().min(1).max(500), value])
    .optional()
    .describe('Records on a page, at most 500; 25 when left out'),
  when: condition.optional().describe('Read only while this holds'),
});
const choiceDefinition = z.union([
  z.string(),
  z.strictObject({
    label: z.string(),
    formerValues: z.array(z.string().min(1).max(100)).optional().describe('Values that stood for it in the past'),
  }),
]);

/** A language tag (BCP 47), as far as HTML needs it. */
const languageTag = /^[a-zA-Z]{2,3}(?:-[a-zA-Z0-9]{2,8})*$/;

/** Whether the platform knows a time zone of this name. */
function isTimeZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

const gate = named(
  z
    .strictObject({
      roles: z.array(z.string().min(1).max(60)).min(1).optional().describe('Who has one of these roles'),
      when: condition.optional().describe('For whom this holds; it may name person, param and record'),
      reason: text.optional().describe('What the sign-in page tells visitors, and what a page tells an account that may not see it'),
    })
    .refine(({ roles, when }) => roles !== undefined || when !== undefined, 'a gate has “roles”, “when”, or both'),
  'gate',
);

const arrivalRule = z.strictObject({
  when: condition.describe('Holds for the address of arrival'),
  set: z.record(name, value).optional().describe('View state to begin with: values for parameters of the page'),
  notice: text.optional().describe('What to say, once'),
});

const component: z.ZodType<Component> = z.looseObject({ show: z.string(), when: condition.optional() });

/** Its content is checked where a page uses it, with the values that it is given there. */
export const block = z.strictObject({
  label: z.string().max(200).optional().describe('Its name for builders'),
  takes: z
    .record(
      name,
      z.strictObject({
        label: z.string().max(200).optional().describe('Its name for builders'),
        required: z.boolean().optional().describe('Whether each page has to give it'),
        default: z.unknown().optional().describe('The value when a page gives none'),
      }),
    )
    .optional()
    .describe('What a page gives it: {block.NAME} in its content'),
  content: z.array(component),
});

/** A page whose components may be of any kind. */
export const page = z.strictObject({
  title: text,
  description: text.optional().describe('A sentence about the page, for search engines and where its address is shared'),
  robots: z
    .array(z.enum(['noindex', 'nofollow', 'noarchive', 'nosnippet']))
    .optional()
    .describe('What search engines are asked not to do with the page'),
  group: z.string().min(1).max(60).optional().describe('Heading under which the console lists the page'),
  address: template.describe('Address template (RFC 6570): /specimens/{specimen}{?tab,note}'),
  parameters: z.record(name, parameter).optional(),
  sampleSets: z
    .record(z.string().min(1).max(60), z.record(name, z.unknown()))
    .optional()
    .describe(
      'Values to see the page with while it is being built, by a name for each set; a text stands as in an address, right or wrong',
    ),
  formerNames: z.array(name).optional().describe('Names that the page had in the past'),
  formerAddresses: z
    .array(
      z.union([
        template,
        z.strictObject({
          address: template,
          values: z.record(name, z.unknown()).describe('Values that such an address implies'),
        }),
      ]),
    )
    .optional()
    .describe('Address templates of the past, with today’s names of the parameters; each alone, or with values that it implies'),
  admit: z.union([name, gate]).optional().describe('Who may see the page: everyone, signed-in, the name of a gate of the app, or a gate'),
  arrival: z.array(arrivalRule).optional().describe('What happens when a visitor arrives at the page with certain values'),
  rows: z.record(name, read).optional().describe('The records that the page shows, by a name of your own'),
  content: z.array(component),
});
const signIn = z.strictObject({
  page: name.describe('The page with the sign-in form'),
  afterSignIn: link.optional().describe('Where people land after sign-in when no other address was wanted'),
  newcomers: z
    .strictObject({
      roles: z.array(z.string().min(1).max(60)).optional().describe('The roles that they have'),
      afterSignUp: link
        .optional()
        .describe('Where they land when no other address was wanted: with a parameter that acts once, a first welcome'),
    })
    .optional()
    .describe('Lets people make accounts themselves, on a page with the component sign-up'),
  byMail: z
    .strictObject({
      subject: text,
      text: text.describe('The mail’s text; {link.enter} is the address that lets one in, {person.name} whom'),
      enter: text.optional().describe('What the link says in the mail as HTML'),
      minutes: z.number().int().min(5).max(1440).optional().describe('How long the link is good for, once; 20 when left out'),
    })
    .optional()
    .describe('Lets people come in without their password, by a link in a mail to the address that the owner has given for them'),
  afterSignOut: link.optional().describe('Where one lands after sign-out; the sign-in page when left out'),
  reasons: z
    .strictObject(Object.fromEntries(reasons.map((reason) => [reason, text.optional()])) as Record<Reason, z.ZodOptional<typeof text>>)
    .optional()
    .describe('What the sign-in page says for each reason'),
});

export const mail = z.strictObject({
  to: text.describe('The recipient’s address'),
  subject: text,
  text: text.describe('The mail’s text; {link.NAME} is the address of a link, paragraphs are parted by empty lines'),
  links: z
    .record(name, z.strictObject({ text, to: link }))
    .optional()
    .describe('Links by name, each with what it says in the mail as HTML'),
});
const site = z.strictObject({
  base: z
    .url({ protocol: /^https?$/ })
    .refine((at) => !/[?#@]/.test(at), 'the beginning of addresses, such as https://seeds.example/shop')
    .describe('What the site’s addresses begin with'),
  withVisit: z.array(name).min(1).optional().describe('Values remembered for the visit that are sent to the site'),
});

export const look = z.strictObject({
  accent: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i, 'a colour as in #17695a')
    .optional()
    .describe('Colour of links and buttons; darkened or lightened where it could not be read'),
  text: z.enum(typefaceNames).optional().describe('Typeface of headings; “book”, which has serifs, when left out'),
  body: z.enum(typefaceNames).optional().describe('Typeface of all else; “plain”, without serifs, when left out'),
  logo: z.string().max(200).optional().describe('Name of a file in the folder “images” beside the app file, shown before the title'),
  corners: z.enum(['round', 'square']).optional().describe('Corners of boxes and buttons; “round” when left out'),
});
/** The app file, version 1, its components of any kind: `app-file.ts` knows the kinds. */
export const appWithAnyComponents = z
  .strictObject({
    pallmist: z.literal(1).describe('Version of the app file'),
    app: z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, 'an app’s name has small letters, digits and “-”'),
    title: z.string().min(1).max(200),
    mount: z
      .string()
      .regex(/^(?:\/|(?:\/[A-Za-z0-9_-]+)+)$/, 'a mount is “/” or a path such as /garden')
      .describe('Where the app stands on the site'),
    formerMounts: z
      .array(z.string().regex(/^(?:\/|(?:\/[A-Za-z0-9_-]+)+)$/, 'a mount is “/” or a path such as /garden'))
      .optional()
      .describe('Where the app was mounted in the past; addresses there lead to today’s'),
    gone: z
      .array(
        z.strictObject({
          address: template.describe('Address template, as that of a page'),
          reason: text.optional().describe('What visitors are told'),
          to: link.optional().describe('Where they can go instead'),
        }),
      )
      .optional()
      .describe('Addresses that are no more: they answer with 410, and no page can take them'),
    timeZone: z
      .string()
      .refine(isTimeZone, 'the IANA name of a time zone, such as Europe/London')
      .optional()
      .describe('IANA name of the time zone in which “today” is meant; UTC when left out'),
    choices: z.record(name, z.record(z.string().min(1).max(100), choiceDefinition)).optional(),
    parameters: z
      .record(name, parameter)
      .optional()
      .describe('Query parameters of every page, which every link takes along: a language, say'),
    mails: z.record(name, mail).optional().describe('Mails that forms send'),
    sites: z.record(name, site).optional().describe('Other sites that the component “site-link” may lead to'),
    gates: z.record(name, gate).optional().describe('Gates that pages name under “admit”'),
    language: name.optional().describe('The app’s parameter that holds the language: a choice of language tags (BCP 47)'),
    words: z
      .record(name, z.record(z.string(), z.string().max(5000)))
      .optional()
      .describe('Texts by language, for {word.NAME}'),
    languageFromBrowser: z
      .boolean()
      .optional()
      .describe('Whether a visitor who arrives without a language in the address is led to the one that the browser prefers'),
    phrases: z
      .record(z.string().regex(languageTag, 'a language tag such as pl'), z.record(z.string(), z.string().max(500)))
      .optional()
      .describe('By language: other words for texts of Pallmist’s own, by the English text'),
    collections: z.record(name, collection).optional(),
    blocks: z.record(name, block).optional().describe('Content that pages use with the component “block”'),
    look: look.optional().describe('How the pages of the app look'),
    signIn: signIn.optional(),
    navigation: z
      .array(z.strictObject({ text, to: link }))
      .optional()
      .describe('Links at the top of every page'),
    footer: z
      .strictObject({
        text: text.optional(),
        links: z.array(z.strictObject({ text, to: link })).optional(),
      })
      .optional()
      .describe('What stands below every page'),
    pages: z.record(name, page),
  })
  .describe('A Pallmist app');
