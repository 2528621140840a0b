/** Where this browser keeps who works in it; until somebody says so, acts are told under the service's own user. */
export const PERSON = "person";

/** The header that says who acts. Names are percent-encoded, since headers hold ASCII only. */
export const personHeader = (): Record<string, string> => {
  const name = localStorage.getItem(`daxlin.${PERSON}`)?.trim();
  return name ? { "Daxlin-Person": encodeURIComponent(name) } : {};
};
