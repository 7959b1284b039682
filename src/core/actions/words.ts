import { rejectCode } from '../data/reject-codes.ts';
import { repairOf } from '../data/repairs.ts';
import { readable } from '../plan/calendar.ts';

/** A reject code with its name; the bare code where it is no longer known. */
export function codeWords(code: string): string {
	try {
		return `${code}, ${rejectCode(code).name}`;
	} catch {
		return code;
	}
}

/** A repair by its name; its key where it is no longer known. */
export function repairWords(key: string): string {
	try {
		return repairOf(key).name.toLowerCase();
	} catch {
		return key;
	}
}

/** A day as people read it; the text itself where it is none. */
export const dayWords = (text: string): string =>
	/^\d{4}-\d{2}-\d{2}$/.test(text) ? readable(text) : text;

/** A remark behind a sentence, or nothing. */
export const remark = (text: string | null | undefined): string => (text ? `. ${text}` : '');
