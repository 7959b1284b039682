/** What a second screen keeps to be known as the one that took the code. */
export const SCREEN_COOKIE = 'grevan-screen';
