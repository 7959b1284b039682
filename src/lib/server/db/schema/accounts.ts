import {
	bigint,
	boolean,
	index,
	integer,
	jsonb,
	pgEnum,
	pgTable,
	text,
	timestamp,
	uuid
} from 'drizzle-orm/pg-core';
import { KEY_SCOPES, type KeyScope } from '../../../../core/access/keys.ts';
import {
	INVITE_PURPOSES,
	type InvitePurpose,
	WAYS_IN,
	type WayIn
} from '../../../../core/access/session.ts';
import type { ScreenShows } from '../../../../core/access/screen.ts';
import { oneOf } from './one-of.ts';

export const role = pgEnum('role', ['viewer', 'technician', 'supervisor', 'admin']);

const at = (name: string) => timestamp(name, { withTimezone: true });

export const user = pgTable('user', {
	id: text('id').primaryKey(),
	name: text('name').notNull(),
	email: text('email').notNull().unique(),
	emailVerified: boolean('email_verified').notNull().default(false),
	image: text('image'),
	role: role('role').notNull().default('viewer'),
	initials: text('initials').notNull().default(''),
	/** What is printed on their personal card. */
	card: text('card').unique(),
	/** Hash of the PIN that they hand over and sign with. */
	pinHash: text('pin_hash'),
	/** Nobody comes in with this account any more. */
	disabledAt: at('disabled_at'),
	twoFactorEnabled: boolean('two_factor_enabled').notNull().default(false),
	createdAt: at('created_at').notNull().defaultNow(),
	updatedAt: at('updated_at').notNull().defaultNow()
});

/** A browser that somebody went in on with a password. On a shared one a card and a PIN are enough after that. */
export const device = pgTable('device', {
	id: uuid('id').primaryKey(),
	/** Hash of what the browser keeps. */
	hash: text('hash').notNull().unique(),
	name: text('name').notNull().default(''),
	/** A bench that several people work at in turn. */
	shared: boolean('shared').notNull().default(false),
	/** Until then a PIN is enough here; a password renews it. */
	trustedUntil: at('trusted_until').notNull(),
	createdAt: at('created_at').notNull().defaultNow()
});

/** A tablet beside a bench that follows what somebody does on another device. It is nobody, and sees only what it is shown. */
export const secondScreen = pgTable('second_screen', {
	id: uuid('id').primaryKey(),
	/** Hash of the code that lights it, once. */
	codeHash: text('code_hash').notNull().unique(),
	codeUntil: at('code_until').notNull(),
	/** Hash of what its browser keeps; null: no screen took the code yet. */
	tokenHash: text('token_hash').unique(),
	userId: text('user_id')
		.notNull()
		.references(() => user.id),
	shows: jsonb('shows').$type<ScreenShows>().notNull(),
	until: at('until').notNull(),
	endedAt: at('ended_at'),
	createdAt: at('created_at').notNull().defaultNow()
});

export const session = pgTable(
	'session',
	{
		id: text('id').primaryKey(),
		token: text('token').notNull().unique(),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' }),
		expiresAt: at('expires_at').notNull(),
		ipAddress: text('ip_address'),
		userAgent: text('user_agent'),
		deviceId: uuid('device_id').references(() => device.id, { onDelete: 'cascade' }),
		/** On a bench that several share: it ends when nobody uses it. */
		shared: boolean('shared').notNull().default(false),
		way: text('way').$type<WayIn>().notNull().default('password'),
		seenAt: at('seen_at').notNull().defaultNow(),
		/** When the person last showed that it is them, and how. */
		provenAt: at('proven_at').notNull().defaultNow(),
		provenBy: text('proven_by').$type<WayIn>().notNull().default('password'),
		/** Tries that failed since they were in the time before; 0 once they have seen it. */
		failuresBefore: integer('failures_before').notNull().default(0),
		createdAt: at('created_at').notNull().defaultNow(),
		updatedAt: at('updated_at').notNull().defaultNow()
	},
	(t) => [
		index('session_user').on(t.userId),
		oneOf('session_way', t.way, WAYS_IN),
		oneOf('session_proven_by', t.provenBy, WAYS_IN)
	]
);

/** The secret of an authenticator, and the codes for when it is lost; both encrypted. */
export const twoFactor = pgTable(
	'two_factor',
	{
		id: text('id').primaryKey(),
		secret: text('secret').notNull(),
		backupCodes: text('backup_codes').notNull(),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' }),
		verified: boolean('verified').notNull().default(true),
		failedVerificationCount: integer('failed_verification_count').notNull().default(0),
		lockedUntil: at('locked_until')
	},
	(t) => [index('two_factor_user').on(t.userId)]
);

/** Links that let a person in once, to choose a password; only a hash of each is kept. */
export const invite = pgTable(
	'invite',
	{
		hash: text('hash').primaryKey(),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' }),
		purpose: text('purpose').$type<InvitePurpose>().notNull(),
		expiresAt: at('expires_at').notNull(),
		usedAt: at('used_at'),
		createdAt: at('created_at').notNull().defaultNow()
	},
	(t) => [oneOf('invite_purpose', t.purpose, INVITE_PURPOSES)]
);

/** Tries that failed in a row, by a hash of the address or account that was tried. */
export const signInFailure = pgTable('sign_in_failure', {
	key: text('key').primaryKey(),
	failures: integer('failures').notNull(),
	lastAt: at('last_at').notNull()
});

export const account = pgTable('account', {
	id: text('id').primaryKey(),
	accountId: text('account_id').notNull(),
	providerId: text('provider_id').notNull(),
	userId: text('user_id')
		.notNull()
		.references(() => user.id, { onDelete: 'cascade' }),
	accessToken: text('access_token'),
	refreshToken: text('refresh_token'),
	idToken: text('id_token'),
	accessTokenExpiresAt: at('access_token_expires_at'),
	refreshTokenExpiresAt: at('refresh_token_expires_at'),
	scope: text('scope'),
	password: text('password'),
	createdAt: at('created_at').notNull().defaultNow(),
	updatedAt: at('updated_at').notNull().defaultNow()
});

export const verification = pgTable('verification', {
	id: text('id').primaryKey(),
	identifier: text('identifier').notNull(),
	value: text('value').notNull(),
	expiresAt: at('expires_at').notNull(),
	createdAt: at('created_at').notNull().defaultNow(),
	updatedAt: at('updated_at').notNull().defaultNow()
});

export const rateLimit = pgTable('rate_limit', {
	id: text('id').primaryKey(),
	key: text('key').notNull().unique(),
	count: integer('count').notNull(),
	lastRequest: bigint('last_request', { mode: 'number' }).notNull()
});

/** Keys that programs come with; only a hash of each is kept. */
export const apiKey = pgTable(
	'api_key',
	{
		hash: text('hash').primaryKey(),
		id: uuid('id').notNull().unique().defaultRandom(),
		name: text('name').notNull(),
		/** Its first characters, to tell it from others. */
		start: text('start').notNull().default(''),
		scope: text('scope').$type<KeyScope>().notNull().default('calc'),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' }),
		createdAt: at('created_at').notNull().defaultNow(),
		expiresAt: at('expires_at'),
		lastUsedAt: at('last_used_at'),
		revokedAt: at('revoked_at')
	},
	(t) => [oneOf('api_key_scope', t.scope, KEY_SCOPES)]
);
