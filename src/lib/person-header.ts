/**
 * Whose something is: a page sends it with what its person gave, the server with what it answers. What was given by
 * one person is never taken under the session of another, and an answer without it is not the server's.
 */
export const PERSON_HEADER = 'x-grevan-person';

/** The same among the fields of a form, which carries no headers. */
export const PERSON_FIELD = 'asPerson';
