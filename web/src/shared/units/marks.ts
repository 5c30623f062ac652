import { withOurDecimals } from './decimals';

/** What marks a quantity in a sentence of the server: "{5.3 bar}", or "{5.3 bar!}" where the unit is not to be said. */
const mark = /\{(-?[\d.]+) (bar s\/ml|bar|degC|K|kgf)(!)?\}/g;

/** A sentence with its quantities said by a function of value, unit and decimals. */
export const withQuantities = (
  text: string,
  say: (value: number, unit: string, digits: number) => { value: string; unit: string },
) =>
  text.replace(mark, (_, number: string, unit: string, bare: string | undefined) => {
    const shown = say(Number(number), unit, number.split('.')[1]?.length ?? 0);
    return bare ? shown.value : `${shown.value} ${shown.unit}`;
  });

let saying = (text: string) => withOurDecimals(text);

/** Sets how sentences are said where no component is at hand: in the household's units, once they are known. */
export function sayWith(say: (text: string) => string) {
  saying = say;
}

/** A sentence in the household's units. */
export const inOurUnits = (text: string) => saying(text);
