/** As the service counts: dots and blanks say nothing to who reads the record later. */
const FEWEST_LETTERS = 5;

export const saysSomething = (reason: string) => (reason.match(/\p{L}/gu)?.length ?? 0) >= FEWEST_LETTERS;
