import { createTransport } from 'nodemailer';

/** How long a mail server may take to answer, ms. Common practice. */
const ANSWER_MS = 10_000;

/** A message as it is handed to whoever delivers it. */
export interface Mail {
	to: string;
	subject: string;
	text: string;
	/** Said again at each try, so that a server that took it and did not say so keeps one of them. */
	id: string;
}

/** Hands a message over. @throws Error with what the mail server said */
export type Deliver = (mail: Mail) => Promise<void>;

/** How messages leave this process, and where people reach the app. */
export interface Post {
	/** By a mail server, or into the mailbox of the demo. */
	way: 'server' | 'mailbox';
	deliver: Deliver;
	/** The address of the app that messages name; '' where it is not set. */
	address: string;
}

let post: Post | null = null;

/** Says how messages leave; called once as the process starts. Until then, and with null, none are made. */
export function openPost(way: Post | null): void {
	post = way;
}

/** How messages leave; null where they do not. */
export const postHere = (): Post | null => post;

/** What of the environment decides how messages leave. */
interface PostSettings {
	SMTP_URL?: string | undefined;
	SMTP_FROM?: string | undefined;
	ORIGIN?: string | undefined;
	GREVAN_DEMO_PASSWORD?: string | undefined;
}

/** The mail server that is set; in the demo without one a mailbox of the app, where every message lies at once. */
export function postFrom(settings: PostSettings): Post | null {
	const { SMTP_URL, SMTP_FROM, ORIGIN = '', GREVAN_DEMO_PASSWORD } = settings;
	const address = ORIGIN.replace(/\/$/, '');
	if (SMTP_URL) {
		const from = SMTP_FROM ?? `grevan@${address ? new URL(address).hostname : 'localhost'}`;
		return { way: 'server', deliver: smtp(SMTP_URL, from), address };
	}
	if (GREVAN_DEMO_PASSWORD === undefined) return null;
	return { way: 'mailbox', deliver: () => Promise.resolve(), address };
}

/** Delivers through a mail server. */
export function smtp(url: string, from: string): Deliver {
	const limits = new URL(url);
	for (const name of ['connectionTimeout', 'greetingTimeout', 'socketTimeout'])
		limits.searchParams.set(name, String(ANSWER_MS));
	const transport = createTransport(limits.href, { from });
	return async ({ to, subject, text, id }) => {
		await transport.sendMail({ to, subject, text, messageId: `<${id}@grevan>` });
	};
}
