/** The process is alive. */
export const GET = () => new Response('ok\n');
