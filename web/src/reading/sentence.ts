/** Words as a sentence begins them, whatever is named first. */
export const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
