/** Names and addresses of this very machine. */
const LOOPBACK = /^(localhost|127(\.\d{1,3}){3}|\[?::1\]?|(::ffff:)127(\.\d{1,3}){3})$/i;

/** Whether a host or an address is this very machine. */
export const isLoopback = (host: string): boolean => LOOPBACK.test(host);
