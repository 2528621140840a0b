/** Where the name is kept under which this browser's acts stand in the history of a service without sign-in. */
export const PERSON = "person";

let formToken = "";

/** Takes the token that goes with this browser's sign-in: what changes anything sends it. */
export function keepFormToken(token: string) {
  formToken = token;
}

/** The headers that say who acts. Names are percent-encoded, since headers hold ASCII only. */
export const personHeader = (): Record<string, string> => {
  const name = localStorage.getItem(`daxlin.${PERSON}`)?.trim();
  return {
    ...(name && { "Daxlin-Person": encodeURIComponent(name) }),
    ...(formToken && { "Daxlin-Form": formToken }),
  };
};
