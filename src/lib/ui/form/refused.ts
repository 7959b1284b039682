/** Why a form was not taken. */
export interface FormRefusal {
	message: string;
	/** The field that it is about. */
	path?: string | undefined;
	/** Every field that is refused. */
	fields?: readonly { path: string; message: string }[];
}

/** What is said at a field of a form; null where it is good. */
export const refusedAt = (refusal: FormRefusal | null | undefined, path: string): string | null =>
	refusal?.fields?.find((field) => field.path === path)?.message ??
	(refusal?.path === path ? refusal.message : null);
