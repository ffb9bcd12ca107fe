import { plainText, isAllCaps, isAllLower } from './symbols';
import { nameCase } from './person-name';
import { COUNTRY_BY_NAME } from '../words/countries';
import { regionOf } from '../words/regions';

export interface Place {
  city: string;
  region: string;
  country: string;
}

const UK_POSTCODE = /\b[A-Z]{1,2}\d[A-Z\d]?(\s*\d[A-Z]{2})?\b/g;
const EIRCODE = /\b[A-Z]\d[\dW]\s?[A-Z\d]{4}\b/g;
const NUMBER_CODE = /\b\d{4,5}(-\d{4})?\b/g;

/**
 * Splits a place into city, region and country (ISO 3166 code); postcodes are left out.
 *
 * @example parsePlace('Wells BA5, Somerset') // { city: 'Wells', region: 'Somerset', country: 'GB' }
 */
export function parsePlace(input: string): Place {
  const text = plainText(input).replace(EIRCODE, '').replace(UK_POSTCODE, '').replace(NUMBER_CODE, '');
  const parts = text
    .split(/[,;/]|\s-\s/)
    .map((part) => part.trim().replace(/\.$/, ''))
    .filter(Boolean);
  const place: Place = { city: '', region: '', country: '' };
  const rest: string[] = [];
  for (const [i, part] of parts.entries()) {
    const region = i > 0 || parts.length === 1 ? regionOf(part) : undefined;
    const country = i > 0 || parts.length === 1 ? countryCode(part) : '';
    if (region && !place.region && !(country && !place.country && i === parts.length - 1 && part.length > 2)) {
      place.region = region.region;
      place.country ||= region.country;
    } else if (country && (!place.country || i === parts.length - 1)) {
      place.country = country;
      if (/^(england|scotland|wales|northern ireland)$/i.test(part) && !place.region)
        place.region = tidyPlaceName(part);
    } else {
      rest.push(part);
    }
  }
  place.city = tidyPlaceName(rest[0] ?? '');
  if (!place.region && rest.length > 1) place.region = tidyPlaceName(rest[1]!);
  return place;
}

/** The ISO 3166 code of a country given by name or code, '' when it is not one. */
export const countryCode = (input: string): string =>
  COUNTRY_BY_NAME.get(
    input
      .trim()
      .toLowerCase()
      .replace(/^the\s+/, ''),
  ) ?? '';

export const tidyPlaceName = (input: string): string => {
  const text = plainText(input);
  return isAllCaps(text) || isAllLower(text)
    ? text
        .split(' ')
        .map((word, i) =>
          i > 0 && /^(upon|on|the|by|under|le|in|and|of)$/i.test(word) ? word.toLowerCase() : nameCase(word, i > 0),
        )
        .join(' ')
    : text;
};
