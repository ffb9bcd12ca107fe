/** Which steps are on for a list that is only to be verified: nothing is merged, nobody is set aside or looked for. */
export const ONLY_VERIFY: Readonly<Record<string, boolean>> = {
  match: false,
  screen: false,
  'append-email': false,
  verify: true,
};
