import type { PageData } from './$types';

/** The board as the server tells it. */
export type Board = PageData['board'];
export type BoardTeam = Board['teams'][number];
export type BoardWearer = BoardTeam['wearers'][number];
