/** Locales of which the sign before the tenths is known (Unicode CLDR; the test holds them against ICU's own data). */
export const known = {
  '.': 'en en-AU en-CA en-GB en-IE en-IN en-NZ en-US es-MX es-US he hi ja ja-JP ko ko-KR th zh zh-CN zh-TW',
  ',': [
    'bg bg-BG ca ca-ES cs cs-CZ da da-DK de de-AT de-DE el el-GR es es-AR es-ES et et-EE fi fi-FI',
    'fr fr-BE fr-CA fr-CH fr-FR hr hr-HR hu hu-HU is is-IS it it-IT lt lt-LT lv lv-LV nb nb-NO',
    'nl nl-BE nl-NL nn nn-NO pl pl-PL pt pt-BR pt-PT ro ro-RO ru ru-RU sk sk-SK sl sl-SI sr sr-RS',
    'sv sv-FI sv-SE tr tr-TR uk uk-UA',
  ].join(' '),
};

/**
 * The sign before the tenths in a locale: a comma, a point or a sign of its own. The browser knows it of every locale,
 * but asking makes it load its number formats: a sixth of a second on a slow phone, before its first page is drawn.
 */
export function decimalSign(locale: string): string {
  for (const sign of ['.', ','] as const) if (known[sign].split(' ').includes(locale)) return sign;
  const parts = new Intl.NumberFormat(locale).formatToParts(1.5);
  return parts.find((part) => part.type === 'decimal')?.value ?? '.';
}
