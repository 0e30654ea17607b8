import type { ViewContext } from '../../view/view-context.ts';

/** A collection whose records can be chosen, and the unique field that names them where it is not the key. */
export interface OptionSource {
  from: string;
  by?: string;
}

/** The name under which a page's data have what there is to choose from. */
export const optionsName = ({ from, by }: OptionSource): string => (by === undefined ? from : `${from}.${by}`);

/** What there is to choose from: the values of a choices list, or the records of a collection. */
export function optionsOf(
  declaration: { type: string; of?: string | undefined; by?: string | undefined } | undefined,
  context: ViewContext,
): { value: string; text: string }[] {
  const of = declaration?.of ?? '';
  if (declaration?.type === 'boolean') {
    return [
      { value: 'true', text: context.say('Yes') },
      { value: 'false', text: context.say('No') },
    ];
  }
  if (declaration?.type === 'choice') {
    return Object.entries(context.payload.app.choices?.[of] ?? {}).map(([value, choice]) => ({ value, text: context.choice(choice) }));
  }
  return (
    context.payload.data.options[optionsName({ from: of, ...(declaration?.by === undefined ? {} : { by: declaration.by }) })] ?? []
  ).map(({ key, title }) => ({ value: key, text: title }));
}
