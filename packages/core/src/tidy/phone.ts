import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/max';

export interface Phone {
  /** E.164 with the extension behind it as RFC 3966 writes it, '' when the input is no valid number. */
  e164: string;
  /** ITU country of the number, '' when unknown. */
  country: string;
}

const NONE: Phone = { e164: '', country: '' };

/** What a numbering plan says of a number: `service` is one that many share (freephone, shared cost, universal access). */
export type PhonePlan = 'mobile' | 'fixed' | 'service' | 'unclear';

/** By type in the numbering plan of its country (libphonenumber). `unclear`: fixed and mobile numbers share one plan, as in North America. */
export function phonePlan(e164: string): PhonePlan {
  switch (parsePhoneNumberFromString(e164.replace(/;ext=.*$/, ''))?.getType()) {
    case 'MOBILE':
      return 'mobile';
    case 'FIXED_LINE':
      return 'fixed';
    case 'TOLL_FREE':
    case 'SHARED_COST':
    case 'PREMIUM_RATE':
    case 'UAN':
      return 'service';
    default:
      return 'unclear';
  }
}

/**
 * A phone number in E.164 (ITU-T E.164), checked against the numbering plan of its country (libphonenumber).
 *
 * @param country ISO 3166 code that numbers without a country code are read in
 * @example parsePhone('0113 496 0417', 'GB').e164 // '+441134960417'
 */
export function parsePhone(input: string, country: string): Phone {
  const text = input.trim().replace(/^\+(\d+)\s*\(0\)/, '+$1');
  if (text === '') return NONE;
  const read = (number: string) => {
    const phone = parsePhoneNumberFromString(number, { defaultCountry: country as CountryCode, extract: false });
    return phone?.isValid() ? phone : undefined;
  };
  const phone = read(text) ?? (/^00[1-9]/.test(text) ? read(`+${text.slice(2)}`) : undefined);
  if (!phone) return NONE;
  return {
    e164: phone.number + (phone.ext ? `;ext=${phone.ext}` : ''),
    country: phone.country ?? '',
  };
}
