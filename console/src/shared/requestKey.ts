/** A key for a request that makes something: sent again with the same one, it makes no second. */
export const newKey = () =>
  Array.from(crypto.getRandomValues(new Uint32Array(4)), (part) => part.toString(36)).join("-");
