/** Whether text can be kept and shown as it is: no NUL, which no database keeps, and no half of a character. */
export const isPlain = (text: string): boolean => !/\0|\p{Surrogate}/u.test(text);
