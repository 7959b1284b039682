/**
 * What a program may do that comes with a key, each with what the ones before it may: ask the calculation interface;
 * read what its person may read; change what its person may change, but never sign.
 */
export const KEY_SCOPES = ['calc', 'read', 'write'] as const;
export type KeyScope = (typeof KEY_SCOPES)[number];

/** Whether a key reaches as far as what is asked. */
export const keyReaches = (scope: KeyScope, asked: KeyScope): boolean =>
	KEY_SCOPES.indexOf(scope) >= KEY_SCOPES.indexOf(asked);
